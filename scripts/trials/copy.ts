// A running copy of Open Ledger to be tried hard: started as an operator starts it, with peers that we steer.
import { spawn, type ChildProcess } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import mysql from 'mysql2/promise'
import { freePort } from '../lib/database.mjs'
import { copyFolder } from '../lib/rig.mjs'
import { pause } from './tools'

export interface Copy {
  base: string
  databaseUrl: string
  mail: string
  /** the process of the app, and of its database, as they are now */
  pids(): { app: number; database: number }
  behave(mail: { stall?: number; lose?: number }): Promise<void>
  connect(): Promise<mysql.Connection>
  answers(): Promise<boolean>
  stop(keep?: (folder: string) => void): Promise<void>
}
const SECRET = 'trial-only-secret-0123456789-abcdefghijklmnop'
const UP_WITHIN_MS = 120_000
const ended = (child: ChildProcess) =>
  child.exitCode !== null || child.signalCode
    ? Promise.resolve()
    : new Promise<void>((done) => child.once('exit', () => done()))

const FOLDER = resolve('.data', 'rig-trial')
const TEMPLATE = resolve('.data', 'rig-trial-template')
/** Lets the demo company be loaded once, for all copies to come. */
export async function makeTemplate(): Promise<void> {
  forgetTemplate()
  await (await startCopy()).stop((folder) => renameSync(folder, TEMPLATE))
}
export const forgetTemplate = () => rmSync(TEMPLATE, { recursive: true, force: true })

export async function startCopy(): Promise<Copy> {
  const folder = FOLDER
  rmSync(folder, { recursive: true, force: true })
  if (existsSync(TEMPLATE)) copyFolder(TEMPLATE, folder)
  else mkdirSync(folder, { recursive: true, mode: 0o711 })
  for (const name of ['secret', 'card-secret'])
    writeFileSync(join(folder, name), SECRET, { mode: 0o600 })
  const [port, smtp, mailHttp, card] = [
    await freePort(),
    await freePort(),
    await freePort(),
    await freePort(),
  ] as number[]
  const base = `http://127.0.0.1:${port}`
  const peers = [
    spawn(process.execPath, ['standins/mail/server.mjs'], {
      stdio: 'ignore',
      env: { ...process.env, MAIL_PORT: String(smtp), MAIL_HTTP_PORT: String(mailHttp) },
    }),
    spawn(process.execPath, ['standins/card/server.mjs'], {
      stdio: 'ignore',
      env: { ...process.env, CARD_PORT: String(card), CARD_SECRET: SECRET },
    }),
  ]
  const start = spawn(process.execPath, ['scripts/start.mjs'], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: {
      ...process.env,
      DATABASE_URL: '',
      npm_lifecycle_event: '',
      OPEN_LEDGER_DATA: folder,
      PORT: String(port),
      SMTP_URL: `smtp://127.0.0.1:${smtp}`,
      CARD_URL: `http://127.0.0.1:${card}`,
      OPEN_LEDGER_TRUSTED_PROXIES: '127.0.0.1',
      LOG_LEVEL: 'error',
    },
  })
  const stop = async (keep: (folder: string) => void = () => {}) => {
    start.kill('SIGTERM')
    await ended(start)
    for (const peer of peers) peer.kill('SIGTERM')
    await Promise.all(peers.map(ended))
    keep(folder)
    rmSync(folder, { recursive: true, force: true })
  }
  const answers = () =>
    fetch(`${base}/api/health`, { signal: AbortSignal.timeout(2_000) }).then(
      (r) => r.ok,
      () => false,
    )
  for (let waited = 0; !(await answers()); waited += 100) {
    if (waited > UP_WITHIN_MS || start.exitCode !== null) {
      await stop()
      throw new Error('the copy did not come up')
    }
    await pause(100)
  }
  const read = (name: string) => readFileSync(join(folder, name), 'utf8').trim()
  const databaseUrl = `mysql://open_ledger:${read('mariadb/secret')}@127.0.0.1:${read('mariadb/port')}/open_ledger`
  return {
    base,
    databaseUrl,
    mail: `http://127.0.0.1:${mailHttp}`,
    pids() {
      const { children } = JSON.parse(read('running.json')) as {
        children: { pid: number; command: string }[]
      }
      return {
        app: children.find((c) => c.command.includes('.output'))!.pid,
        database: Number(read('mariadb/mariadbd.pid')),
      }
    },
    async behave(mail) {
      await fetch(`http://127.0.0.1:${mailHttp}/behave`, {
        method: 'POST',
        body: JSON.stringify(mail),
      })
    },
    connect: () => mysql.createConnection({ uri: databaseUrl, dateStrings: true }),
    answers,
    stop,
  }
}
