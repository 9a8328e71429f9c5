// Everything as one file: the same firm makes the same bytes, another Open Ledger takes it in whole or not at all, and
// nothing that opens the app is in it.
import { spawnSync } from 'node:child_process'
import {
  createWriteStream,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import Ajv from 'ajv/dist/2020'
import formats from 'ajv-formats'
import type mysql from 'mysql2/promise'
import { ZipFile } from 'yazl'
import { openPromise } from 'yauzl'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { KEPT, LEFT } from '../../server/archive/contents'
import { database, id, signedIn, until, type Client } from './client'

const OTHER = 'open_ledger_again'
const there = process.env.DATABASE_URL!.replace(/open_ledger$/, OTHER)
const folder = mkdtempSync(join(tmpdir(), 'archive-'))
const inFolder = (name: string) => join(folder, name)
/** A command of the app, in another database where one is named. */
function command(args: string[], url = process.env.DATABASE_URL!) {
  const { status, stdout, stderr } = spawnSync(process.execPath, ['--import', 'tsx', ...args], {
    encoding: 'utf8',
    env: { ...process.env, DATABASE_URL: url },
  })
  return { status, said: `${stdout}${stderr}` }
}
const archive = (way: 'out' | 'in', file: string, url?: string) =>
  command(['scripts/archive.ts', way, file], url)
async function entriesOf(file: string): Promise<Map<string, Buffer>> {
  const zip = await openPromise(file, { autoClose: false, lazyEntries: true })
  const entries = new Map<string, Buffer>()
  for await (const entry of zip.eachEntry()) {
    const pieces: Buffer[] = []
    for await (const piece of await zip.openReadStreamPromise(entry)) pieces.push(piece as Buffer)
    entries.set(entry.fileName, Buffer.concat(pieces))
  }
  zip.close()
  return entries
}
let db: mysql.Connection
let owner: Client
let entries: Map<string, Buffer>
const empty = async () => {
  await db.query(`DROP DATABASE IF EXISTS ${OTHER}`)
  await db.query(`CREATE DATABASE ${OTHER} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`)
}
const rowsOf = (table: string) =>
  [...entries]
    .find(([path]) => path.endsWith(`/${table}.jsonl`))![1]
    .toString()
    .trim()
beforeAll(async () => {
  db = await database()
  owner = await signedIn('owner')
  // One whose end somebody is told of by a job, and jobs are kept.
  await owner.ok('newToken', { body: { label: 'a reader', days: 30 } })
  expect(archive('out', inFolder('a.zip'))).toMatchObject({ status: 0 })
  entries = await entriesOf(inFolder('a.zip'))
})
afterAll(async () => {
  await db.query(`DROP DATABASE IF EXISTS ${OTHER}`)
  await db.end()
  rmSync(folder, { recursive: true, force: true })
})

describe('an archive of everything', () => {
  it('holds each table that there is, or says why it does not', async () => {
    const [rows] = await db.query<mysql.RowDataPacket[]>(
      `SELECT table_name AS name FROM information_schema.tables
      WHERE table_schema = 'open_ledger' AND table_type = 'BASE TABLE'`,
    )
    const said = [
      ...Object.values(KEPT).flatMap((tables) => Object.keys(tables)),
      ...Object.keys(LEFT),
    ]
    expect(said.toSorted()).toEqual(rows.map(({ name }) => name as string).toSorted())
  })
  it('has lines that are what their schemas say', () => {
    const ajv = formats(new Ajv({ strict: false }))
    const schemas = [...entries.keys()].filter((path) => path.endsWith('.schema.json'))
    expect(schemas.length).toBeGreaterThan(50)
    for (const path of schemas) {
      const fits = ajv.compile(JSON.parse(entries.get(path)!.toString()) as object)
      const lines = entries.get(path.replace('.schema.json', '.jsonl'))!.toString().split('\n')
      for (const line of lines.filter(Boolean))
        expect([fits(JSON.parse(line)), path, fits.errors]).toEqual([true, path, null])
    }
  })
  it('holds what other programs read: tables, cards, the journal, papers', () => {
    const names = [...entries.keys()]
    for (const name of ['tables/customers.csv', 'tables/contacts.vcf', 'journal/journal.ledger'])
      expect(names).toContain(name)
    const invoices = rowsOf('invoices').split('\n').length
    expect(names.filter((name) => name.startsWith('papers/invoices/'))).toHaveLength(invoices)
    const paper = names.find((name) => name.startsWith('papers/invoices/'))!
    writeFileSync(inFolder('paper.pdf'), entries.get(paper)!)
    const { stdout } = spawnSync('pdftotext', [inFolder('paper.pdf'), '-'], { encoding: 'utf8' })
    expect(stdout).toContain(/invoices\/([\w-]+?)-[0-9a-f]{8}-/.exec(paper)![1])
  })
  it('holds nothing that opens the app', async () => {
    const text = [...entries]
      .filter(([path]) => path.startsWith('data/'))
      .map(([, bytes]) => bytes.toString())
      .join()
    const [secrets] = await db.query<mysql.RowDataPacket[]>(
      `SELECT password_hash AS secret FROM open_ledger.people WHERE password_hash <> ''
      UNION SELECT feed_hash FROM open_ledger.people WHERE feed_hash IS NOT NULL
      UNION SELECT token_hash FROM open_ledger.invoices WHERE token_hash IS NOT NULL
      UNION SELECT token_hash FROM open_ledger.quotes WHERE token_hash IS NOT NULL
      UNION SELECT open_hash FROM open_ledger.messages WHERE open_hash IS NOT NULL
      UNION SELECT id FROM open_ledger.sessions`,
    )
    expect(secrets.length).toBeGreaterThan(100)
    expect(secrets.filter(({ secret }) => text.includes(secret as string))).toEqual([])
  })
})

describe('another Open Ledger', () => {
  it('takes it in, has the same books, and makes the same archive', async () => {
    await empty()
    const { status, said } = archive('in', inFolder('a.zip'), there)
    expect([status, said]).toEqual([0, expect.stringContaining('rows of Otterfall')])
    expect(archive('out', inFolder('b.zip'), there)).toMatchObject({ status: 0 })
    expect(readFileSync(inFolder('b.zip')).equals(readFileSync(inFolder('a.zip')))).toBe(true)
    for (const check of ['check-books', 'check-run'])
      expect(command([`scripts/${check}.ts`], there)).toMatchObject({ status: 0 })
  })
  it('takes no second one in', async () => {
    expect(archive('in', inFolder('a.zip'), there)).toEqual({
      ...{ status: 1, said: expect.stringContaining('A firm is in this database') as string },
    })
  })
  /** The archive with one file of it otherwise. */
  async function otherwise(path: string, change: (text: string) => string): Promise<string> {
    const zip = new ZipFile()
    for (const [name, bytes] of entries)
      if (!name.startsWith('papers/'))
        zip.addBuffer(name === path ? Buffer.from(change(bytes.toString())) : bytes, name)
    zip.end()
    await pipeline(zip.outputStream, createWriteStream(inFolder('other.zip')))
    return inFolder('other.zip')
  }
  const LINES = 'data/ledger/ledger_postings.jsonl'
  const withoutLast = (text: string) => text.trim().split('\n').slice(0, -1).join('\n')
  it.each([
    ['of a later format', 'archive.json', 'later version'],
    ['of no known kind', 'archive.json', 'no archive'],
    ['whose books do not agree', LINES, 'do not agree'],
    ['that refers to what is not in it', 'data/customers/sites.jsonl', 'not in it'],
    ['with a field that nobody knows', 'data/tasks/tasks.jsonl', 'which is not known'],
    ['that lacks a table', 'archive.json', 'It does not hold trail'],
    ['with a line that is none', 'data/visits/visits.jsonl', 'cannot be read'],
    ['with a value of no kind', 'data/customers/sites.jsonl', 'of no kind'],
    ['with a value that cannot be', 'data/calls/calls.jsonl', 'cannot be taken in'],
  ])('refuses one %s, and stays empty', async (what, path, why) => {
    await empty()
    const change: Record<string, (text: string) => string> = {
      'of a later format': (text) => text.replace('"formatVersion": 1', '"formatVersion": 2'),
      'of no known kind': (text) => text.replace('open-ledger-archive', 'a-zoo'),
      'that refers to what is not in it': (text) => text.slice(text.indexOf('\n') + 1),
      'with a field that nobody knows': (text) => text.replace('{', '{"wings":2,'),
      'that lacks a table': (text) => text.replace('"table": "trail"', '"table": "trial"'),
      'with a line that is none': (text) => `null\n${text}`,
      'with a value of no kind': (text) => text.replace(/"town":"[^"]*"/, '"town":["Otterfall"]'),
      'with a value that cannot be': (text) => text.replace(/"state":"\w+"/, '"state":"flown"'),
    }
    const file = await otherwise(path, change[what] ?? withoutLast)
    const { status, said } = archive('in', file, there)
    expect([status, said]).toEqual([1, expect.stringContaining(why)])
    const [[{ n }]] = (await db.query(
      `SELECT COUNT(*) AS n FROM information_schema.tables WHERE table_schema = '${OTHER}' AND table_name = 'people'`,
    )) as unknown as [[{ n: number }]]
    if (n) {
      const [people] = await db.query<mysql.RowDataPacket[]>(`SELECT id FROM ${OTHER}.people`)
      expect(people).toEqual([])
    }
  })
  it.each([/ledger_postings\.jsonl$/, /^files\/price_pictures\//, /^files\/signatures\//])(
    'refuses one with a single bit otherwise in %s',
    async (path) => {
      await empty()
      const zip = await openPromise(inFolder('a.zip'), { autoClose: false, lazyEntries: true })
      let at = 0
      for await (const entry of zip.eachEntry()) {
        if (at || !path.test(entry.fileName)) continue
        const { fileDataStart } = await zip.readLocalFileHeaderPromise(entry, { minimal: true })
        at = fileDataStart + Math.floor(entry.compressedSize / 2)
      }
      zip.close()
      const ill = readFileSync(inFolder('a.zip'))
      ill[at]! ^= 1
      writeFileSync(inFolder('ill.zip'), ill)
      const { status, said } = archive('in', inFolder('ill.zip'), there)
      expect([status, said]).toEqual([1, expect.stringMatching(/Nothing was taken in/)])
    },
  )
  it('refuses what is cut, and what is no archive at all', async () => {
    await empty()
    const whole = readFileSync(inFolder('a.zip'))
    writeFileSync(inFolder('cut.zip'), whole.subarray(0, whole.length / 2))
    writeFileSync(inFolder('none.zip'), 'Dear Sirs')
    for (const name of ['cut.zip', 'none.zip'])
      expect(archive('in', inFolder(name), there)).toEqual({
        ...{ status: 1, said: expect.stringMatching(/damaged|no archive/) as string },
      })
  })
})

describe('everything in and out', () => {
  it('goes along whole over the line, to an owner, and is written down', async () => {
    const reply = await owner.send('archive')
    expect([reply.status, reply.headers.get('content-type')]).toEqual([200, 'application/zip'])
    writeFileSync(inFolder('line.zip'), reply.bytes)
    expect((await entriesOf(inFolder('line.zip'))).get('archive.json')).toEqual(
      entries.get('archive.json'),
    )
    const { exports } = await owner.ok('inAndOut')
    expect(exports.find(({ what }) => what === 'archive')).toMatchObject({ by: 'Hester Vane' })
  })
  it('offers each what they may take', async () => {
    const offered = async (role: Parameters<typeof signedIn>[0]) =>
      (await (await signedIn(role)).ok('inAndOut')).exports.map(({ what }) => what)
    expect(await offered('books')).toEqual(expect.arrayContaining(['journal', 'invoices']))
    expect(await offered('books')).not.toContain('archive')
    expect(await offered('office')).not.toContain('journal')
  })
  const scheduled = async (body: object) => {
    const one = { id: id(), ...body }
    await owner.ok('keepExportSchedule', { body: one })
    return until(async () => {
      const { schedules } = await owner.ok('inAndOut')
      return schedules.find((s) => s.id === one.id && (s.lastAt ?? s.problem))
    })
  }
  const end = (s: { id: string; version: number }, version = s.version) =>
    owner.send('endExportSchedule', { params: { id: s.id }, body: { version } })
  it('goes out by itself into the folder, at once and again tomorrow, until it is ended', async () => {
    const schedule = await scheduled({ what: 'customers', every: 'day', way: 'folder' })
    expect(schedule).toMatchObject({ problem: '', dueOn: '2026-11-25' })
    const file = join(process.env.OPEN_LEDGER_EXPORTS!, 'customers-2026-11-24.csv')
    expect(readFileSync(file, 'utf8')).toContain('Hallam Dairy')
    expect((await end(schedule, 99)).body.code).toBe('stale')
    expect((await end(schedule)).status).toBe(200)
    expect((await owner.ok('inAndOut')).schedules).toEqual([])
  })
  it('goes out by itself by mail, with the file', async () => {
    const email = `books-${id()}@example.com`
    const schedule = await scheduled({ what: 'journal', every: 'week', way: 'mail', email })
    expect(schedule.dueOn).toBe('2026-12-01')
    const mail = await until(async () => {
      const mails = (await (await fetch(`${process.env.MAIL_STANDIN}/mails`)).json()) as {
        to: string[]
        raw: string
      }[]
      return mails.find(({ to }) => to.includes(email))
    })
    expect(mail.raw).toContain('journal-2026-11-24.ledger')
    await end(schedule)
  })
  it('that did not go out is tried again, said once, and seen where a monitor looks', async () => {
    const { OPEN_LEDGER_EXPORTS: out } = process.env
    const inTheWay = join(out!, 'sites-2026-11-24.csv.part')
    mkdirSync(inTheWay, { recursive: true })
    const schedule = await scheduled({ what: 'sites', every: 'day', way: 'folder' })
    expect([schedule.problem, schedule.dueOn]).toEqual([expect.stringMatching(/\S/), '2026-11-24'])
    const why = async () =>
      ((await (await fetch(`${process.env.TEST_URL}/api/health`)).json()) as { why: string[] }).why
    await until(async () => (await why()).includes('sites does not go out by itself'))
    // Whatever else goes out has it tried again.
    await end(await scheduled({ what: 'payments', every: 'day', way: 'folder' }))
    const { history } = await owner.ok('inAndOut')
    const said = history.filter(({ text }) => text.startsWith('Did not go out by itself: sites'))
    expect(said).toMatchObject([{ who: 'Open Ledger' }])
    rmSync(inTheWay, { recursive: true })
    await end(await scheduled({ what: 'invoices', every: 'day', way: 'folder' }))
    const now = (await owner.ok('inAndOut')).schedules.find(({ id }) => id === schedule.id)!
    expect(now).toMatchObject({ problem: '', dueOn: '2026-11-25' })
    await end(now)
  })
  it('says what cannot be: an archive by mail, a mail to nobody', async () => {
    const kept = (body: object) => owner.send('keepExportSchedule', { body: { id: id(), ...body } })
    expect(
      (await kept({ what: 'archive', every: 'day', way: 'mail', email: 'a@example.com' })).body,
    ).toMatchObject({ errors: [{ path: 'way' }] })
    expect((await kept({ what: 'sites', every: 'day', way: 'mail' })).body).toMatchObject({
      errors: [{ path: 'email' }],
    })
  })
})

describe('somebody who lost everything that opens the app', () => {
  it('comes in by a way that whoever runs the server gives, once', async () => {
    const { status, said } = command(['scripts/way-in.ts', 'PIET@demo.test'])
    const token = /come-in\/([\w-]+)/.exec(said)?.[1]
    expect([status, token]).toEqual([0, expect.any(String)])
    const door = { params: { token: token! } }
    expect((await owner.send('door', door)).body).toMatchObject({ email: 'piet@demo.test' })
    const { items } = await owner.ok('accessTrail')
    expect(items[0]).toMatchObject({ who: 'Whoever runs the server' })
  })
  it('is nobody of another firm', () => {
    expect(command(['scripts/way-in.ts', 'who@else.test'])).toMatchObject({
      ...{ status: 1, said: expect.stringContaining('Nobody here') as string },
    })
  })
})
