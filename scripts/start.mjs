// npm start (and npm run dev): installs what is missing, builds when stale, starts database, stand-ins and app, stops all of it cleanly.
import { spawn, spawnSync } from 'node:child_process'
import { mkdirSync } from 'node:fs'
import { createServer } from 'node:net'
import { build, installModules } from './lib/install.mjs'
import { dataDir, keptSecret, openDatabase } from './lib/env.mjs'
import { freePort, startDatabase } from './lib/database.mjs'
import { endLeftovers, forgetRunning, keepRunning } from './lib/leftovers.mjs'
import { say, stopWith } from './lib/say.mjs'

const dev = process.argv.includes('--dev')
const host = process.env.HOST || '127.0.0.1'
const port = Number(process.env.PORT || 4600)
if (!Number.isInteger(port) || port < 1 || port > 65535) stopWith(`PORT is ${process.env.PORT}, which is not a port.`)
if (await endLeftovers(dataDir())) say('ended what a killed start had left running')
await new Promise((done) => {
  const probe = createServer().once('error', (error) => {
    stopWith(error.code === 'EADDRINUSE' ? `Port ${port} is taken. Stop what uses it, or start with another: PORT=4601 npm start` : `Port ${port} on ${host} cannot be used: ${error.message}`)
  }).listen(port, host, () => probe.close(done))
})
try {
  mkdirSync(dataDir(), { recursive: true })
}
catch (error) {
  stopWith(`The data folder ${dataDir()} cannot be made: ${error.message}`)
}
installModules()
if (!dev) build()
const database = await openDatabase()
say('database is up')
const run = (script, args = []) => spawnSync(process.execPath, ['--import', 'tsx', `scripts/${script}.ts`, ...args], { stdio: ['ignore', 'inherit', 'inherit'], env: { ...process.env, DATABASE_URL: database.url, OPEN_LEDGER_SECRET: keptSecret('secret') } })
const prepared = run('prepare')
if (prepared.status !== 0) {
  await database.stop()
  process.exit(1)
}

const children = []
let stopping = false
async function stopAll(code) {
  if (stopping) return
  stopping = true
  for (const child of children) child.kill('SIGTERM')
  await Promise.all(children.map(c => (c.exitCode !== null ? 0 : new Promise(done => c.once('exit', done)))))
  await database.stop()
  forgetRunning(dataDir())
  process.exit(code)
}
process.on('SIGINT', () => void stopAll(0))
process.on('SIGTERM', () => void stopAll(0))
const child = (args, env) => {
  const c = spawn(process.execPath, args, { stdio: ['ignore', 'inherit', 'inherit'], env: { ...process.env, ...env } })
  c.once('exit', (code) => {
    if (!stopping) {
      process.stderr.write(`\n${args.at(-1)} ended by itself (${code}); stopping the rest.\n`)
      void stopAll(1)
    }
  })
  children.push(c)
  keepRunning(dataDir(), children.map(one => ({ pid: one.pid, command: one.spawnargs.find(a => a.endsWith('.mjs')) })))
  return c
}
const [mailPort, mailHttpPort, cardPort, textPort, positionsPort, supplierPort] = [await freePort(), await freePort(), await freePort(), await freePort(), await freePort(), await freePort()]
const [cardSecret, textSecret, positionsSecret, supplierSecret] = [keptSecret('card-secret'), keptSecret('text-secret'), keptSecret('positions-secret'), keptSecret('supplier-secret')]
const appUrl = `http://${host}:${port}`
if (!process.env.SMTP_URL) child(['standins/mail/server.mjs'], { MAIL_PORT: mailPort, MAIL_HTTP_PORT: mailHttpPort })
child(['standins/card/server.mjs'], { CARD_PORT: cardPort, CARD_SECRET: cardSecret })
if (!process.env.SUPPLIER_URL) child(['standins/supplier/server.mjs'], { SUPPLIER_PORT: supplierPort, SUPPLIER_SECRET: supplierSecret })
if (!process.env.TEXT_URL) child(['standins/text/server.mjs'], { TEXT_PORT: textPort, TEXT_SECRET: textSecret, APP_URL: appUrl })
if (!process.env.POSITIONS_SECRET) child(['standins/positions/server.mjs'], { POSITIONS_PORT: positionsPort, POSITIONS_SECRET: positionsSecret, APP_URL: appUrl })
const env = {
  DATABASE_URL: database.url, OPEN_LEDGER_SECRET: keptSecret('secret'), CARD_SECRET: cardSecret, CARD_URL: process.env.CARD_URL || `http://127.0.0.1:${cardPort}`, SMTP_URL: process.env.SMTP_URL || `smtp://127.0.0.1:${mailPort}`,
  TEXT_SECRET: process.env.TEXT_SECRET || textSecret, TEXT_URL: process.env.TEXT_URL || `http://127.0.0.1:${textPort}`, POSITIONS_SECRET: process.env.POSITIONS_SECRET || positionsSecret,
  SUPPLIER_SECRET: process.env.SUPPLIER_SECRET || supplierSecret, SUPPLIER_URL: process.env.SUPPLIER_URL || `http://127.0.0.1:${supplierPort}`,
  PUBLIC_URL: process.env.PUBLIC_URL || `http://${host}:${port}`, HOST: host, PORT: String(port), NITRO_HOST: host, NITRO_PORT: String(port), NODE_ENV: dev ? 'development' : 'production', ...(process.env.SMTP_URL ? {} : { MAIL_STANDIN: `http://127.0.0.1:${mailHttpPort}` }),
}
child(dev ? ['node_modules/nuxt/bin/nuxt.mjs', 'dev', '--host', host, '--port', String(port)] : ['.output/server/index.mjs'], env)
// A database that was killed is started again where it was; the app answers 503 meanwhile and loses nothing.
if (!process.env.DATABASE_URL) {
  const watch = async () => {
    if (!stopping && !database.running()) {
      say('the database is gone; starting it again')
      await startDatabase(dataDir())
      say('database is up again')
    }
    if (!stopping) setTimeout(watch, 3000).unref()
  }
  setTimeout(watch, 3000).unref()
}
const address = `http://${host}:${port}`
for (let i = 0; ; i++) {
  const ok = await fetch(`${address}/api/health`).then(r => r.ok, () => false)
  if (ok) break
  if (i > 600) {
    process.stderr.write('The app did not answer within a minute.\n')
    await stopAll(1)
  }
  await new Promise(done => setTimeout(done, 100))
}
process.stdout.write(`\nOpen Ledger is at ${address}\nDemo sign-ins, all with the password open-ledger: office@demo.test, dispatch@demo.test, books@demo.test, owner@demo.test,\nand on a phone ines@demo.test, tobiah@demo.test, maud@demo.test, piet@demo.test, rosa@demo.test.\nCtrl-C stops everything.\n`)
