// A throw-away Open Ledger for tests, pictures and benchmarks: own database, own ports, own stand-ins, the clock in a file.
// With two processes it stands behind a balancer that asks them in turns.
import { spawn, spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { freePort, startDatabase } from './database.mjs'
import { fingerprint, installDebian, isMarked, setMark } from './install.mjs'

export const NOW = '2026-11-24T10:21'
const UP_WITHIN_MS = 30_000
const at = (port) => `http://127.0.0.1:${port}`
const over = (child) => child.exitCode !== null || child.signalCode !== null
const ended = (child) =>
  over(child) ? Promise.resolve() : new Promise((done) => child.once('exit', done))

async function answers(url, what) {
  for (let waited = 0; waited < UP_WITHIN_MS; waited += 100) {
    if (
      await fetch(`${url}/api/health`).then(
        (r) => r.ok,
        () => false,
      )
    )
      return
    await new Promise((done) => setTimeout(done, 100))
  }
  throw new Error(`${what} did not answer within 30 s`)
}
export async function startServer(env) {
  const app = spawn(process.execPath, ['.output/server/index.mjs'], {
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, ...env },
  })
  try {
    await answers(at(env.PORT), 'the app')
    return app
  } catch (error) {
    app.kill('SIGKILL')
    throw error
  }
}
/** nginx on loopback: each request goes to the next process in turn, and says for whom it asks. */
async function startBalancer(folder, port, ports) {
  installDebian({ nginx: 'nginx-light' })
  const file = join(folder, 'nginx.conf')
  writeFileSync(
    file,
    `
${process.getuid?.() === 0 ? 'user root;' : ''}
daemon off; worker_processes 1; pid ${folder}/nginx.pid; error_log ${folder}/nginx.log;
events { worker_connections 1024; }
http {
  access_log off; client_max_body_size 80m;
  client_body_temp_path ${folder}/body; proxy_temp_path ${folder}/proxy;
  fastcgi_temp_path ${folder}/f; uwsgi_temp_path ${folder}/u; scgi_temp_path ${folder}/s;
  upstream app { ${ports.map((p) => `server 127.0.0.1:${p};`).join(' ')} }
  server {
    listen 127.0.0.1:${port};
    location / {
      proxy_pass http://app; proxy_http_version 1.1; proxy_set_header Connection ""; proxy_set_header Host $http_host;
      proxy_set_header X-Forwarded-For $proxy_add_x_forwarded_for;
      proxy_buffering off; proxy_read_timeout 1h; proxy_next_upstream off;
    }
  }
}`,
  )
  const balancer = spawn('nginx', ['-c', file, '-e', join(folder, 'nginx.log')], {
    stdio: 'inherit',
  })
  balancer.on('error', () => {})
  await answers(at(port), 'the balancer')
  return balancer
}
async function environment(folder, database, processes) {
  const ports = await Promise.all(Array.from({ length: 6 + processes }, freePort))
  const [port, mail, mailHttp, card, text, supplier, ...apps] = ports
  const clock = join(folder, 'now')
  writeFileSync(clock, NOW)
  return {
    // One process answers at the address itself; several stand behind a balancer there.
    apps: processes === 1 ? [port] : apps,
    peers: { mail, mailHttp, card, text, supplier },
    env: {
      DATABASE_URL: database.url,
      OPEN_LEDGER_SECRET: 'test-only-secret-0123456789-abcdefghij',
      CARD_SECRET: 'test-only-card-secret',
      OPEN_LEDGER_NOW: `file:${clock}`,
      OPEN_LEDGER_TRUSTED_PROXIES: '127.0.0.1',
      CLOCK_FILE: clock,
      OPEN_LEDGER_EXPORTS: join(folder, 'exports'),
      HOST: '127.0.0.1',
      PORT: String(port),
      NITRO_HOST: '127.0.0.1',
      NITRO_PORT: String(port),
      NODE_ENV: 'production',
      PUBLIC_URL: at(port),
      TEST_URL: at(port),
      SMTP_URL: `smtp://127.0.0.1:${mail}`,
      MAIL_STANDIN: at(mailHttp),
      CARD_URL: at(card),
      TEXT_URL: at(text),
      TEXT_SECRET: 'test-only-text-secret',
      POSITIONS_SECRET: 'test-only-positions-secret',
      SUPPLIER_URL: at(supplier),
      SUPPLIER_SECRET: 'test-only-supplier-secret',
    },
  }
}
function startPeers(all, { mail, mailHttp, card, text, supplier }) {
  const peer = (name, own) =>
    spawn(process.execPath, [`standins/${name}/server.mjs`], {
      stdio: 'ignore',
      env: { ...all, ...own },
    })
  return [
    peer('mail', { MAIL_PORT: String(mail), MAIL_HTTP_PORT: String(mailHttp) }),
    peer('card', { CARD_PORT: String(card) }),
    peer('supplier', { SUPPLIER_PORT: String(supplier) }),
    // The positions device is played by the tests themselves, when they want it.
    peer('text', { TEXT_PORT: String(text), APP_URL: all.TEST_URL }),
  ]
}
const TEMPLATE = resolve('.data', 'rig-template')
const OF_THE_DEMO = [
  'core',
  'demo',
  'server',
  'shared',
  'scripts/prepare.ts',
  'scripts/demo-load.ts',
  'scripts/lib',
  'package-lock.json',
]
/** Copies a folder as it is, with its owners. */
export function copyFolder(from, to) {
  const copied = spawnSync('cp', ['-a', from, to], { encoding: 'utf8' })
  if (copied.status !== 0) throw new Error(`${from} could not be copied: ${copied.stderr}`)
}
/** The demo company is loaded once, and again when what it is made of changed; every rig begins with a copy. */
async function makeTemplate() {
  const wanted = `${fingerprint(OF_THE_DEMO)} ${NOW}`
  if (existsSync(TEMPLATE) && isMarked('rig-template', wanted)) return
  const folder = `${TEMPLATE}-${process.pid}`
  rmSync(TEMPLATE, { recursive: true, force: true })
  mkdirSync(folder, { recursive: true, mode: 0o711 })
  const database = await startDatabase(folder, { fast: true })
  const { env } = await environment(folder, database, 1)
  const made = spawnSync(process.execPath, ['--import', 'tsx', 'scripts/prepare.ts'], {
    env: { ...process.env, ...env },
    encoding: 'utf8',
  })
  await database.stop()
  if (made.status !== 0) {
    rmSync(folder, { recursive: true, force: true })
    throw new Error(`the test database could not be made: ${made.stderr}`)
  }
  try {
    renameSync(folder, TEMPLATE)
    setMark('rig-template', wanted)
  } catch (error) {
    // Another one that began at the same moment was first: its demo is the same.
    rmSync(folder, { recursive: true, force: true })
    if (error.code !== 'ENOTEMPTY' && error.code !== 'EEXIST') throw error
  }
}
/** An empty database becomes a firm that waits for its owner; answers the code that lets them in. */
function openFirm(env) {
  const { status, stdout, stderr } = spawnSync(
    process.execPath,
    ['--import', 'tsx', 'scripts/prepare.ts'],
    { env: { ...process.env, ...env, OPEN_LEDGER_FIRM: 'yes' }, encoding: 'utf8' },
  )
  if (status !== 0) throw new Error(`the firm could not begin: ${stderr}`)
  return /code: ([\w-]+)/.exec(stdout)[1]
}
/** With the demo in it; or, where nothing is, with a firm that waits for its owner. */
export async function startRig(name, { processes = 1, firm = false } = {}) {
  installDebian({
    mariadbd: 'mariadb-server',
    'mariadb-install-db': 'mariadb-server',
    mariadb: 'mariadb-client',
  })
  if (!firm) await makeTemplate()
  const folder = resolve('.data', `rig-${name}`)
  rmSync(folder, { recursive: true, force: true })
  if (firm) mkdirSync(folder, { recursive: true, mode: 0o711 })
  else copyFolder(TEMPLATE, folder)
  const database = await startDatabase(folder, { fast: true })
  const { env, apps, peers } = await environment(folder, database, processes)
  if (firm) env.BEGIN_CODE = openFirm(env)
  const all = { ...process.env, ...env }
  const children = startPeers(all, peers)
  for (const port of apps)
    children.push(await startServer({ ...env, PORT: String(port), NITRO_PORT: String(port) }))
  if (apps.length > 1) children.push(await startBalancer(folder, Number(env.PORT), apps))
  const rig = {
    env,
    /** where each process answers by itself */
    apps: apps.map(at),
    async stop() {
      for (const child of children) child.kill('SIGTERM')
      await Promise.all(children.map(ended))
      await database.stop()
      rmSync(folder, { recursive: true, force: true })
    },
  }
  // Interrupted, it leaves nothing running.
  for (const signal of ['SIGINT', 'SIGTERM'])
    process.once(signal, () => void rig.stop().then(() => process.exit(1)))
  return rig
}
