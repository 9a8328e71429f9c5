// The people of the firm: added, invited, let in once, changed, let go; and the ways in that end.
import { createHash } from 'node:crypto'
import { describe, beforeAll, expect, it } from 'vitest'
import { Client, database, id, signedIn, somethingToBill, until } from './client'

let owner: Client
let office: Client
beforeAll(async () => {
  ;[owner, office] = await Promise.all([signedIn('owner'), signedIn('office')])
})
const words = (email: string) => email.split('@')[0]!
const person = (given: object = {}) => {
  const key = id()
  return {
    ...{
      id: key,
      name: 'Nell Farrow',
      email: `nell-${key.slice(-8)}@demo.test`,
      phone: '6075550177',
    },
    ...{ role: 'dispatch', bookable: false, seesCost: false },
    ...given,
  }
}
const all = async () => (await owner.ok('staff')).items
const known = async (key: string) => (await all()).find((one) => one.id === key)!
const add = async (given: object = {}) => {
  const body = person(given)
  await owner.ok('keepPerson', { body })
  return { ...body, ...(await known(body.id)) }
}
interface Mail {
  to: string[]
  raw: string
}
/** The latest of so many mails to an address, as it left. */
async function mailTo(address: string, count = 1): Promise<string> {
  const found = await until(async () => {
    const sent = (await (await fetch(`${process.env.MAIL_STANDIN}/mails`)).json()) as Mail[]
    const theirs = sent.filter(({ to }) => to.includes(address))
    return theirs.length >= count && theirs.at(-1)
  })
  return found.raw.replace(/=\r?\n/g, '')
}
const tokenIn = (text: string) => /\/come-in\/([\w-]+)/.exec(text)![1]!
const doorOf = async (address: string, count = 1) => tokenIn(await mailTo(address, count))
const PASSWORD = 'quiet otters swim'
const comeIn = (token: string, password = PASSWORD) =>
  new Client().send('comeIn', { params: { token }, body: { password } })

describe('who does not sign in', () => {
  const crew = (given: object = {}) =>
    person({ name: 'The well crew', email: '', role: 'technician', bookable: true, ...given })
  it('is added without a mail address, booked, and invited by nothing', async () => {
    const one = await add(crew())
    const other = await add(crew({ name: 'Ridge Drilling' }))
    expect([one.email, other.email, one.invitedUntil, one.comesIn]).toEqual(['', '', null, false])
    const { technicians } = await owner.ok('scheduleSetUp')
    expect(technicians.map(({ name }) => name)).toContain('The well crew')
    const again = await owner.send('invitePerson', { params: { id: one.id } })
    expect([again.status, again.body.code]).toEqual([409, 'not_now'])
    const signIn = await new Client().send('signIn', { body: { email: '', password: PASSWORD } })
    expect(signIn.status).toBe(422)
    const since = {
      ...person(one),
      version: one.version,
      email: `crew-${id().slice(-8)}@demo.test`,
    }
    await owner.ok('keepPerson', { body: since })
    expect((await known(one.id)).invitedUntil).not.toBeNull()
    await comeIn(await doorOf(since.email))
    const { version } = await known(one.id)
    const without = await owner.send('keepPerson', { body: { ...since, version, email: '' } })
    expect(without).toMatchObject({ status: 422, body: { errors: [{ path: 'email' }] } })
    for (const { id: key } of [one, other]) await owner.ok('leave', { params: { id: key } })
  })
  it.each([
    { role: 'office', bookable: true },
    { role: 'technician', bookable: false },
  ])('is nobody who is not booked as a technician: %j', async (given) => {
    const refused = await owner.send('keepPerson', { body: crew(given) })
    expect(refused).toMatchObject({ status: 422, body: { errors: [{ path: 'email' }] } })
  })
})
describe('who is added', () => {
  it('is invited, comes in once by the link, and signs in with a password of their own', async () => {
    const nell = await add()
    expect(nell).toMatchObject({ phone: '(607) 555-0177', comesIn: false })
    expect(nell.invitedUntil).not.toBeNull()
    const token = await doorOf(nell.email)
    const asked = await new Client().ok('door', { params: { token } })
    expect(asked).toMatchObject({ name: 'Nell Farrow', email: nell.email, isNew: true })
    const client = new Client()
    const came = await client.send('comeIn', { params: { token }, body: { password: PASSWORD } })
    expect(came).toMatchObject({ status: 200, body: { person: { role: 'dispatch' } } })
    expect(came.text).not.toContain('cookieToken')
    expect((await client.ok('session')).person.name).toBe('Nell Farrow')
    expect((await comeIn(token)).status).toBe(404)
    expect((await new Client().send('door', { params: { token } })).status).toBe(404)
    const again = await new Client().send('signIn', {
      body: { email: nell.email, password: PASSWORD },
    })
    expect(again.status).toBe(200)
    expect(await known(nell.id)).toMatchObject({ comesIn: true, invitedUntil: null })
  })
  it('cannot sign in before, with whatever password', async () => {
    const nell = await add()
    for (const password of ['x', PASSWORD])
      expect(
        await new Client().send('signIn', { body: { email: nell.email, password } }),
      ).toMatchObject({ status: 401, body: { code: 'wrong_sign_in' } })
  })
  it('comes in by the last invitation alone, and by one of two at once', async () => {
    const nell = await add()
    const first = await doorOf(nell.email)
    await owner.ok('invitePerson', { params: { id: nell.id } })
    const second = await doorOf(nell.email, 2)
    expect((await comeIn(first)).status).toBe(404)
    const both = await Promise.all([comeIn(second), comeIn(second, 'another long one')])
    expect(both.map(({ status }) => status).sort()).toEqual([200, 404])
    expect(await owner.send('invitePerson', { params: { id: nell.id } })).toMatchObject({
      status: 409,
      body: { code: 'not_now' },
    })
  })
  it('is one person, also where it is sent twice, and has a mail address of their own', async () => {
    const body = person()
    const key = id()
    await Promise.all([1, 2].map(() => owner.send('keepPerson', { body, key })))
    expect((await all()).filter((one) => one.email === body.email)).toHaveLength(1)
    expect(
      await owner.send('keepPerson', { body: person({ email: body.email.toUpperCase() }) }),
    ).toMatchObject({ status: 422, body: { errors: [{ path: 'email' }] } })
  })
  it('leaves no way in to whoever reads the database or the list of mails', async () => {
    const nell = await add()
    const token = await doorOf(nell.email)
    const db = await database()
    const [doors] = await db.query('SELECT hash FROM door_keys')
    const [mails] = await db.query('SELECT body FROM messages WHERE kind = "access"')
    await db.end()
    expect(JSON.stringify([doors, mails])).not.toContain(token)
    expect((await office.send('messages', { query: { q: words(nell.email) } })).text).not.toContain(
      token,
    )
  })
})

describe('a password', () => {
  it('that was forgotten is chosen anew by a link, which ends all sessions but its own', async () => {
    const nell = await add()
    const client = new Client()
    const token = await doorOf(nell.email)
    await client.ok('comeIn', { params: { token }, body: { password: PASSWORD } })
    await new Client().ok('forgotPassword', { body: { email: nell.email.toUpperCase() } })
    const link = await doorOf(nell.email, 2)
    expect((await new Client().ok('door', { params: { token: link } })).isNew).toBe(false)
    expect((await comeIn(link, 'other otters swim')).status).toBe(200)
    expect((await client.send('session')).status).toBe(401)
    expect(
      (await new Client().send('signIn', { body: { email: nell.email, password: PASSWORD } }))
        .status,
    ).toBe(401)
  })
  it('may be asked for by anybody, and nobody learns who is there', async () => {
    const here = await new Client().send('forgotPassword', { body: { email: 'owner@demo.test' } })
    const nobody = await new Client().send('forgotPassword', { body: { email: 'no@demo.test' } })
    expect([here.status, here.text]).toEqual([nobody.status, nobody.text])
  })
  it('is not asked for again and again', async () => {
    const client = new Client()
    client.address = '192.0.2.77'
    const ask = () => client.send('forgotPassword', { body: { email: 'again@demo.test' } })
    const statuses = []
    for (let i = 0; i < 5; i++) statuses.push((await ask()).status)
    expect(statuses).toEqual([200, 200, 200, 429, 429])
  })
  it.each([
    ['short', 'too short'],
    ['nell reed   x', 'too short without its many spaces'],
    ['x'.repeat(129), 'too long'],
    ['qwertyuiop123', 'one that many people have'],
  ])('%s is refused: %s', async (password) => {
    const nell = await add()
    const token = await doorOf(nell.email)
    expect(await comeIn(token, password)).toMatchObject({
      ...{ status: 422, body: { errors: [{ path: 'password' }] } },
    })
    expect((await comeIn(token)).status).toBe(200)
  })
  it('is not chosen by a link whose time is over', async () => {
    const nell = await add()
    const token = await doorOf(nell.email)
    const db = await database()
    await db.query('UPDATE door_keys SET expires_at = "2020-01-01" WHERE person_id = ?', [nell.id])
    await db.end()
    expect((await comeIn(token)).status).toBe(404)
    expect(await known(nell.id)).toMatchObject({ invitedUntil: null, comesIn: false })
  })
})

describe('who is here already', () => {
  it('is changed, unless somebody else changed them meanwhile', async () => {
    const nell = await add()
    const { comesIn: _c, invitedUntil: _i, active: _a, leftOn: _l, ...body } = nell
    await owner.ok('keepPerson', { body: { ...body, role: 'books' } })
    expect(await known(nell.id)).toMatchObject({ role: 'books', version: nell.version + 1 })
    expect(await owner.send('keepPerson', { body: { ...body, name: 'Nell F.' } })).toMatchObject({
      ...{ status: 409, body: { code: 'stale', current: { role: 'books' } } },
    })
  })
  it('whose address was wrong is invited at the right one, and the wrong one opens nothing', async () => {
    const nell = await add()
    const { comesIn: _c, invitedUntil: _i, active: _a, leftOn: _l, ...body } = nell
    const wrong = await doorOf(nell.email)
    const email = `right-${nell.email}`
    await owner.ok('keepPerson', { body: { ...body, email } })
    expect((await comeIn(wrong)).status).toBe(404)
    expect((await comeIn(await doorOf(email))).status).toBe(200)
  })
  it('costs what an hour of theirs costs on its day, and only who sees costs knows or says it', async () => {
    const nell = await add({ payrollNumber: '0042' })
    expect(nell).toMatchObject({ payrollNumber: '0042', costRate: '', costRates: [] })
    const { workOrderId, visitId } = await somethingToBill(office)
    const db = await database()
    // An hour each; the second begins half an hour before the 23rd does in New York.
    for (const at of ['2026-11-20 15:00', '2026-11-23 04:30', '2026-11-23 15:00'])
      await db.query(
        `INSERT INTO clock_intervals (id, person_id, visit_id, kind, started_at, ended_at)
        VALUES (?, ?, ?, 'on_site', ?, ? + INTERVAL 1 HOUR)`,
        [id(), nell.id, visitId, at, at],
      )
    await db.end()
    const labour = async () =>
      (await owner.ok('workOrder', { params: { id: workOrderId } })).price.labour?.amount
    const say = async (by: Client, costRate: string, costRateFrom = '') => {
      const { name, email, phone, role, bookable, version } = await known(nell.id)
      const body = {
        id: nell.id,
        name,
        email,
        phone,
        role,
        bookable,
        version,
        payrollNumber: '0042',
      }
      return by.send('keepPerson', { body: { ...body, seesCost: false, costRate, costRateFrom } })
    }
    expect(await labour()).toBe('0.00')
    await say(owner, '40')
    expect(await labour()).toBe('120.00')
    await say(owner, '50', '2026-11-23')
    expect(await labour()).toBe('130.00')
    expect(await known(nell.id)).toMatchObject({
      costRate: '50',
      costRates: [
        { from: '', rate: '40' },
        { from: '2026-11-23', rate: '50' },
      ],
    })
    // What is not said anew stays; from today on unless another day is said; the same day once more puts it right.
    await say(owner, '50.00')
    expect((await known(nell.id)).costRates).toHaveLength(2)
    await say(owner, '60')
    await say(owner, '61.5')
    expect((await known(nell.id)).costRates!.at(-1)).toEqual({ from: '2026-11-24', rate: '61.5' })
    expect(await say(owner, '', '2026-12-01')).toMatchObject({
      ...{ status: 422, body: { errors: [{ path: 'costRate' }] } },
    })
    expect((await say(owner, '70', '2026-02-30')).status).toBe(422)
    // What was said for a wrong day is taken back once, and the rate before it goes on.
    const drop = { params: { id: nell.id }, body: { from: '2026-11-23', rate: '50' } }
    const drops = await Promise.all([
      owner.send('dropCostRate', drop),
      owner.send('dropCostRate', drop),
    ])
    expect(drops.map(({ status }) => status).sort()).toEqual([200, 409])
    expect(await labour()).toBe('120.00')
    expect((await known(nell.id)).costRates!.map(({ rate }) => rate)).toEqual(['40', '61.5'])
    expect((await office.send('dropCostRate', drop)).status).toBe(403)
    // What always held stays: what was clocked before would cost nothing.
    const first = { params: drop.params, body: { from: '', rate: '40' } }
    expect((await owner.send('dropCostRate', first)).status).toBe(422)
    const dispatch = await signedIn('dispatch')
    const seen = (await dispatch.ok('staff')).items.find((one) => one.id === nell.id)
    expect(seen).toMatchObject({ payrollNumber: '0042', costRate: null, costRates: null })
  })
  it('leaves: comes in nowhere, is not offered, and can come back', async () => {
    const nell = await add({ role: 'technician', bookable: true })
    const client = new Client()
    const token = await doorOf(nell.email)
    await client.ok('comeIn', { params: { token }, body: { password: PASSWORD } })
    await owner.ok('leave', { params: { id: nell.id } })
    expect((await client.send('session')).status).toBe(401)
    expect(
      (await new Client().send('signIn', { body: { email: nell.email, password: PASSWORD } }))
        .status,
    ).toBe(401)
    expect(await known(nell.id)).toMatchObject({ active: false, leftOn: '2026-11-24' })
    const bookable = async () => (await owner.ok('scheduleSetUp')).technicians.map((t) => t.id)
    expect(await bookable()).not.toContain(nell.id)
    await owner.ok('comeBack', { params: { id: nell.id } })
    expect(await bookable()).toContain(nell.id)
    await owner.ok('leave', { params: { id: nell.id } })
  })
  it('does not leave while visits wait for them', async () => {
    const nell = await add({ role: 'technician', bookable: true })
    const { visitId } = await somethingToBill(office)
    const db = await database()
    await db.query('UPDATE visits SET technician_id = ? WHERE id = ?', [nell.id, visitId])
    const refused = await owner.send('leave', { params: { id: nell.id } })
    const { comesIn: _c, invitedUntil: _i, active: _a, leftOn: _l, ...body } = nell
    const unbooked = await owner.send('keepPerson', { body: { ...body, bookable: false } })
    expect(unbooked).toMatchObject({ status: 409, body: { code: 'work_open' } })
    await db.query('UPDATE visits SET technician_id = NULL WHERE id = ?', [visitId])
    await db.end()
    expect(refused).toMatchObject({ status: 409, body: { code: 'work_open' } })
    expect(refused.text).toContain('1 visit')
    await owner.ok('leave', { params: { id: nell.id } })
  })
  it('stays an owner where there is no other', async () => {
    const me = (await owner.ok('session')).person
    const { comesIn: _c, invitedUntil: _i, active: _a, leftOn: _l, ...body } = await known(me.id)
    expect(await owner.send('keepPerson', { body: { ...body, role: 'office' } })).toMatchObject({
      ...{ status: 409, body: { code: 'last_owner' } },
    })
    expect((await owner.send('leave', { params: { id: me.id } })).status).toBe(409)
  })
  it('is changed by the owner alone, unless the owner gives that to the office', async () => {
    expect((await office.send('keepPerson', { body: person() })).status).toBe(403)
    const give = (roles: string[]) =>
      owner.ok('keepLimits', {
        body: { roles: [], given: [{ permission: 'access.change', roles }] },
      })
    await give(['office'])
    try {
      expect((await office.send('keepPerson', { body: person() })).status).toBe(200)
      expect(await office.send('keepPerson', { body: person({ role: 'owner' }) })).toMatchObject({
        status: 403,
        body: { code: 'forbidden' },
      })
    } finally {
      await give([])
    }
  })
  it('is nobody who may do more than whoever adds them, or says where their mail goes', async () => {
    const books = (await owner.ok('staff')).items.find(({ role }) => role === 'books')!
    const { comesIn: _c, invitedUntil: _i, active: _a, leftOn: _l, ...body } = books
    const give = (roles: string[]) =>
      owner.ok('keepLimits', {
        body: { roles: [], given: [{ permission: 'access.change', roles }] },
      })
    await give(['office'])
    try {
      for (const [name, input] of [
        ['keepPerson', { body: person({ role: 'books' }) }],
        ['keepPerson', { body: { ...body, email: 'mine@marsh.test' } }],
        ['keepPerson', { body: { ...body, role: 'technician' } }],
        ['endSecondStepOf', { params: { id: books.id } }],
        ['leave', { params: { id: books.id } }],
      ] as const) {
        const { status, text } = await office.send(name, input)
        expect([name, status, text]).toEqual([
          name,
          403,
          expect.stringContaining('left to the owner'),
        ])
      }
      const techs = person({ role: 'technician', bookable: true })
      expect((await office.send('keepPerson', { body: techs })).status).toBe(200)
      await owner.ok('leave', { params: { id: techs.id } })
    } finally {
      await give([])
    }
    expect((await owner.ok('staff')).items.find(({ id }) => id === books.id)).toMatchObject({
      ...{ email: books.email, role: 'books', active: true },
    })
  })
})

describe('a token for a program', () => {
  it('says by mail that it ends, to whoever made it; nothing where it was ended by hand', async () => {
    const nell = await add({ role: 'technician', bookable: true })
    const client = new Client()
    await client.ok('comeIn', {
      ...{ params: { token: await doorOf(nell.email) }, body: { password: PASSWORD } },
    })
    const make = async (label: string) => {
      const { token, expiresAt } = await client.ok('newToken', { body: { label, days: 30 } })
      const hash = (text: string) => createHash('sha256').update(text).digest('hex')
      return { key: hash(hash(token)), told: Date.parse(expiresAt) - 7 * 86_400_000 }
    }
    const [kept, ended] = [await make('the scales'), await make('an old script')]
    await client.ok('newToken', { body: { label: 'a day', days: 1 } })
    const { items } = await client.ok('mySessions')
    const old = items.find(({ label }) => label === 'an old script')!
    await client.ok('endMySession', { params: { session: old.id } })
    const db = await database()
    const jobs = async () => {
      const [rows] = await db.query(
        `SELECT job_key AS jobKey, run_at AS runAt, state FROM jobs WHERE kind = 'token-ends'
        AND job_key IN (?)`,
        [[kept.key, ended.key]],
      )
      return rows as { jobKey: string; runAt: string; state: string }[]
    }
    const waits = (await jobs()).find(({ jobKey }) => jobKey === kept.key)!
    expect(Date.parse(`${waits.runAt.replace(' ', 'T')}Z`)).toBe(kept.told)
    // Its day has come.
    await db.query(`UPDATE jobs SET run_at = '2026-01-01' WHERE job_key IN (?)`, [
      [kept.key, ended.key],
    ])
    await until(async () => (await jobs()).every(({ state }) => state === 'done'))
    await db.end()
    expect(await mailTo(nell.email, 2)).toContain('the scales')
    const sent = (await (await fetch(`${process.env.MAIL_STANDIN}/mails`)).json()) as Mail[]
    expect(sent.filter(({ to }) => to.includes(nell.email))).toHaveLength(2)
    await owner.ok('leave', { params: { id: nell.id } })
  })
})

describe('taxes', () => {
  const classOf = async (key: string) =>
    (await owner.ok('taxClasses')).classes.find((one) => one.id === key)!
  it('hold from then on: what was billed before stays', async () => {
    const keep = async (rates: object[]) => {
      const { id: key, name, rates: shown } = await classOf('none')
      return owner.ok('keepTaxClass', {
        body: { id: key, name, rates, shown: { name, rates: shown } },
      })
    }
    await keep([{ name: 'Marsh levy', percent: '2.25' }])
    expect((await classOf('none')).rates).toMatchObject([{ name: 'Marsh levy', percent: '2.25' }])
    await keep([])
  })
  it('a class is added under a code of its own, and one name of a rate is one tax', async () => {
    const name = `Fittings ${id().slice(-4)}`
    const body = { name, rates: [{ name: 'State tax', percent: '4' }] }
    await owner.ok('keepTaxClass', { body })
    const db = await database()
    const [found] = await db.query('SELECT rates FROM tax_classes WHERE name = ?', [name])
    await db.query('DELETE FROM tax_classes WHERE name = ?', [name])
    await db.end()
    const [{ rates }] = found as [{ rates: string | object[] }]
    expect(typeof rates === 'string' ? JSON.parse(rates) : rates).toEqual([
      { code: 'state', name: 'State tax', rate: '0.04' },
    ])
  })
  it('that are seldom so high are kept by whoever is sure', async () => {
    const { name, rates } = await classOf('none')
    const body = {
      ...{ id: 'none', name, shown: { name, rates }, rates: [{ name: 'Levy', percent: '70' }] },
    }
    expect(await owner.send('keepTaxClass', { body })).toMatchObject({
      ...{ status: 409, body: { code: 'odd_rate' } },
    })
    await owner.ok('keepTaxClass', { body: { ...body, sure: true } })
    const late = await owner.send('keepTaxClass', { body: { ...body, rates: [] } })
    expect(late).toMatchObject({ status: 409, body: { code: 'stale', current: { id: 'none' } } })
    const shown = { name, rates: (await classOf('none')).rates }
    await owner.ok('keepTaxClass', { body: { ...body, shown, rates: [] } })
  })
  it('of one name stand in a class once', async () => {
    const rate = { name: 'Levy', percent: '4' }
    const body = { name: 'Twice', rates: [rate, { ...rate, name: 'LEVY' }] }
    expect(await owner.send('keepTaxClass', { body })).toMatchObject({
      ...{ status: 422, body: { errors: [{ path: 'rates[1].name' }] } },
    })
  })
})

describe('a database that has a firm', () => {
  it('begins no other, whatever code is written', async () => {
    expect(await new Client().ok('beginning')).toEqual({
      ...{ waits: false, takenIn: false, countries: [] },
    })
    const client = new Client()
    client.address = '192.0.2.78'
    const body = {
      ...{
        code: '0000-0000-0000',
        firm: 'Another',
        name: 'A',
        email: 'a@demo.test',
        password: PASSWORD,
      },
      ...{ country: 'US', locale: 'en-US', timeZone: 'America/New_York', taxMode: 'added' },
    }
    expect(await client.send('begin', { body })).toMatchObject({
      ...{ status: 409, body: { code: 'begun' } },
    })
  })
  it('keeps the price book that it has', async () => {
    expect(await owner.send('startPriceBook', { body: { hour: '95' } })).toMatchObject({
      ...{ status: 409, body: { code: 'exists' } },
    })
  })
  it('knows what is done, and what a mail comes to', async () => {
    const { steps, tasks } = await office.ok('guide')
    expect(steps.find(({ code }) => code === 'book')?.done).toBe(true)
    expect(tasks.map(({ missing }) => missing)).toEqual([[], [], [], [], []])
    const nell = await add({ role: 'office' })
    const client = new Client()
    const token = await doorOf(nell.email)
    await client.ok('comeIn', { params: { token }, body: { password: PASSWORD } })
    await client.ok('tryMail')
    expect(await mailTo(nell.email, 2)).toContain('this is the mail that you asked for')
  })
})
