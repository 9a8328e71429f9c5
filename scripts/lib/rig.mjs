// A throw-away Open Ledger for tests, pictures and benchmarks: own database, own ports, own stand-ins, the clock in a file.
import { spawn, spawnSync } from 'node:child_process'
import { mkdirSync, rmSync, writeFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { installDebian } from './install.mjs'
import { freePort, startDatabase } from './database.mjs'

export const NOW = '2026-11-24T10:21'
export async function startServer(env) {
  const app = spawn(process.execPath, ['.output/server/index.mjs'], { stdio: ['ignore', 'inherit', 'inherit'], env: { ...process.env, ...env } })
  for (let i = 0; i < 300; i++) {
    if (await fetch(`http://127.0.0.1:${env.PORT}/api/health`).then(r => r.ok, () => false)) return app
    await new Promise(done => setTimeout(done, 100))
  }
  app.kill('SIGKILL')
  throw new Error('the app did not answer within 30 s')
}
export async function startRig(name) {
  installDebian({ 'mariadbd': 'mariadb-server', 'mariadb-install-db': 'mariadb-server', 'mariadb': 'mariadb-client' })
  const folder = resolve('.data', `rig-${name}`)
  rmSync(folder, { recursive: true, force: true })
  mkdirSync(folder, { recursive: true })
  const database = await startDatabase(folder, { fast: true })
  const clock = join(folder, 'now')
  writeFileSync(clock, NOW)
  const [port, mail, mailHttp, card, text, supplier] = [await freePort(), await freePort(), await freePort(), await freePort(), await freePort(), await freePort()]
  const env = {
    DATABASE_URL: database.url, OPEN_LEDGER_SECRET: 'test-only-secret-0123456789-abcdefghij', CARD_SECRET: 'test-only-card-secret', OPEN_LEDGER_NOW: `file:${clock}`, CLOCK_FILE: clock, HOST: '127.0.0.1', PORT: String(port), NITRO_HOST: '127.0.0.1', NITRO_PORT: String(port), NODE_ENV: 'production',
    PUBLIC_URL: `http://127.0.0.1:${port}`, TEST_URL: `http://127.0.0.1:${port}`, SMTP_URL: `smtp://127.0.0.1:${mail}`, MAIL_STANDIN: `http://127.0.0.1:${mailHttp}`, CARD_URL: `http://127.0.0.1:${card}`,
    TEXT_URL: `http://127.0.0.1:${text}`, TEXT_SECRET: 'test-only-text-secret', POSITIONS_SECRET: 'test-only-positions-secret', SUPPLIER_URL: `http://127.0.0.1:${supplier}`, SUPPLIER_SECRET: 'test-only-supplier-secret', OPEN_LEDGER_TRUSTED_PROXIES: '127.0.0.1',
  }
  const all = { ...process.env, ...env }
  const made = spawnSync(process.execPath, ['--import', 'tsx', 'scripts/prepare.ts'], { env: all, encoding: 'utf8' })
  if (made.status !== 0) {
    await database.stop()
    throw new Error(`the test database could not be made: ${made.stderr}`)
  }
  const children = [
    spawn(process.execPath, ['standins/mail/server.mjs'], { stdio: 'ignore', env: { ...all, MAIL_PORT: String(mail), MAIL_HTTP_PORT: String(mailHttp) } }),
    spawn(process.execPath, ['standins/card/server.mjs'], { stdio: 'ignore', env: { ...all, CARD_PORT: String(card) } }),
    spawn(process.execPath, ['standins/supplier/server.mjs'], { stdio: 'ignore', env: { ...all, SUPPLIER_PORT: String(supplier) } }),
    // The positions device is played by the tests themselves, when they want it.
    spawn(process.execPath, ['standins/text/server.mjs'], { stdio: 'ignore', env: { ...all, TEXT_PORT: String(text), APP_URL: env.TEST_URL } }),
  ]
  const app = await startServer(env)
  const rig = {
    env,
    async stop() {
      for (const child of [app, ...children]) child.kill('SIGTERM')
      await Promise.all([app, ...children].map(c => (c.exitCode !== null || c.signalCode ? 0 : new Promise(done => c.once('exit', done)))))
      await database.stop()
      rmSync(folder, { recursive: true, force: true })
    },
  }
  // Interrupted, it leaves nothing running.
  for (const signal of ['SIGINT', 'SIGTERM']) process.once(signal, () => void rig.stop().then(() => process.exit(1)))
  return rig
}
