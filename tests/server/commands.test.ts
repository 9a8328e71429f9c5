// The commands of the house, as an operator types them: backup, restore, demo, and the sentences when a start cannot go on.
import { spawn, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import {
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type mysql from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { afterFall } from '../../scripts/lib/keeper.mjs'
import { endLeftovers, leaveFolder, takeFolder } from '../../scripts/lib/leftovers.mjs'
import { migrate } from '../../server/db/migrate'
import { closePool, transaction } from '../../server/db/pool'
import { sweep } from '../../server/http/sweep'
import { Client, database, id, LOGINS } from './client'

const folder = mkdtempSync(join(tmpdir(), 'open-ledger-test-'))
const other = (name: string) => process.env.DATABASE_URL!.replace(/open_ledger$/, name)
const command = (args: string[], env: Record<string, string> = {}) => {
  const { status, stdout, stderr } = spawnSync(process.execPath, args, {
    encoding: 'utf8',
    env: { ...process.env, ...env },
  })
  return { status, said: `${stdout}${stderr}` }
}
const run = (name: string, args: string[], env: Record<string, string> = {}) =>
  command(['scripts/run.mjs', name, ...args], env)
let db: mysql.Connection
beforeAll(async () => {
  db = await database()
})
afterAll(async () => {
  for (const name of ['open_ledger_copy', 'open_ledger_again', 'open_ledger_empty'])
    await db.query(`DROP DATABASE IF EXISTS ${name}`)
  await db.end()
  await closePool()
  rmSync(folder, { recursive: true, force: true })
})

describe('backup and restore', () => {
  const file = join(folder, 'books.sql')
  it('moves everything to another database, whose books agree', async () => {
    expect(run('backup', [file]).said).toContain('MB written')
    await db.query('CREATE DATABASE open_ledger_copy')
    const restored = run('restore', [file], { DATABASE_URL: other('open_ledger_copy') })
    expect(restored.said).toContain('restored from')
    for (const table of [
      'customers',
      'work_orders',
      'invoices',
      'payments',
      'ledger_postings',
      'trail',
      'signatures',
    ]) {
      const [[rows]] = (await db.query(
        `SELECT (SELECT COUNT(*) FROM open_ledger.${table}) AS here, (SELECT COUNT(*) FROM open_ledger_copy.${table}) AS there`,
      )) as unknown as [[{ here: number; there: number }]]
      expect(rows.there, table).toBe(rows.here)
      expect(rows.here, table).toBeGreaterThan(0)
    }
    const books = run('check-books', [], { DATABASE_URL: other('open_ledger_copy') })
    expect(books.said).toContain('ok    receivables of each customer')
    expect(books.said).not.toContain('WRONG')
    expect(books.status).toBe(0)
  })
  it('keeps the triggers: a copied ledger is append-only too', async () => {
    await expect(
      db.query(
        'UPDATE open_ledger_copy.ledger_postings SET amount_minor = amount_minor + 1 LIMIT 1',
      ),
    ).rejects.toThrow('append-only')
  })
  it('keeps the indexes of words whole: names that are common words are found in a copy too', async () => {
    await db.query(
      `UPDATE open_ledger_copy.customers SET search = 'will whowell the' WHERE merged_into IS NULL LIMIT 1`,
    )
    const [[found]] = (await db.query(
      `SELECT COUNT(*) AS n FROM open_ledger_copy.customers WHERE MATCH(search) AGAINST ('+will* +the*' IN BOOLEAN MODE)`,
    )) as unknown as [[{ n: number }]]
    expect(found.n).toBe(1)
  })
  it('overwrites neither a file nor a company unless told', () => {
    expect(run('backup', [file])).toMatchObject({
      status: 1,
      said: expect.stringContaining('is there already'),
    })
    expect(run('restore', [file], { DATABASE_URL: other('open_ledger_copy') })).toMatchObject({
      status: 1,
      said: expect.stringContaining('--replace'),
    })
    expect(
      run('restore', [file, '--replace'], { DATABASE_URL: other('open_ledger_copy') }).status,
    ).toBe(0)
  })
  it('is kept under its time, the newest only, and nothing else is cleared away', () => {
    const nightly = join(folder, 'nightly')
    expect(run('backup', ['--keep', '2', nightly]).status).toBe(0)
    for (const name of ['open-ledger-2020-01-01T000000Z.sql', 'open-ledger-2020-01-02T000000Z.sql'])
      writeFileSync(join(nightly, name), 'old')
    writeFileSync(join(nightly, 'letter.sql'), 'mine')
    expect(run('backup', ['--keep', '2', nightly]).status).toBe(0)
    const names = readdirSync(nightly).toSorted()
    expect(names).toHaveLength(3)
    expect(names[0]).toBe('letter.sql')
    expect(names.slice(1).every((name) => name > 'open-ledger-2026')).toBe(true)
    expect(run('backup', ['--keep', 'none', nightly])).toMatchObject({
      ...{ status: 1, said: expect.stringContaining('Usage') as string },
    })
  })
  it('says when the file is no backup, and when there is none', async () => {
    const wrong = join(folder, 'wrong.sql')
    writeFileSync(wrong, 'this is a letter, not a backup;')
    await db.query('CREATE DATABASE IF NOT EXISTS open_ledger_again')
    expect(run('restore', [wrong], { DATABASE_URL: other('open_ledger_again') })).toMatchObject({
      status: 1,
      said: expect.stringContaining('is no backup of Open Ledger'),
    })
    expect(run('restore', [join(folder, 'nothing.sql')]).status).toBe(1)
  })
  it('a file that is empty, cut or lacks a part changes nothing', async () => {
    const whole = readFileSync(file, 'utf8')
    const copy = { DATABASE_URL: other('open_ledger_copy') }
    const count = async () =>
      (
        (await db.query('SELECT COUNT(*) AS n FROM open_ledger_copy.customers')) as unknown as [
          [{ n: number }],
        ]
      )[0][0].n
    const before = await count()
    const visits = /-- Table structure for table `visits`[\s\S]*?UNLOCK TABLES;/.exec(whole)![0]
    const rows = /\nINSERT INTO `customers` VALUES\n?\(/.exec(whole)!
    const faults: [string, string, string][] = [
      ['empty', '', 'is empty'],
      ['cut', whole.slice(0, whole.length / 2), 'is cut'],
      ['without visits', whole.replace(visits, ''), 'The file lacks visits'],
      [
        'broken within',
        `${whole.slice(0, rows.index)}\nINSERT INTO \`customers\` VALUES ('secret name of a person');${whole.slice(rows.index)}`,
        'The restore failed at line',
      ],
    ]
    for (const [what, text, said] of faults) {
      const bad = join(folder, 'bad.sql')
      writeFileSync(bad, text)
      const reply = run('restore', [bad, '--replace'], copy)
      expect(reply, what).toMatchObject({ status: 1, said: expect.stringContaining(said) })
      expect(reply.said, what).not.toContain('secret name')
      expect(await count(), what).toBe(before)
    }
    expect(run('check-books', [], copy).status).toBe(0)
  })
  it('is refused while somebody works in the database', async () => {
    expect(run('restore', [file, '--replace'])).toMatchObject({
      status: 1,
      said: expect.stringContaining('is running on this database'),
    })
  })
  it('is for its owner’s eyes alone', () => expect(statSync(file).mode & 0o777).toBe(0o600))
})
describe('a data folder', () => {
  it('that holds data without its system tables is left as it is, with a sentence', () => {
    const data = join(folder, 'half', 'mariadb', 'data', 'open_ledger')
    mkdirSync(data, { recursive: true })
    writeFileSync(join(data, 'customers.ibd'), 'the firm')
    const reply = command([
      '--input-type=module',
      '-e',
      `import { startDatabase } from './scripts/lib/database.mjs'; import { orStop } from './scripts/lib/say.mjs'; await orStop(() => startDatabase('${join(folder, 'half')}'))`,
    ])
    expect(reply).toMatchObject({
      status: 1,
      said: expect.stringContaining('Nothing in it was changed'),
    })
    expect(readFileSync(join(data, 'customers.ibd'), 'utf8')).toBe('the firm')
  })
  it('that had a firm is never filled with the demo', async () => {
    await db.query('CREATE DATABASE IF NOT EXISTS open_ledger_empty')
    const mark = join(folder, 'company')
    writeFileSync(mark, 'firm\n')
    const reply = command(['--import', 'tsx', 'scripts/prepare.ts'], {
      DATABASE_URL: other('open_ledger_empty'),
      OPEN_LEDGER_MARK: mark,
    })
    expect(reply).toMatchObject({ status: 1, said: expect.stringContaining('had a firm') })
    const [[people]] = (await db.query(
      'SELECT COUNT(*) AS n FROM open_ledger_empty.people',
    )) as unknown as [[{ n: number }]]
    expect(people.n).toBe(0)
  })
  it('has one owner, and a list of what runs that can be half-written', async () => {
    const dir = join(folder, 'owned')
    mkdirSync(dir)
    expect(takeFolder(dir)).toBeNull()
    expect(takeFolder(dir)).toBeNull()
    writeFileSync(join(dir, 'running.json'), '{"start": 12, "chil')
    expect(await endLeftovers(dir)).toBe(0)
    leaveFolder(dir)
    // A name without a process behind it is nobody's.
    writeFileSync(join(dir, 'owner'), '999999')
    expect(takeFolder(dir)).toBeNull()
    leaveFolder(dir)
  })
  it('says what to do when a secret in it is empty', () => {
    const dir = join(folder, 'secretless')
    mkdirSync(dir)
    writeFileSync(join(dir, 'secret'), '')
    const reply = command(
      [
        '--input-type=module',
        '-e',
        `import { keptSecret } from './scripts/lib/env.mjs'; import { orStop } from './scripts/lib/say.mjs'; await orStop(() => keptSecret('secret'))`,
      ],
      { OPEN_LEDGER_DATA: dir },
    )
    expect(reply).toMatchObject({ status: 1, said: expect.stringContaining('is empty or damaged') })
  })
})
describe('a migration', () => {
  it('goes on after a kill at any of its statements', async () => {
    const sql = [
      'CREATE TABLE one (id INT PRIMARY KEY)',
      'ALTER TABLE one ADD name VARCHAR(9) NOT NULL DEFAULT "x", ADD KEY (name)',
      'INSERT INTO one (id) VALUES (1), (2)',
      'UPDATE one SET id = id + 10',
      'CREATE TRIGGER keep BEFORE DELETE ON one FOR EACH ROW\n  IF OLD.id = 0 THEN SIGNAL SQLSTATE "45000" SET MESSAGE_TEXT = "no"; END IF',
      'ALTER TABLE one DROP KEY name',
    ]
    const migrations = join(folder, 'migrations')
    mkdirSync(migrations)
    writeFileSync(join(migrations, '0001-one.sql'), `-- A table.\n${sql.join(';\n')};\n`)
    const hash = createHash('sha256')
      .update(readFileSync(join(migrations, '0001-one.sql')))
      .digest('hex')
    for (let done = 0; done <= sql.length; done++) {
      await db.query('DROP DATABASE IF EXISTS open_ledger_empty')
      await db.query('CREATE DATABASE open_ledger_empty')
      await db.query('USE open_ledger_empty')
      await db.query(
        'CREATE TABLE schema_migrations (name VARCHAR(120) PRIMARY KEY, hash CHAR(64) NOT NULL, applied_at DATETIME(3) NOT NULL, statements INT NULL)',
      )
      for (const statement of sql.slice(0, done)) await db.query(statement)
      // What changes tables may be done without a note; what changes rows is noted with it.
      const noted = done > 0 && /^(CREATE|ALTER)/.test(sql[done - 1]!) ? done - 1 : done
      await db.query('INSERT INTO schema_migrations VALUES ("0001-one.sql", ?, NOW(3), ?)', [
        hash,
        noted,
      ])
      expect(await migrate(other('open_ledger_empty'), migrations), `after ${done}`).toEqual([
        '0001-one.sql',
      ])
      const [rows] = await db.query('SELECT id, name FROM open_ledger_empty.one ORDER BY id')
      expect(rows, `after ${done}`).toEqual([
        { id: 11, name: 'x' },
        { id: 12, name: 'x' },
      ])
      expect(await migrate(other('open_ledger_empty'), migrations)).toEqual([])
    }
    await db.query('USE open_ledger')
  })
})

describe('a database of a newer version', () => {
  it('is refused with a sentence, and stays as it was', async () => {
    await db.query(
      'INSERT INTO open_ledger_copy.schema_migrations (name, hash, applied_at) VALUES ("9999-later.sql", REPEAT("0", 64), UTC_TIMESTAMP(3))',
    )
    const start = command(['--import', 'tsx', 'scripts/prepare.ts'], {
      DATABASE_URL: other('open_ledger_copy'),
    })
    expect(start.status).toBe(1)
    expect(start.said).toContain('made by a newer version of Open Ledger (it has 9999-later.sql)')
  })
})

describe('the demo company', () => {
  it('asks before it replaces anything, and refuses what it does not know', () => {
    expect(run('demo', [], { DATABASE_URL: other('open_ledger_again') })).toMatchObject({
      status: 1,
      said: expect.stringContaining('--reset'),
    })
    expect(
      run('demo', ['--reset', '--size', 'huge'], { DATABASE_URL: other('open_ledger_again') }),
    ).toMatchObject({ status: 1, said: expect.stringContaining('Usage') })
  })
  it('comes to the same rows for the same seed and day', async () => {
    const made = run('demo', ['--reset', '--seed', '7'], {
      DATABASE_URL: other('open_ledger_again'),
      OPEN_LEDGER_NOW: '2026-11-24T10:21',
    })
    expect(made.said).toContain('demo company rebuilt')
    // The tests have added to this database since; what the generator made must be among it, number for number.
    for (const [table, columns] of [
      ['customers', ['name', 'phone']],
      ['sites', ['line1', 'lat']],
      ['price_entries', ['code', 'price']],
      ['work_orders', ['number', 'title']],
      ['invoices', ['number', 'total_minor', 'frozen']],
      ['payments', ['number', 'amount_minor']],
    ] as const) {
      const [[rows]] = (await db.query(
        `SELECT COUNT(*) AS made, COUNT(t.id) AS same FROM open_ledger_again.${table} a LEFT JOIN open_ledger.${table} t ON t.id = a.id AND ${columns.map((c) => `t.${c} <=> a.${c}`).join(' AND ')}`,
      )) as unknown as [[{ made: number; same: number }]]
      expect(rows.made, table).toBeGreaterThan(20)
      // Customers and their sites may have been changed by hand since.
      expect(rows.made - rows.same, table).toBeLessThanOrEqual(
        ['customers', 'sites'].includes(table) ? 8 : 0,
      )
    }
  })
})

describe('a start that cannot go on', () => {
  it('names the port that is taken, and the one that is none', async () => {
    const server = createServer()
    const port = await new Promise<number>((done) =>
      server.listen(0, '127.0.0.1', () => done((server.address() as { port: number }).port)),
    )
    const taken = await new Promise<{ status: number | null; said: string }>((done) => {
      const start = spawn(process.execPath, ['scripts/start.mjs'], {
        env: { ...process.env, PORT: String(port), OPEN_LEDGER_DATA: join(folder, 'data') },
      })
      let said = ''
      start.stderr.on('data', (piece) => (said += piece))
      start.once('exit', (status) => done({ status, said }))
    })
    server.close()
    expect(taken).toMatchObject({
      status: 1,
      said: expect.stringContaining(`Port ${port} is taken`),
    })
    expect(command(['scripts/start.mjs'], { PORT: 'eighty' })).toMatchObject({
      status: 1,
      said: expect.stringContaining('which is not a port'),
    })
  })
  it('names the data folder that cannot be made', () => {
    const file = join(folder, 'a-file')
    writeFileSync(file, '')
    expect(
      command(['scripts/start.mjs'], { PORT: '46117', OPEN_LEDGER_DATA: join(file, 'data') }),
    ).toMatchObject({ status: 1, said: expect.stringContaining('cannot be made') })
  })
  it('names the package that is missing where nothing can install it', () => {
    const missing = command(
      [
        '--input-type=module',
        '-e',
        'import { installDebian } from "./scripts/lib/install.mjs"; installDebian({ "no-such-command": "no-such-package" })',
      ],
      { PATH: folder },
    )
    expect(missing).toMatchObject({
      status: 1,
      said: expect.stringContaining('no-such-package is missing and there is no apt-get'),
    })
  })
  it('says what to ask for where the right to install is missing', () => {
    // An apt-get that refuses, as one does without the right to it.
    writeFileSync(join(folder, 'apt-get'), '#!/bin/sh\necho "Permission denied" >&2\nexit 100\n', {
      mode: 0o755,
    })
    writeFileSync(join(folder, 'sudo'), '#!/bin/sh\necho "a password is required" >&2\nexit 1\n', {
      mode: 0o755,
    })
    const refused = command(
      [
        '--input-type=module',
        '-e',
        'import { installDebian } from "./scripts/lib/install.mjs"; installDebian({ "no-such-command": "no-such-package" })',
      ],
      { PATH: `${folder}:${process.env.PATH}` },
    )
    expect(refused.status).toBe(1)
    expect(refused.said).toContain(
      'Ask someone with the right to run:\n  apt-get install no-such-package',
    )
  })
})

describe('what a killed start left running', () => {
  it('is ended by the next one, and nothing else is', async () => {
    const dir = mkdtempSync(join(folder, 'data-'))
    const env = { ...process.env, CARD_PORT: '0', CARD_SECRET: 'x'.repeat(32) }
    const ours = spawn(process.execPath, ['standins/card/server.mjs'], { env, stdio: 'ignore' })
    const stranger = spawn(process.execPath, ['-e', 'setInterval(() => {}, 1000)'], {
      stdio: 'ignore',
    })
    await Promise.all([ours, stranger].map((c) => new Promise((done) => c.once('spawn', done))))
    const ended = new Promise((done) => ours.once('exit', done))
    // A process that took over the number of one of ours, and a start that is dead.
    writeFileSync(
      join(dir, 'running.json'),
      JSON.stringify({
        start: 2 ** 22 - 1,
        children: [
          { pid: ours.pid, command: 'standins/card/server.mjs' },
          { pid: stranger.pid, command: 'standins/mail/server.mjs' },
        ],
      }),
    )
    expect(await endLeftovers(dir)).toBe(1)
    await ended
    expect(stranger.exitCode).toBeNull()
    expect(() => statSync(join(dir, 'running.json'))).toThrow()
    expect(await endLeftovers(dir)).toBe(0)
    stranger.kill()
  })
})

describe('housekeeping', () => {
  it('forgets old keys, ended sessions and old failures, and keeps the fresh ones', async () => {
    const now = Date.now()
    const at = (days: number) =>
      new Date(now - days * 86_400_000).toISOString().replace('T', ' ').replace('Z', '')
    const [[person]] = (await db.query('SELECT id FROM people LIMIT 1')) as unknown as [
      [{ id: string }],
    ]
    const names = { old: `old-${id()}`, fresh: `fresh-${id()}` }
    await db.query(
      'INSERT INTO idempotency_keys (id, request_hash, created_at) VALUES (?, "", ?), (?, "", ?)',
      [names.old, at(15), names.fresh, at(13)],
    )
    await db.query(
      'INSERT INTO sessions (id, person_id, kind, created_at, last_seen_at, expires_at) VALUES (?, ?, "cookie", ?, ?, ?)',
      [names.old, person.id, at(20), at(20), at(1)],
    )
    await db.query('INSERT INTO tries (id, count, last_at) VALUES (?, 1, ?), (?, 1, ?)', [
      names.old,
      at(3),
      names.fresh,
      at(0.1),
    ])
    const client = new Client()
    await client.ok('signIn', { body: { email: LOGINS.office, password: 'open-ledger' } })
    await transaction((tx) => sweep(tx, now))
    const [left] = await db.query(
      'SELECT id FROM idempotency_keys WHERE id IN (?, ?) UNION ALL SELECT id FROM sessions WHERE id = ? UNION ALL SELECT id FROM tries WHERE id IN (?, ?)',
      [names.old, names.fresh, names.old, names.old, names.fresh],
    )
    expect((left as { id: string }[]).map((r) => r.id)).toEqual([names.fresh, names.fresh])
    expect((await client.send('run')).status).toBe(200)
  })
})
describe('what fell is started again', () => {
  const pauses = (lived: number[]): number[] => {
    let falls = 0
    return lived.map((ms) => {
      const after = afterFall(falls, ms) as { falls: number; pauseMs: number }
      falls = after.falls
      return after.pauseMs
    })
  }
  it('at once, however often, where it had come up; after growing pauses where it did not', () => {
    expect(pauses([9000, 9000, 9000, 9000])).toEqual([150, 150, 150, 150])
    expect(pauses([100, 100, 100, 9000, 100])).toEqual([150, 300, 600, 150, 300])
    expect(Math.max(...pauses(Array.from({ length: 40 }, () => 10)))).toBe(15_000)
  })
})
