// What an operator copies: units that systemd takes, and proxies that hand on what is asked, over TLS, as it was asked.
import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { request } from 'node:https'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { base, database, LOGINS, signedIn, until } from './client'

const folder = mkdtempSync(join(tmpdir(), 'deploy-'))
const app = new URL(base)
const NAME = 'ledger.example.com'
const freePort = () =>
  new Promise<number>((done) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address() as { port: number }
      server.close(() => done(port))
    })
  })
beforeAll(() => {
  const { status } = spawnSync('openssl', [
    ...['req', '-x509', '-newkey', 'rsa:2048', '-nodes', '-days', '2', '-subj', `/CN=${NAME}`],
    ...['-addext', `subjectAltName=DNS:${NAME}`],
    ...['-keyout', join(folder, 'key.pem'), '-out', join(folder, 'cert.pem')],
  ])
  expect(status).toBe(0)
})
afterAll(() => rmSync(folder, { recursive: true, force: true }))

interface Answer {
  status: number
  headers: Record<string, string | string[] | undefined>
  text: string
}
interface Asked {
  headers?: Record<string, string>
  /** what is posted */
  body?: object
  /** a stream is read until its first piece */
  firstPiece?: boolean
}
/** Asks the proxy for a path over TLS. */
const ask = (
  port: number,
  path: string,
  { headers = {}, body, firstPiece }: Asked = {},
): Promise<Answer> =>
  new Promise((done, fail) => {
    const asked = request(
      {
        ...{ host: '127.0.0.1', port, path, servername: NAME, rejectUnauthorized: false },
        method: body ? 'POST' : 'GET',
        headers: { Host: NAME, 'Content-Type': 'application/json', ...headers },
      },
      (answer) => {
        let text = ''
        const tell = () => done({ status: answer.statusCode!, headers: answer.headers, text })
        answer.on('data', (piece: Buffer) => {
          text += piece.toString()
          if (!firstPiece) return
          tell()
          asked.destroy()
        })
        answer.on('end', tell)
      },
    )
    asked.on('error', fail)
    asked.end(body && JSON.stringify(body))
  })

describe.each(['open-ledger.service', 'open-ledger-backup.service', 'open-ledger-backup.timer'])(
  'the unit %s',
  (name) => {
    it('is one that systemd takes', () => {
      // As it is copied, but for what is not on this machine: the user and the folders.
      const here = readFileSync(join('deploy', name), 'utf8')
        .replace(/^User=.*$/m, 'User=root')
        .replaceAll('/opt/open-ledger', process.cwd())
      writeFileSync(join(folder, name), here)
      const { status, stdout, stderr } = spawnSync(
        'systemd-analyze',
        ['verify', '--man=no', join(folder, name)],
        { encoding: 'utf8', env: { ...process.env, SYSTEMD_UNIT_PATH: `${folder}:` } },
      )
      expect(`${stdout}${stderr}`.split('\n').filter((line) => line.includes(name))).toEqual([])
      expect(status).toBe(0)
    })
  },
)

describe.each(['nginx', 'caddy'])('%s in front', (proxy) => {
  let port = 0
  let running: ChildProcess
  const moved = (text: string, http: number) =>
    text
      .replaceAll('127.0.0.1:4600', app.host)
      .replace('listen 80;', `listen 127.0.0.1:${http};`)
      .replace('listen 443 ssl http2;', `listen 127.0.0.1:${port} ssl http2;`)
      .replace(/\/etc\/letsencrypt\/\S+fullchain\.pem/, join(folder, 'cert.pem'))
      .replace(/\/etc\/letsencrypt\/\S+privkey\.pem/, join(folder, 'key.pem'))
      .replaceAll('/etc/nginx/open-ledger-proxy.conf', join(folder, 'proxy.conf'))
      .replace(
        /^ledger\.example\.com \{/m,
        `https://${NAME}:${port} {\n  tls ${folder}/cert.pem ${folder}/key.pem`,
      )
  function start(http: number): ChildProcess {
    if (proxy === 'caddy') {
      const file = join(folder, 'Caddyfile')
      const quiet = '{\n  admin off\n  auto_https disable_redirects\n  skip_install_trust\n}\n'
      writeFileSync(file, quiet + moved(readFileSync('deploy/Caddyfile', 'utf8'), http))
      return spawn('caddy', ['run', '--config', file, '--adapter', 'caddyfile'], {
        stdio: 'ignore',
        env: { ...process.env, HOME: folder },
      })
    }
    writeFileSync(
      join(folder, 'proxy.conf'),
      moved(readFileSync('deploy/nginx-proxy.conf', 'utf8'), http),
    )
    const temporary = ['client_body', 'proxy', 'fastcgi', 'uwsgi', 'scgi']
    writeFileSync(
      join(folder, 'nginx.conf'),
      `${process.getuid?.() === 0 ? 'user root;' : ''}
      daemon off; pid ${folder}/nginx.pid; error_log ${folder}/nginx.log;
      events {}
      http { access_log off;
      ${temporary.map((name) => `${name}_temp_path ${folder}/${name};`).join(' ')}
      ${moved(readFileSync('deploy/nginx.conf', 'utf8'), http)} }`,
    )
    return spawn('nginx', ['-c', join(folder, 'nginx.conf'), '-e', join(folder, 'nginx.log')], {
      stdio: 'ignore',
    })
  }
  beforeAll(async () => {
    port = await freePort()
    running = start(await freePort())
    await until(() =>
      ask(port, '/api/health').then(
        ({ status }) => status === 200,
        () => false,
      ),
    )
  })
  afterAll(
    () =>
      new Promise<void>((done) => {
        running.once('exit', () => done())
        running.kill('SIGTERM')
      }),
  )
  it('hands on what is asked, with what protects the page', async () => {
    const page = await ask(port, '/sign-in')
    expect(page.status).toBe(200)
    expect(page.headers).toMatchObject({
      'x-frame-options': 'DENY',
      'content-security-policy': expect.stringContaining("default-src 'self'") as string,
    })
  })
  it('lets live changes through as they come', async () => {
    const { cookie } = await signedIn('office')
    const live = await ask(port, '/api/v1/live', { headers: { cookie }, firstPiece: true })
    expect([live.headers['content-type'], live.text]).toEqual([
      expect.stringContaining('text/event-stream'),
      expect.stringContaining('event:'),
    ])
  })
  it('says for whom it asks, whatever they say themselves', async () => {
    const lie = { 'X-Forwarded-For': '203.0.113.9' }
    expect((await ask(port, '/metrics', { headers: lie })).status).toBe(404)
    const body = { email: LOGINS.books, password: 'open-ledger' }
    expect((await ask(port, '/api/v1/session', { headers: lie, body })).status).toBe(200)
    const { items } = await (await signedIn('owner')).ok('accessTrail')
    const came = items.find(({ text, who }) => /^Signed in/.test(text) && who !== 'Hester Vane')
    expect(came?.text).toBe('Signed in from 127.0.0.1')
  })
})

describe('what a monitor reads', () => {
  it('says how requests go and what waits, to this machine alone', async () => {
    const text = await (await fetch(`${base}/metrics`)).text()
    expect(text).toMatch(/^open_ledger_requests_total\{route="\w+",status="200"\} \d+$/m)
    expect(text).toMatch(/^open_ledger_info\{version="[\d.]+"\} 1$/m)
    expect(text).toMatch(/^open_ledger_oldest_due_job_seconds \d+$/m)
    const other = await fetch(`${base}/metrics`, { headers: { 'X-Forwarded-For': '203.0.113.9' } })
    expect([other.status, await other.text()]).toEqual([404, ''])
  })
  it('tells what is not done from what is down', async () => {
    const health = async () =>
      (await (await fetch(`${base}/api/health`)).json()) as { status: string; why: string[] }
    const db = await database()
    await db.query(
      "INSERT INTO open_ledger.jobs (kind, job_key, payload, run_at, created_at) VALUES ('nobodys', 'nobodys', '{}', '2020-01-01', '2020-01-01')",
    )
    try {
      const degraded = await until(async () => {
        const now = await health()
        return now.status === 'degraded' && now
      })
      expect(degraded.why.join()).toContain('nobodys')
    } finally {
      await db.query("DELETE FROM open_ledger.jobs WHERE kind = 'nobodys'")
      await db.end()
    }
    await until(async () => (await health()).status === 'ok')
  })
})
