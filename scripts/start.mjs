// npm start (and npm run dev): installs what is missing, builds when stale, starts database, stand-ins and app, keeps them
// running, and stops all of it cleanly.
import { spawnSync } from 'node:child_process'
import { createServer } from 'node:net'
import { join } from 'node:path'
import { freePort, startDatabase } from './lib/database.mjs'
import { companyMark, dataDir, keptSecret, makeDataDir, openDatabase } from './lib/env.mjs'
import { readIfThere } from './lib/files.mjs'
import { build, installModules } from './lib/install.mjs'
import { keeper } from './lib/keeper.mjs'
import {
  endLeftovers,
  forgetRunning,
  keepRunning,
  leaveFolder,
  takeFolder,
} from './lib/leftovers.mjs'
import { orStop, say, Stop } from './lib/say.mjs'

const dev = process.argv.includes('--dev')
const firm = process.argv.includes('--firm')
// A firm has a folder of its own beside the demo's.
if (firm) process.env.OPEN_LEDGER_DATA ||= '.firm'
const host = process.env.HOST || '127.0.0.1'
const port = Number(process.env.PORT || 4600)
const address = `http://${host}:${port}`
const DEMO = `Demo sign-ins, all with the password open-ledger: office@demo.test, dispatch@demo.test, books@demo.test, owner@demo.test,
and on a phone ines@demo.test, tobiah@demo.test, maud@demo.test, piet@demo.test, rosa@demo.test.
Your own firm begins beside it, in a folder of its own: npm start -- --firm`
const ownFirm = () =>
  `This is your own firm, in ${dataDir()}. While nobody has signed in yet it begins at ${address}/begin, with the code above.
Other commands reach it by its folder: OPEN_LEDGER_DATA=${dataDir()} npm run backup -- FILE`
const SECOND = 1000
const ANSWER_WITHIN_MS = 60 * SECOND
const LOOK_EVERY_MS = SECOND
const LONGEST_PAUSE_MS = 30 * SECOND

function checkPort() {
  if (!Number.isInteger(port) || port < 1 || port > 65535)
    throw new Stop(`PORT is ${process.env.PORT}, which is not a port.`)
  return new Promise((done, fail) => {
    const probe = createServer()
      .once('error', (error) =>
        fail(
          new Stop(
            error.code === 'EADDRINUSE'
              ? `Port ${port} is taken. Stop what uses it, or start with another: PORT=4601 npm start`
              : `Port ${port} on ${host} cannot be used: ${error.message}`,
          ),
        ),
      )
      .listen(port, host, () => probe.close(done))
  })
}
/** One start owns a folder: a second one would share its database, and take it along when it stops. */
async function takeOver() {
  makeDataDir()
  const owner = takeFolder(dataDir())
  if (owner !== null)
    throw new Stop(
      `The folder ${dataDir()} is in use by another start (process ${owner}). Stop that one first; or start with a folder and a port of its own: OPEN_LEDGER_DATA=.data2 PORT=4601 npm start`,
    )
  process.on('exit', () => leaveFolder(dataDir()))
  if (await endLeftovers(dataDir())) say('ended what a killed start had left running')
}
/** Everything secret is looked at before anything is started. */
const secretsKept = () =>
  Object.fromEntries(
    ['secret', 'card-secret', 'text-secret', 'positions-secret', 'supplier-secret'].map((name) => [
      name,
      keptSecret(name),
    ]),
  )

async function environment(database, secrets) {
  const ports = {
    mail: await freePort(),
    mailHttp: await freePort(),
    card: await freePort(),
    text: await freePort(),
    positions: await freePort(),
    supplier: await freePort(),
  }
  const at = (p) => `http://127.0.0.1:${p}`
  const own = process.env
  return {
    ports,
    app: {
      DATABASE_URL: database.url,
      OPEN_LEDGER_SECRET: secrets.secret,
      CARD_SECRET: secrets['card-secret'],
      OPEN_LEDGER_EXPORTS: own.OPEN_LEDGER_EXPORTS || join(dataDir(), 'exports'),
      CARD_URL: own.CARD_URL || at(ports.card),
      SMTP_URL: own.SMTP_URL || `smtp://127.0.0.1:${ports.mail}`,
      TEXT_SECRET: own.TEXT_SECRET || secrets['text-secret'],
      TEXT_URL: own.TEXT_URL || at(ports.text),
      POSITIONS_SECRET: own.POSITIONS_SECRET || secrets['positions-secret'],
      SUPPLIER_SECRET: own.SUPPLIER_SECRET || secrets['supplier-secret'],
      SUPPLIER_URL: own.SUPPLIER_URL || at(ports.supplier),
      PUBLIC_URL: own.PUBLIC_URL || address,
      HOST: host,
      PORT: String(port),
      NITRO_HOST: host,
      NITRO_PORT: String(port),
      NODE_ENV: dev ? 'development' : 'production',
      ...(own.SMTP_URL ? {} : { MAIL_STANDIN: at(ports.mailHttp) }),
    },
  }
}
function keepAll(kept, { ports, app }) {
  if (!process.env.SMTP_URL)
    kept.keep(['standins/mail/server.mjs'], {
      MAIL_PORT: ports.mail,
      MAIL_HTTP_PORT: ports.mailHttp,
    })
  if (!process.env.CARD_URL)
    kept.keep(['standins/card/server.mjs'], { CARD_PORT: ports.card, CARD_SECRET: app.CARD_SECRET })
  if (!process.env.SUPPLIER_URL)
    kept.keep(['standins/supplier/server.mjs'], {
      SUPPLIER_PORT: ports.supplier,
      SUPPLIER_SECRET: app.SUPPLIER_SECRET,
    })
  if (!process.env.TEXT_URL)
    kept.keep(['standins/text/server.mjs'], {
      TEXT_PORT: ports.text,
      TEXT_SECRET: app.TEXT_SECRET,
      APP_URL: address,
    })
  if (!process.env.POSITIONS_SECRET)
    kept.keep(['standins/positions/server.mjs'], {
      POSITIONS_PORT: ports.positions,
      POSITIONS_SECRET: app.POSITIONS_SECRET,
      APP_URL: address,
    })
  kept.keep(
    dev
      ? ['node_modules/nuxt/bin/nuxt.mjs', 'dev', '--host', host, '--port', String(port)]
      : ['.output/server/index.mjs'],
    app,
  )
}
/** A database that ended is started again where it was; the app answers 503 meanwhile and loses nothing. */
function watchDatabase(database, isStopping) {
  let falls = 0
  const look = async () => {
    if (isStopping()) return
    let pause = LOOK_EVERY_MS
    if (!database.running()) {
      say('the database is gone; starting it again')
      try {
        await startDatabase(dataDir())
        falls = 0
        say('database is up again')
      } catch (error) {
        // Whatever is in its way may go away: room on the disk, say. The app stays up and says that it cannot save.
        pause = Math.min(LONGEST_PAUSE_MS, LOOK_EVERY_MS * 2 ** falls++)
        say(
          `the database cannot be started: ${error.message.split('\n')[0]} Trying again in ${Math.round(pause / SECOND)} s.`,
        )
      }
    }
    setTimeout(look, pause).unref()
  }
  setTimeout(look, LOOK_EVERY_MS).unref()
}
async function answers() {
  for (let waited = 0; waited < ANSWER_WITHIN_MS; waited += 100) {
    if (
      await fetch(`${address}/api/health`).then(
        (r) => r.ok,
        () => false,
      )
    )
      return
    await new Promise((done) => setTimeout(done, 100))
  }
  throw new Stop('The app did not answer within a minute.')
}

await orStop(async () => {
  await checkPort()
  await takeOver()
  installModules()
  const secrets = secretsKept()
  if (!dev) build()
  const database = await openDatabase()
  say('database is up')
  const prepared = spawnSync(process.execPath, ['--import', 'tsx', 'scripts/prepare.ts'], {
    stdio: ['ignore', 'inherit', 'inherit'],
    env: {
      ...process.env,
      DATABASE_URL: database.url,
      OPEN_LEDGER_SECRET: secrets.secret,
      OPEN_LEDGER_MARK: companyMark(database.url),
      OPEN_LEDGER_FIRM: firm ? 'yes' : 'no',
    },
  })
  if (prepared.status !== 0) {
    await database.stop()
    process.exit(1)
  }
  const kept = keeper((children) => keepRunning(dataDir(), children))
  let stopping = false
  const stopAll = async (code) => {
    if (stopping) return
    stopping = true
    await kept.stop()
    await database.stop()
    forgetRunning(dataDir())
    process.exit(code)
  }
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stopAll(0))
  // npm that was killed takes us along: nobody would know any more how to stop us.
  const parent = process.ppid
  if (process.env.npm_lifecycle_event)
    setInterval(() => process.ppid !== parent && void stopAll(0), LOOK_EVERY_MS).unref()
  keepAll(kept, await environment(database, secrets))
  if (!process.env.DATABASE_URL) watchDatabase(database, () => stopping)
  await answers().catch(async (error) => {
    process.stderr.write(`${error.message}\n`)
    await stopAll(1)
  })
  process.stdout.write(
    `\nOpen Ledger is at ${address}\n${readIfThere(companyMark(database.url)) === 'demo\n' ? DEMO : ownFirm()}\nCtrl-C stops everything.\n`,
  )
})
