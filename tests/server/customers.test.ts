// Who is calling and what is kept of them: matches, details, duplicates and merging, imports, agreements, a person's data.
import ICAL from 'ical.js'
import type { Connection } from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { readCsv } from '../../core/formats/readCsv'
import { CHECKS } from '../../server/ledger/queries'
import type { Answer } from '../../shared/api'
import type { Client } from './client'
import { importPiece } from '../../server/customers/imports'
import { closePool } from '../../server/db/pool'
import { inContext, type Actor } from '../../server/http/context'
import { callerNamed, database, id, setClock, signedIn, somethingToBill } from './client'

let office: Client, books: Client, owner: Client, ines: Client, db: Connection
beforeAll(async () => {
  setClock('2026-11-24T10:21')
  ;[office, books, owner, ines] = await Promise.all([
    signedIn('office'),
    signedIn('books'),
    signedIn('owner'),
    signedIn('technician'),
  ])
  db = await database()
})
afterAll(async () => {
  await closePool()
  await db.end()
})

const newCustomer = (name: string, more: Record<string, unknown> = {}) =>
  office.ok('newCustomer', { body: { id: id(), siteId: id(), name, line1: '1 Test Way', ...more } })
const customer = (customerId: string) => office.ok('customer', { params: { id: customerId } })
const book = async (c: Answer<'caller'>, more: Record<string, unknown> = {}, as = office) =>
  as.send('bookCall', {
    params: { id: id() },
    body: {
      workOrderId: id(),
      visitId: id(),
      customerId: c.customerId,
      siteId: c.sites[0]!.id,
      problem: 'Test work',
      ...more,
    },
  })
/** The checks of npm run check:books that a merge, a bill or an erasure could break. */
async function booksAgree(): Promise<void> {
  const asked = CHECKS.filter((c) =>
    ['every entry balances', 'receivables of each customer', 'each invoice has its entry'].includes(
      c.name,
    ),
  )
  expect(asked).toHaveLength(3)
  for (const { name, sql } of asked) expect((await db.query(sql))[0], name).toEqual([])
}

describe('who is calling', () => {
  const first = async (q: string) => (await office.ok('matches', { query: { q } })).items[0]
  it.each([
    ['halam dairy', 'Hallam Dairy', 'read as “hallam”'],
    ['five five five oh one four two', 'Hallam Dairy', 'telephone'],
    ['penhallow', 'Crossways Estate', 'contact'],
    ['accounts@broadmere.test', 'Broadmere Hospitality', 'mail'],
  ])('%j is %s, because of the %s', async (q, name, why) => {
    const m = await first(q)
    expect(m!.name).toBe(name)
    expect(m!.why.join()).toContain(why)
  })
  it('finds by the serial number of what stands there', async () => {
    const [[row]] = (await db.query(
      'SELECT e.serial, s.customer_id AS customerId FROM equipment e JOIN sites s ON s.id = e.site_id ORDER BY e.id LIMIT 1',
    )) as unknown as [[{ serial: string; customerId: string }]]
    const items = (await office.ok('matches', { query: { q: row.serial } })).items
    expect(items.map((i) => i.customerId)).toContain(row.customerId)
    expect(items[0]!.why).toEqual(['serial number'])
  })
  it('names the site that the words mean, and none where they do not say', async () => {
    const peregrine = await callerNamed(office, 'peregrine')
    const laundry = peregrine.sites.find((s) => s.name === 'Laundry')!
    expect((await first('peregrine laundry'))!.siteId).toBe(laundry.id)
    expect((await first('peregrine cottages'))!.siteId).toBeNull()
  })
  it('knows a new customer, a changed name and a new number at the next question', async () => {
    const made = await newCustomer('Zebedee Quillfeather', { phone: '6075550193' })
    expect((await first('quilfeather'))!.customerId).toBe(made.customerId)
    expect(made.phone).toBe('(607) 555-0193')
    const was = await customer(made.customerId)
    await office.ok('changeCustomer', {
      params: { id: made.customerId },
      body: { version: was.version, name: 'Zebedee Umberfield', phone2: '+44 20 7946 0958' },
    })
    expect((await first('umberfield'))!.customerId).toBe(made.customerId)
    expect((await first('7946 0958'))!.customerId).toBe(made.customerId)
    expect(
      (await office.ok('matches', { query: { q: 'quillfeather' } })).items.filter(
        (i) => i.customerId === made.customerId,
      ),
    ).toEqual([])
  })
  it('says what matters: a stop, the limit, the dog', async () => {
    const marrow = await callerNamed(office, 'marrow son joiners')
    expect(marrow.notes[0]).toBe('Stop work: Unpaid for over 60 days: ask the owner first')
    expect((await callerNamed(office, 'hallam dairy')).notes).toContain(
      'Dog loose; ask for the yard gate',
    )
  })
  it('warns while somebody is entered who is known already', async () => {
    const { items } = await office.ok('alike', {
      body: { name: 'Tundeh Oduya', phone: '607 555 0119' },
    })
    expect(items[0]!.reasons).toContain('same telephone number')
    expect(items.map((i) => i.name)).toContain('Tunde Oduya')
    expect((await office.ok('alike', { body: { name: 'Nobody Of That Name' } })).items).toEqual([])
  })
  it('takes names from right to left, long ones up to their limit, and says when one is too long', async () => {
    const made = await newCustomer('شركة المياه النقية')
    expect((await first('المياه'))!.customerId).toBe(made.customerId)
    expect(
      await office.send('newCustomer', {
        body: { id: id(), siteId: id(), name: 'x'.repeat(300), line1: '1 Test Way' },
      }),
    ).toMatchObject({
      status: 422,
      body: { errors: [{ path: 'name', message: 'Not more than 160 signs.' }] },
    })
  })
  it('a technician sees no other people’s customers, sites, files or calls by their identifiers', async () => {
    const c = await callerNamed(office, 'hallam dairy')
    for (const name of ['customer', 'caller', 'call'] as const)
      expect((await ines.send(name, { params: { id: c.customerId } })).status).toBe(403)
    expect((await ines.send('file', { params: { id: id() } })).status).toBe(403)
  })
})

describe('details', () => {
  it('keeps terms, tags, own prices, limit, notes and consent, and the page shows them', async () => {
    const made = await newCustomer('Details Farm')
    const c = await customer(made.customerId)
    const labour = (await office.ok('priceBook', { query: { kind: 'labour' } })).items[0]!
    const got = await office.ok('changeCustomer', {
      params: { id: c.id },
      body: {
        version: c.version,
        terms: { kind: 'month_end', days: 15 },
        tags: ['farm', 'weekends'],
        creditLimit: '250.00',
        printedNote: 'Thank you, neighbour.',
        officeNote: 'Shoes off',
        mailConsent: 'no',
        ownPrices: [{ entryId: labour.id, price: '77.00' }],
      },
    })
    expect(got).toMatchObject({
      termsInWords: 'end of month + 15 days',
      tags: ['farm', 'weekends'],
      creditLimit: { amount: '250.00' },
      printedNote: 'Thank you, neighbour.',
      mailConsent: 'no',
    })
    expect(got.ownPrices).toMatchObject([{ price: '77.00' }])
    expect(got.history[0]!.text).toContain('consent to mail')
    // Their own price stands over the book on their work orders.
    const workOrderId = id()
    await book(made, { workOrderId })
    const { lines } = await office.ok('addLines', {
      params: { id: workOrderId },
      body: { lines: [{ id: id(), entryId: labour.id, quantity: '1', kind: 'labour' }] },
    })
    expect(lines[0]).toMatchObject({
      unitPrice: '77.00',
      net: { amount: '77.00' },
      discount: { amount: '0.00' },
    })
    expect(lines[0]!.bookPrice).not.toBe('77.00')
    const bill = await office.ok('makeInvoice', {
      params: { id: workOrderId },
      body: { id: id(), to: [] },
    })
    expect(bill.paper.note).toBe('Thank you, neighbour.')
    expect(bill.paper.dueOn).toBe('2026-12-15')
  })
  it('charges tax again when the certificate has run out', async () => {
    const made = await newCustomer('Expired School')
    const c = await customer(made.customerId)
    await office.ok('changeCustomer', {
      params: { id: c.id },
      body: { version: c.version, exempt: true, certificate: 'EX-1', exemptUntil: '2026-11-23' },
    })
    expect((await office.ok('caller', { params: { id: c.id } })).exempt).toContain('ran out')
    const workOrderId = id()
    await book(made, { workOrderId })
    expect((await office.ok('workOrder', { params: { id: workOrderId } })).customer.exempt).toBe(
      false,
    )
  })
  it('takes the exemption and its certificate from one moment, the day of the invoice, whatever was true at the booking', async () => {
    const billed = async (name: string, changes: [object, object]) => {
      const made = await newCustomer(name)
      const change = async (body: object) =>
        office.ok('changeCustomer', {
          params: { id: made.customerId },
          body: { version: (await customer(made.customerId)).version, ...body },
        })
      await change(changes[0])
      const workOrderId = id()
      await book(made, { workOrderId })
      await office.ok('addLines', {
        params: { id: workOrderId },
        body: {
          lines: [
            { id: id(), name: 'Work', kind: 'part', quantity: '1', unitPrice: '100', done: true },
          ],
        },
      })
      await change(changes[1])
      const { paper } = await office.ok('makeInvoice', {
        params: { id: workOrderId },
        body: { id: id(), to: [] },
      })
      return { tax: paper.tax.amount, certificate: paper.exemptCertificate }
    }
    const exempt = { exempt: true, certificate: 'EX-2' }
    const taxed = { exempt: false, certificate: '' }
    expect(await billed('Exempt at the booking', [exempt, taxed])).toEqual({
      tax: '6.50',
      certificate: '',
    })
    expect(await billed('Exempt at the invoice', [taxed, exempt])).toEqual({
      tax: '0.00',
      certificate: 'EX-2',
    })
  })
  it('sites, contacts, equipment: added, changed, stale changes sent back, taken out', async () => {
    const made = await newCustomer('Parts & Places')
    const siteId = id()
    let c = await office.ok('newSite', {
      body: {
        id: siteId,
        customerId: made.customerId,
        name: 'Mill',
        line1: '2 Mill Race',
        town: 'Otterfall',
        postcode: '04103',
      },
    })
    expect(c.sites.find((s) => s.id === siteId)).toMatchObject({ territory: 'Middle county' })
    expect(c.sites.find((s) => s.id === siteId)!.lat).toBeCloseTo(42.76, 1)
    c = await office.ok('newEquipment', {
      body: {
        id: id(),
        siteId,
        category: 'pump',
        make: 'Varn',
        serial: 'ZZ-1',
        warrantyUntil: '2026-11-23',
        nextServiceOn: '2026-12-01',
      },
    })
    const e = c.equipment[0]!
    expect(e.state).toBe('out of warranty, service due Tue, Dec 1, 2026')
    c = await office.ok('changeEquipment', {
      params: { id: e.id },
      body: { version: e.version, warrantyUntil: '2027-01-01' },
    })
    expect(c.equipment[0]!.state).toContain('in warranty until')
    expect(
      await office.send('changeEquipment', {
        params: { id: e.id },
        body: { version: e.version, make: 'Ostra' },
      }),
    ).toMatchObject({ status: 409, body: { code: 'stale' } })
    expect(
      (
        await office.send('newContact', {
          body: {
            id: id(),
            customerId: made.customerId,
            siteId: (await callerNamed(office, 'wren cottages')).sites[0]!.id,
            name: 'K',
          },
        })
      ).status,
    ).toBe(404)
    c = await office.ok('newContact', {
      body: {
        id: id(),
        customerId: made.customerId,
        siteId,
        name: 'Cora Keeper',
        role: 'caretaker',
        phone: '6075550194',
      },
    })
    expect(c.contacts[0]!.phone).toBe('(607) 555-0194')
    c = await office.ok('changeContact', {
      params: { id: c.contacts[0]!.id },
      body: { version: 1, removed: true },
    })
    expect(c.contacts).toEqual([])
    expect(
      (await office.ok('sites', { query: { q: 'mill race places' } })).items.map((s) => s.id),
    ).toEqual([siteId])
    expect(
      (await office.ok('sites', { query: { territory: 'The marsh', limit: '200' } })).items.every(
        (s) => s.postcode === '04115',
      ),
    ).toBe(true)
  })
  it('keeps a picture by what it is, not by its name', async () => {
    const made = await newCustomer('Picture Person')
    const png =
      'data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=='
    const fileId = id()
    await office.ok('addFile', {
      body: { id: fileId, customerId: made.customerId, name: 'card.png', data: png },
    })
    const file = await office.raw('GET', `/api/v1/files/${fileId}`)
    expect([file.status, file.headers.get('content-type')]).toEqual([200, 'image/png'])
    expect(
      await office.send('addFile', {
        body: {
          id: id(),
          customerId: made.customerId,
          name: 'card.png',
          data: Buffer.from('<svg onload=alert(1)>').toString('base64'),
        },
      }),
    ).toMatchObject({ status: 422, body: { code: 'not_a_picture' } })
  })
  it('the firm’s own fields are kept, searched and exported', async () => {
    const { fields } = await office.ok('setUp')
    const depth = fields.find((f) => f.name === 'Well depth, feet')!
    const made = await newCustomer('Custom Fields & Co')
    const s = made.sites[0]!
    await office.ok('changeSite', {
      params: { id: s.id },
      body: { version: s.version, custom: { [depth.id]: '312' } },
    })
    expect((await office.ok('sites', { query: { q: '312' } })).items.map((x) => x.id)).toContain(
      s.id,
    )
    const csv = readCsv((await books.raw('GET', '/api/v1/export/sites.csv')).text)
    expect(
      csv.rows.find((r) => r[0] === 'Custom Fields & Co')![csv.head.indexOf('Well depth, feet')],
    ).toBe('312')
    const fieldId = id()
    expect(
      await office.send('keepField', {
        body: { id: fieldId, subject: 'invoice', name: 'Colour', kind: 'choice', choices: ['red'] },
      }),
    ).toMatchObject({ status: 422, body: { errors: [{ path: 'choices' }] } })
    await office.ok('keepField', {
      body: {
        id: fieldId,
        subject: 'work_order',
        name: 'Colour',
        kind: 'choice',
        choices: ['red', 'blue'],
      },
    })
    const shown = {
      ...{ subject: 'work_order', name: 'Colour', kind: 'choice', choices: ['red', 'blue'] },
      retired: false,
    }
    expect(
      (
        await office.send('keepField', {
          body: { id: fieldId, subject: 'work_order', name: 'Colour', kind: 'text', shown },
        })
      ).body.code,
    ).toBe('field_in_use')
    const { workOrderId } = await somethingToBill(office)
    expect(
      (
        await office.send('fillField', {
          body: { fieldId, subjectId: workOrderId, value: 'green' },
        })
      ).status,
    ).toBe(422)
    await office.ok('fillField', { body: { fieldId, subjectId: workOrderId, value: 'blue' } })
    expect(
      (await office.ok('workOrder', { params: { id: workOrderId } })).fields.find(
        (f) => f.id === fieldId,
      )!.value,
    ).toBe('blue')
  })
  it('a billing address that is missed at the bill is written there, printed, and kept', async () => {
    const made = await newCustomer('Nowhere Nora')
    const { version } = await customer(made.customerId)
    await office.ok('changeCustomer', {
      params: { id: made.customerId },
      body: { version, line1: '', town: '', postcode: '' },
    })
    const workOrderId = id()
    await book(made, { workOrderId })
    const params = { id: workOrderId }
    expect((await office.ok('workOrder', { params })).customer.address).toBe('')
    const lines = [{ id: id(), name: 'Work', kind: 'other', quantity: '1', unitPrice: '10.00' }]
    await office.ok('addLines', { params, body: { lines } })
    const billing = { line1: '7 Weir Street', town: 'Otterfall', postcode: '04101' }
    const { paper } = await office.ok('makeInvoice', { params, body: { id: id(), billing } })
    expect(paper.buyer.address).toEqual(['7 Weir Street', 'Otterfall 04101'])
    expect(await customer(made.customerId)).toMatchObject(billing)
    const none = await office.send('makeInvoice', {
      params,
      body: { id: id(), billing: { ...billing, line1: '' } },
    })
    expect(none.body.errors?.[0]?.path).toBe('billing.line1')
  })
  it('what was written to a customer is read on their page, theirs alone', async () => {
    const made = await newCustomer('Written Wanda', { email: 'wanda@example.com' })
    const workOrderId = id()
    await book(made, { workOrderId })
    const params = { id: workOrderId }
    const lines = [{ id: id(), name: 'Work', kind: 'other', quantity: '1', unitPrice: '10.00' }]
    await office.ok('addLines', { params, body: { lines } })
    const body = { id: id(), to: ['wanda@example.com'], body: 'Thank you, Wanda.' }
    await office.ok('makeInvoice', { params, body })
    const { items } = await office.ok('messages', { query: { customerId: made.customerId } })
    expect(items).toMatchObject([
      { customer: 'Written Wanda', body: expect.stringMatching(/^Thank you, Wanda\./) as string },
    ])
  })
  it('a prospect that is given to somebody is theirs to look after, once', async () => {
    const made = await newCustomer('Prospect Pia', { prospect: true })
    const { person } = await office.ok('session')
    const give = async () => {
      const { version } = await customer(made.customerId)
      const params = { id: made.customerId }
      await office.ok('changeCustomer', { params, body: { version, assignedTo: person.id } })
    }
    await give()
    await give()
    const { items } = await office.ok('tasks', {
      query: { about: 'customer', subjectId: made.customerId },
    })
    expect(items.map(({ ownerId, what }) => [ownerId, what])).toEqual([
      [person.id, 'Look after this prospect: visit or quote'],
    ])
  })
  it('a work order keeps the details that it was made with, says what changed, and carries it over on purpose', async () => {
    const made = await newCustomer('Moving Maud', { phone: '6075550195', email: 'old@example.com' })
    const workOrderId = id()
    await book(made, { workOrderId })
    const c = await customer(made.customerId)
    await office.ok('changeCustomer', {
      params: { id: c.id },
      body: { version: c.version, name: 'Moved Maud', email: 'new@example.com' },
    })
    const w = await office.ok('workOrder', { params: { id: workOrderId } })
    // Everybody sees it as it was made.
    expect(w.customer).toMatchObject({ name: 'Moving Maud', email: 'old@example.com' })
    expect(w.changedDetails).toEqual([
      { detail: 'name', was: 'Moving Maud', is: 'Moved Maud' },
      { detail: 'email', was: 'old@example.com', is: 'new@example.com' },
    ])
    await office.ok('addLines', {
      params: { id: workOrderId },
      body: {
        lines: [
          { id: id(), name: 'Work', kind: 'other', quantity: '1', unitPrice: '10.00' },
          {
            id: id(),
            name: 'Later',
            kind: 'other',
            quantity: '1',
            unitPrice: '20.00',
            done: false,
          },
        ],
      },
    })
    expect(
      (await office.ok('makeInvoice', { params: { id: workOrderId }, body: { id: id(), to: [] } }))
        .paper.buyer.name,
    ).toBe('Moving Maud')
    const after = await office.ok('carryOver', { params: { id: workOrderId } })
    expect(after.changedDetails).toEqual([])
    expect(after.customer).toMatchObject({ name: 'Moved Maud', email: 'new@example.com' })
    await office.ok('changeLine', {
      params: { id: after.lines.find((l) => !l.done)!.id },
      body: { version: 1, done: true },
    })
    expect(
      (await office.ok('makeInvoice', { params: { id: workOrderId }, body: { id: id(), to: [] } }))
        .paper.buyer.name,
    ).toBe('Moved Maud')
    expect((await office.send('carryOver', { params: { id: workOrderId } })).body.code).toBe(
      'nothing_changed',
    )
  })
})

describe('stop-work and limits', () => {
  it('books only with a reason, which the history keeps', async () => {
    const marrow = await callerNamed(office, 'marrow son joiners')
    expect(await book(marrow)).toMatchObject({
      status: 409,
      body: { code: 'stop_work', errors: [{ path: 'reason' }] },
    })
    const workOrderId = id()
    expect((await book(marrow, { workOrderId, reason: 'owner rang' })).status).toBe(200)
    expect(
      (await office.ok('workOrder', { params: { id: workOrderId } })).history
        .map((h) => h.text)
        .join(),
    ).toContain('in spite of the stop on work: owner rang')
  })
  it('counts what is owed against the limit', async () => {
    const made = await newCustomer('Limited Lou')
    const c = await customer(made.customerId)
    await office.ok('changeCustomer', {
      params: { id: c.id },
      body: { version: c.version, creditLimit: '50.00' },
    })
    const workOrderId = id()
    expect((await book(made, { workOrderId })).status).toBe(200)
    await office.ok('addLines', {
      params: { id: workOrderId },
      body: {
        lines: [{ id: id(), name: 'Work', kind: 'other', quantity: '1', unitPrice: '60.00' }],
      },
    })
    await office.ok('makeInvoice', { params: { id: workOrderId }, body: { id: id(), to: [] } })
    expect((await office.ok('caller', { params: { id: c.id } })).overLimit).toBe(true)
    expect((await book(made)).body.code).toBe('stop_work')
  })
  it('is owed what is open less credits, for a caller, a list, the limit and Unpaid alike', async () => {
    const made = await newCustomer('Halfway Hale')
    const c = await customer(made.customerId)
    await office.ok('changeCustomer', {
      params: { id: c.id },
      body: { version: c.version, creditLimit: '50.00' },
    })
    const credit = (amount: string) =>
      office.ok('pay', {
        body: {
          id: id(),
          customerId: c.id,
          method: 'transfer',
          amount,
          invoiceIds: [],
          mayLeaveCredit: true,
        },
      })
    const owed = async () => {
      const [caller, paper, owing, list] = [
        await office.ok('caller', { params: { id: c.id } }),
        await customer(c.id),
        await office.ok('owing', { params: { id: c.id } }),
        await office.ok('customers', { query: { q: 'Halfway Hale', owing: 'yes' } }),
      ]
      expect([paper.owed, owing.owed, paper.credits, owing.credits]).toEqual([
        caller.owed,
        caller.owed,
        caller.credits,
        caller.credits,
      ])
      return [
        caller.owed.amount,
        caller.credits.amount,
        caller.overLimit,
        list.items.map((i) => i.owed.amount),
      ]
    }
    await credit('25.00')
    expect(await owed()).toEqual(['-25.00', '25.00', false, []])
    const workOrderId = id()
    expect((await book(made, { workOrderId })).status).toBe(200)
    await office.ok('addLines', {
      params: { id: workOrderId },
      body: {
        lines: [{ id: id(), name: 'Work', kind: 'other', quantity: '1', unitPrice: '60.00' }],
      },
    })
    const invoice = await office.ok('makeInvoice', {
      params: { id: workOrderId },
      body: { id: id(), to: [] },
    })
    const open = Number(invoice.open.amount)
    expect(await owed()).toEqual([(open - 25).toFixed(2), '25.00', false, [(open - 25).toFixed(2)]])
    expect((await book(made)).status).toBe(200)
    // Money that names no invoice pays the oldest; the credit from before still waits.
    await credit((open - 25).toFixed(2))
    expect(await owed()).toEqual(['0.00', '25.00', false, []])
  })
})

describe('two customers that are one', () => {
  it('are found by the sweep, and not again once somebody said that they are two', async () => {
    const pairOf = async () =>
      (await office.ok('duplicates')).items.find(
        (p) => [p.first.name, p.second.name].sort().join() === 'Fenn Orchard,Fenn Orchards',
      )
    const pair = await pairOf()
    expect(pair!.reasons).toEqual(['same telephone number', 'nearly the same name'])
    await office.ok('notDuplicates', {
      params: { id: pair!.first.id },
      body: { otherId: pair!.second.id },
    })
    expect(await pairOf()).toBeUndefined()
  })
  it('merge with everything they have, balances too, and come apart again with what happened since', async () => {
    const keep = await newCustomer('Kept Kestrel', { phone: '6075550196' })
    const other = await newCustomer('K. Kestrel', {
      phone: '6075550197',
      email: 'kestrel@example.com',
      phone2: '6075550198',
    })
    const workOrderId = id()
    const invoiceId = id()
    await book(other, { workOrderId })
    await office.ok('addLines', {
      params: { id: workOrderId },
      body: {
        lines: [{ id: id(), name: 'Work', kind: 'other', quantity: '1', unitPrice: '100.00' }],
      },
    })
    const bill = await office.ok('makeInvoice', {
      params: { id: workOrderId },
      body: { id: invoiceId, to: [] },
    })
    await office.ok('pay', {
      body: {
        id: id(),
        customerId: other.customerId,
        method: 'cash',
        amount: '30.00',
        invoiceIds: [invoiceId],
      },
    })
    const credit = id()
    await office.ok('pay', {
      body: {
        id: credit,
        customerId: keep.customerId,
        method: 'transfer',
        amount: '12.00',
        invoiceIds: [],
        mayLeaveCredit: true,
      },
    })
    const owedBefore = (await customer(other.customerId)).owed.amount

    const preview = await office.ok('mergePreview', {
      params: { id: keep.customerId },
      query: { other: other.customerId },
    })
    expect(preview.moves.map((m) => m.what).sort()).toEqual([
      'invoice',
      'payment',
      'site',
      'work order',
    ])
    const mergeId = id()
    const merged = await office.ok('merge', {
      params: { id: keep.customerId },
      body: { id: mergeId, otherId: other.customerId, take: [] },
    })
    expect(merged).toMatchObject({
      name: 'Kept Kestrel',
      phone: '(607) 555-0196',
      phone2: '(607) 555-0198',
      email: 'kestrel@example.com',
      owed: { amount: (Number(owedBefore) - 12).toFixed(2) },
      credits: { amount: '12.00' },
    })
    // The number that had no place left is a contact; the paper still says who it was sent to.
    expect(merged.contacts).toMatchObject([{ name: 'K. Kestrel', phone: '(607) 555-0197' }])
    expect((await office.ok('invoice', { params: { id: invoiceId } })).paper).toEqual(bill.paper)
    expect(merged.history.map((h) => h.text).join()).toContain(`Invoice ${bill.paper.number} made`)
    expect(
      (await office.ok('matches', { query: { q: '555 0197' } })).items.map((m) => m.customerId),
    ).toContain(keep.customerId)
    expect(
      (await office.ok('customers', { query: { q: 'k kestrel' } })).items.map((c) => c.id),
    ).not.toContain(other.customerId)
    await booksAgree()

    // After the merge: a payment on the moved invoice, a change of a field that the merge had filled.
    await office.ok('pay', {
      body: {
        id: id(),
        customerId: keep.customerId,
        method: 'cheque',
        reference: '77',
        amount: '20.00',
        invoiceIds: [invoiceId],
      },
    })
    await office.ok('changeCustomer', {
      params: { id: keep.customerId },
      body: { version: merged.version, email: 'chosen@example.com' },
    })
    await booksAgree()
    const apart = await office.ok('undoMerge', { params: { id: mergeId } })
    expect(apart).toMatchObject({
      phone2: '',
      email: 'chosen@example.com',
      contacts: [],
      owed: { amount: '-12.00' },
    })
    const back = await customer(other.customerId)
    expect(Number(back.owed.amount)).toBe(Number(owedBefore) - 20)
    expect(back.work.map((w) => w.id)).toEqual([workOrderId])
    expect((await office.send('undoMerge', { params: { id: mergeId } })).body.code).toBe(
      'undone_already',
    )
    await booksAgree()
  })
  it('two people who merge the same pair at once: one does, one is told', async () => {
    const [a, b] = [await newCustomer('Twice One'), await newCustomer('Twice Two')]
    const replies = await Promise.all(
      [office, owner].map((who, i) =>
        who.send('merge', {
          params: { id: i ? b.customerId : a.customerId },
          body: { id: id(), otherId: i ? a.customerId : b.customerId },
        }),
      ),
    )
    expect(replies.map((r) => r.status).sort()).toEqual([200, 409])
  })
  it('refuses itself, the merged, and people who may not', async () => {
    const a = await newCustomer('Self Merge')
    expect(
      (
        await office.send('merge', {
          params: { id: a.customerId },
          body: { id: id(), otherId: a.customerId },
        })
      ).status,
    ).toBe(422)
    expect(
      (
        await books.send('merge', {
          params: { id: a.customerId },
          body: { id: id(), otherId: id() },
        })
      ).status,
    ).toBe(403)
  })
})

describe('import', () => {
  const columns = ['name', 'phone', 'email', 'billing_address', 'billing_town', null]
  const rows = [
    ['Imported One', '6075550181', 'one@example.com', '1 Row Lane', 'Otterfall', 'x'],
    ['', '', '', '', '', ''],
    ['Imported Two', '', 'not a mail', '', '', ''],
    ['Hallam Dairy', '(607) 555-0142', '', '', '', ''],
    ['Imported One', '607 555 0181', '', '', '', ''],
  ]
  const piece = (importId: string, dry: boolean, more: object = {}) =>
    office.send('importPiece', {
      params: { id: importId },
      body: { fileName: 'list.csv', dry, columns, rows, first: 2, ...more },
    })
  const count = async () => (await office.ok('customers')).total
  it('a dry run whose pieces reach two processes knows the rows of both', async () => {
    const importId = id()
    const at = (first: number, rows: string[][]) => ({
      fileName: 'twice.csv',
      dry: true,
      skipDuplicates: true,
      columns: ['name', 'phone'] as ('name' | 'phone')[],
      rows,
      first,
    })
    const there = async (first: number, rows: string[][]) =>
      (
        await office.ok('importPiece', { params: { id: importId }, body: at(first, rows) })
      ).rows.map((r) => r.state)
    const actor: Actor = { ...(await office.ok('session')).person, ownRole: null, grants: {} }
    const here = (first: number, rows: string[][]) =>
      inContext({ actor, ip: '' }, async (ctx) =>
        (await importPiece(ctx, importId, at(first, rows))).rows.map((r) => r.state),
      )
    expect(await there(2, [['Twofold Process', '6075550190']])).toEqual(['new'])
    expect(
      await here(3, [
        ['Twofold Process', '6075550190'],
        ['Threefold Process', '6075550191'],
      ]),
    ).toEqual(['duplicate', 'new'])
    expect(await there(5, [['Threefold Process', '6075550191']])).toEqual(['duplicate'])
  })
  it('says row by row what is wrong and who is known, and changes nothing while it is dry', async () => {
    const before = await count()
    const got = (await piece(id(), true)).body as unknown as Answer<'importPiece'>
    expect(got.rows.map((r) => [r.row, r.state])).toEqual([
      [2, 'new'],
      [3, 'wrong'],
      [4, 'wrong'],
      [5, 'duplicate'],
      [6, 'duplicate'],
    ])
    expect(got.rows[2]!.problems).toEqual([
      { field: 'email', message: '“not a mail” is not a mail address.' },
    ])
    expect(got.rows[3]!.of).toContain('Hallam Dairy: same telephone number')
    expect(got).toMatchObject({ added: 1, skipped: 4 })
    expect(await count()).toBe(before)
  })
  it('takes in for good, once for a repeated piece, and is taken back; what was used since stays', async () => {
    const before = await count()
    const importId = id()
    const body = {
      fileName: 'list.csv',
      dry: false,
      columns,
      first: 2,
      rows: [rows[0], ['Imported Three', '6075550182', '', '3 Row Lane', 'Larkmoor', '']],
    }
    const key = id()
    const [one, two] = [
      await office.send('importPiece', { params: { id: importId }, body, key }),
      await office.send('importPiece', { params: { id: importId }, body, key }),
    ]
    expect(one.body).toEqual(two.body)
    expect(await count()).toBe(before + 2)
    const three = await callerNamed(office, 'imported three')
    expect(three).toMatchObject({ phone: '(607) 555-0182', sites: [{ line1: '3 Row Lane' }] })
    await book(three)
    expect(await office.ok('undoImport', { params: { id: importId } })).toEqual({
      removed: 1,
      kept: 1,
    })
    expect(await count()).toBe(before + 1)
    expect(
      (await office.ok('matches', { query: { q: 'imported one' } })).items.filter(
        (i) => i.name === 'Imported One',
      ),
    ).toEqual([])
    expect((await office.send('undoImport', { params: { id: importId } })).body.code).toBe(
      'undone_already',
    )
    expect((await piece(importId, false)).body.code).toBe('undone_already')
  })
  it('a piece that was rolled back and tried again finds its rows new, and loses none', async () => {
    const importId = id()
    const send = (rows: string[][]) =>
      office.send('importPiece', {
        params: { id: importId },
        body: { fileName: 'again.csv', dry: false, first: 2, columns: ['name', 'phone'], rows },
      })
    await db.query(
      'CREATE TRIGGER refuse_import BEFORE INSERT ON imports FOR EACH ROW SIGNAL SQLSTATE "45000" SET MESSAGE_TEXT = "the disk is full"',
    )
    try {
      expect((await send([['Again Alba', '6075550183']])).status).toBe(500)
    } finally {
      await db.query('DROP TRIGGER refuse_import')
    }
    expect((await send([['Again Alba', '6075550183']])).body).toMatchObject({
      added: 1,
      skipped: 0,
    })
    expect((await send([['Again Alba', '6075550183']])).body).toMatchObject({
      added: 0,
      skipped: 1,
    })
    await office.ok('undoImport', { params: { id: importId } })
  })
  it('adds further sites and contacts to a customer of exactly that name, once, and takes them away again', async () => {
    const importId = id()
    const before = await callerNamed(office, 'peel daughters')
    const send = async (dry: boolean) =>
      (
        await office.send('importPiece', {
          params: { id: importId },
          body: {
            fileName: 'sites.csv',
            dry,
            first: 2,
            columns: ['name', 'site_name', 'site_address', 'site_town', 'contact_name'],
            rows: [
              ['Peel & Daughters', 'Boiler house', '9 Row Lane', 'Larkmoor', 'Bo Peel'],
              ['Peel & Daughters', 'Boiler house', '9 Row Lane', 'Larkmoor', 'Bo Peel'],
              ['Fresh Firm', 'A', '1 New Row', '', ''],
              ['Fresh Firm', 'B', '2 New Row', '', ''],
            ],
          },
        })
      ).body as unknown as Answer<'importPiece'>
    for (const dry of [true, false]) {
      const got = await send(dry)
      expect(got.rows.map((r) => r.state)).toEqual(['more', 'duplicate', 'new', 'more'])
      expect(got).toMatchObject({ added: 1, skipped: 1 })
    }
    const after = await callerNamed(office, 'peel daughters')
    expect([after.sites.length, after.contacts.at(-1)!.name]).toEqual([
      before.sites.length + 1,
      'Bo Peel',
    ])
    expect((await callerNamed(office, 'fresh firm')).sites.map((s) => s.name).sort()).toEqual([
      'A',
      'B',
    ])
    expect(await office.ok('undoImport', { params: { id: importId } })).toEqual({
      removed: 1,
      kept: 0,
    })
    expect((await callerNamed(office, 'peel daughters')).sites.length).toBe(before.sites.length)
    expect(
      (await office.ok('customer', { params: { id: before.customerId } })).contacts.map(
        (k) => k.name,
      ),
    ).not.toContain('Bo Peel')
  })
  it('refuses what is too much, what has no name, and what has two', async () => {
    expect(
      (await piece(id(), true, { rows: Array.from({ length: 501 }, () => ['x']) })).status,
    ).toBe(422)
    expect((await piece(id(), true, { columns: ['phone'] })).body.errors).toMatchObject([
      { path: 'columns' },
    ])
    expect((await piece(id(), true, { columns: ['name', 'name'] })).status).toBe(422)
    expect(
      (await office.raw('POST', `/api/v1/imports/${id()}`, 'x'.repeat(4_000_000))).status,
    ).toBe(413)
  })
})

describe('export', () => {
  it('cards open in an independent parser (ical.js), with the numbers that we show', async () => {
    const reply = await office.raw('GET', '/api/v1/export/contacts.vcf')
    expect(reply.headers.get('content-type')).toContain('text/vcard')
    const cards = ICAL.parse(reply.text) as unknown as [
      string,
      [string, object, string, unknown][],
    ][]
    const hallam = cards.find((c) => c[1].some((p) => p[0] === 'fn' && p[3] === 'Hallam Dairy'))!
    expect(hallam[1].find((p) => p[0] === 'tel')![3]).toBe('(607) 555-0142')
    expect(cards.length).toBeGreaterThan(140)
  })
  it('what we write as CSV we can read back as an import', async () => {
    const table = readCsv((await books.raw('GET', '/api/v1/export/customers.csv')).text)
    expect(table.head.slice(0, 3)).toEqual(['name', 'phone', 'phone2'])
    expect(table.rows.find((r) => r[0] === 'Marrow & Son, joiners')).toBeTruthy()
  })
})

describe('care agreements', () => {
  it('proposes what is due by territory and month, makes the work orders, and moves the next visit on', async () => {
    const due = await office.ok('agreements', { query: { due: '2026-12', limit: '200' } })
    const all = await office.ok('agreements', { query: { limit: '200' } })
    expect(due.total).toBeGreaterThan(2)
    expect(due.total).toBeLessThan(all.total)
    expect(due.items.every((a) => a.visitDueOn! <= '2026-12-31')).toBe(true)
    const area = due.items.find((a) => a.territory)!.territory
    const there = await office.ok('agreements', {
      query: { due: '2026-12', territory: area, limit: '200' },
    })
    expect(there.items.every((a) => a.territory === area)).toBe(true)
    const chosen = due.items.filter((a) => !a.booked && a.site).slice(0, 2)
    const body = {
      items: chosen.map((a) => ({ agreementId: a.id, workOrderId: id(), visitId: id() })),
    }
    const { made, skipped } = await office.ok('bookDueVisits', { body })
    expect([made.length, skipped.length]).toEqual([2, 0])
    const work = await office.ok('workOrder', { params: { id: body.items[0]!.workOrderId } })
    expect(work).toMatchObject({ kind: 'service', state: 'needs_slot' })
    const again = await office.ok('bookDueVisits', {
      body: { items: chosen.map((a) => ({ agreementId: a.id, workOrderId: id(), visitId: id() })) },
    })
    expect(again.made).toEqual([])
    expect(again.skipped[0]!.why).toMatch(/is waiting already|no visit is due/)
  })
  it('a new one has its visits and level; renewing adds a year, once', async () => {
    const made = await newCustomer('Agreeable Ann')
    const { items } = await office.ok('plans')
    const a = await office.ok('newAgreement', {
      body: {
        id: id(),
        customerId: made.customerId,
        siteId: made.sites[0]!.id,
        planId: items.find((p) => p.visitsAYear === 2)!.id,
        startsOn: '2026-11-24',
      },
    })
    expect(a).toMatchObject({ endsOn: '2027-11-23', visitDueOn: '2027-05-24', state: 'in force' })
    expect((await customer(made.customerId)).level).toBe('Care agreement')
    const renewed = await office.ok('renewAgreement', {
      params: { id: a.id },
      body: { version: a.version },
    })
    expect(renewed.endsOn).toBe('2028-11-23')
    expect(
      (await office.send('renewAgreement', { params: { id: a.id }, body: { version: a.version } }))
        .status,
    ).toBe(409)
  })
})

describe('the firm’s own words and wishes', () => {
  it('bills the year of an agreement once, as an invoice of its own, and the books agree', async () => {
    const made = await newCustomer('Yearly Yara', { email: 'yara@example.com' })
    const { items } = await office.ok('plans')
    const plan = items.find((p) => p.visitsAYear === 1)!
    const a = await office.ok('newAgreement', {
      body: {
        id: id(),
        customerId: made.customerId,
        siteId: made.sites[0]!.id,
        planId: plan.id,
        startsOn: '2026-11-24',
      },
    })
    const ids = { workOrderId: id(), lineId: id() }
    await office.ok('billAgreement', { params: { id: a.id }, body: ids })
    // Asked for again before it is billed, it is the one that waits.
    const again = { workOrderId: id(), lineId: id() }
    expect(
      (await office.ok('billAgreement', { params: { id: a.id }, body: again })).workOrderId,
    ).toBe(ids.workOrderId)
    // It waits to be billed, and is looked at, like any work.
    const { state, bill } = await office.ok('workOrder', { params: { id: ids.workOrderId } })
    expect([state, Number(bill.net.amount)]).toEqual(['to_bill', Number(plan.price)])
    const invoice = await office.ok('makeInvoice', {
      params: { id: ids.workOrderId },
      body: { id: id() },
    })
    expect(Number(invoice.paper.net.amount)).toBe(Number(plan.price))
    expect(invoice.paper.lines[0]!.name).toContain('2026-11-24 to 2027-11-23')
    expect((await office.ok('workOrder', { params: { id: ids.workOrderId } })).state).toBe('billed')
    expect(
      (
        await office.send('billAgreement', {
          params: { id: a.id },
          body: { workOrderId: id(), lineId: id() },
        })
      ).body.code,
    ).toBe('billed_already')
    await booksAgree()
  })
  it('does not remind by mail those who asked not to be written to', async () => {
    const { workOrderId, customerId } = await somethingToBill(office)
    await office.ok('makeInvoice', { params: { id: workOrderId }, body: { id: id(), to: [] } })
    const c = await customer(customerId)
    await office.ok('changeCustomer', {
      params: { id: customerId },
      body: { version: c.version, mailConsent: 'no' },
    })
    expect(
      (
        await books.send('remind', {
          params: { id: customerId },
          body: { id: id(), to: ['someone@example.com'] },
        })
      ).body.code,
    ).toBe('opted_out')
    await office.ok('changeCustomer', {
      params: { id: customerId },
      body: { version: c.version + 1, mailConsent: 'yes' },
    })
    expect(
      (
        await books.send('remind', {
          params: { id: customerId },
          body: { id: id(), to: ['someone@example.com'] },
        })
      ).status,
    ).toBe(200)
  })
  it('says the states of work in the firm’s own words; the meaning stays', async () => {
    await office.ok('keepStateLabels', {
      body: {
        labels: [
          { state: 'to_bill', label: 'ready to bill' },
          { state: 'closed', label: '' },
        ],
      },
    })
    const { company } = await books.ok('session')
    expect(company.stateLabels).toEqual({ to_bill: 'ready to bill' })
    expect(
      (await office.ok('workOrders', { query: { state: 'to_bill' } })).items.every(
        (w) => w.state === 'to_bill',
      ),
    ).toBe(true)
    // A word for another state leaves this one as it is.
    const call = (state: 'closed' | 'to_bill', label: string) =>
      office.ok('keepStateLabels', { body: { labels: [{ state, label }] } })
    await call('closed', 'at rest')
    expect((await books.ok('session')).company.stateLabels).toEqual({
      to_bill: 'ready to bill',
      closed: 'at rest',
    })
    await call('closed', '')
    await call('to_bill', '')
    expect((await books.ok('session')).company.stateLabels).toEqual({})
  })
  it('finds and exports an invoice by a field of the firm’s own', async () => {
    const field = (await office.ok('setUp')).fields.find((f) => f.name === 'Cost centre')!
    const { workOrderId } = await somethingToBill(office)
    const invoiceId = id()
    const { paper } = await office.ok('makeInvoice', {
      params: { id: workOrderId },
      body: { id: invoiceId, to: [] },
    })
    await books.ok('fillField', {
      body: { fieldId: field.id, subjectId: invoiceId, value: 'KS-4711' },
    })
    expect(
      (await office.ok('invoices', { query: { q: 'KS-4711' } })).items.map((i) => i.id),
    ).toEqual([invoiceId])
    const csv = readCsv((await books.raw('GET', '/api/v1/export/invoices.csv')).text)
    expect(csv.rows.find((r) => r[0] === paper.number)![csv.head.indexOf('Cost centre')]).toBe(
      'KS-4711',
    )
    const work = readCsv((await books.raw('GET', '/api/v1/export/work-orders.csv')).text)
    expect(work.head).toContain('County permit')
  })
})

describe('a person’s data', () => {
  it('is handed out whole to the owner only', async () => {
    const made = await newCustomer('Curious Cat', { phone: '6075550199' })
    const reply = await owner.raw('GET', `/api/v1/customers/${made.customerId}/data.json`)
    expect(JSON.parse(reply.text)).toMatchObject({
      about: 'Curious Cat',
      customer: { phone: '(607) 555-0199' },
    })
    expect((await office.raw('GET', `/api/v1/customers/${made.customerId}/data.json`)).status).toBe(
      403,
    )
  })
  it('is taken out where papers do not have to stay, and nowhere to be found afterwards', async () => {
    const made = await newCustomer('Forgotten Fenimore', {
      phone: '6075550199',
      email: 'fenimore@example.com',
    })
    const c = await customer(made.customerId)
    const workOrderId = id()
    const invoiceId = id()
    await book(made, { workOrderId, speaking: 'Fenimore himself' })
    const erase = async (body: object) =>
      owner.send('erase', {
        params: { id: c.id },
        body: { version: (await customer(c.id)).version, ...body },
      })
    expect((await erase({ name: 'Forgotten Fenimore' })).body.code).toBe('work_open')
    await office.ok('addLines', {
      params: { id: workOrderId },
      body: {
        lines: [{ id: id(), name: 'Work', kind: 'other', quantity: '1', unitPrice: '10.00' }],
      },
    })
    await db.query('UPDATE visits SET state = "finished" WHERE work_order_id = ?', [workOrderId])
    const bill = await office.ok('makeInvoice', {
      params: { id: workOrderId },
      body: { id: invoiceId, to: [] },
    })
    expect((await erase({ name: 'Forgotten Fenimore' })).body.code).toBe('money_open')
    await office.ok('pay', {
      body: {
        id: id(),
        customerId: c.id,
        method: 'cash',
        amount: bill.open.amount,
        invoiceIds: [invoiceId],
      },
    })
    expect((await erase({ name: 'Somebody Else' })).body.errors).toMatchObject([{ path: 'name' }])
    expect((await erase({ name: 'Forgotten Fenimore' })).status).toBe(200)
    for (const table of [
      'customers',
      'sites',
      'contacts',
      'calls',
      'work_orders',
      'trail',
      'messages',
    ]) {
      const [rows] = (await db.query(`SELECT * FROM ${table}`)) as unknown as [
        Record<string, unknown>[],
      ]
      expect(
        rows.filter((r) => JSON.stringify(r).toLowerCase().includes('fenimore')),
        table,
      ).toEqual([])
    }
    expect((await office.ok('matches', { query: { q: 'fenimore' } })).items).toEqual([])
    // The paper that was sent says what it said, and the books agree.
    expect((await owner.ok('invoice', { params: { id: invoiceId } })).paper.buyer.name).toBe(
      'Forgotten Fenimore',
    )
    expect((await erase({ name: 'Taken out' })).status).toBe(404)
    await booksAgree()
  })
  it('waits for a credit to be paid back, and for an agreement to end', async () => {
    const made = await newCustomer('Credited Crow', { phone: '6075550198' })
    const erase = async () =>
      owner.send('erase', {
        params: { id: made.customerId },
        body: { version: (await customer(made.customerId)).version, name: 'Credited Crow' },
      })
    const paid = id()
    await office.ok('pay', {
      body: {
        id: paid,
        customerId: made.customerId,
        method: 'cheque',
        reference: '9',
        amount: '12.00',
        invoiceIds: [],
        mayLeaveCredit: true,
      },
    })
    expect((await erase()).body.code).toBe('credit_open')
    await owner.ok('takeBack', {
      params: { id: paid },
      body: { why: 'mistyped', reason: 'paid back' },
    })
    const { items: plans } = await office.ok('plans')
    await office.ok('newAgreement', {
      body: {
        id: id(),
        customerId: made.customerId,
        siteId: made.sites[0]!.id,
        planId: plans[0]!.id,
        startsOn: '2026-11-01',
      },
    })
    expect((await erase()).body.code).toBe('agreement_open')
  })
  // What the firm has to keep: papers as they were sent, the books, and what was done at what price.
  const STAYS = new Set([
    'invoices.frozen',
    'invoice_lines.name',
    'ledger_entries.memo',
    'quotes.frozen',
    'payments.reference',
    'work_lines.name',
    'work_lines.price_from',
  ])
  it('leaves no word in any column: everything of the person is marked, and no mark is found afterwards', async () => {
    const MARK = 'xqzmark'
    const made = await newCustomer('Marked Marten', { phone: '6075550197' })
    const [workOrderId, visitId, invoiceId] = [id(), id(), id()]
    await book(made, { workOrderId, visitId })
    await office.ok('addLines', {
      params: { id: workOrderId },
      body: {
        lines: [{ id: id(), name: 'Work', kind: 'other', quantity: '1', unitPrice: '10.00' }],
      },
    })
    const bill = await office.ok('makeInvoice', {
      params: { id: workOrderId },
      body: { id: invoiceId, to: [] },
    })
    await office.ok('pay', {
      body: {
        id: id(),
        customerId: made.customerId,
        method: 'cash',
        amount: bill.open.amount,
        invoiceIds: [invoiceId],
        receiptTo: ['marten@example.com'],
      },
    })
    const quote = await office.ok('beginQuote', {
      body: {
        id: id(),
        customerId: made.customerId,
        siteId: made.sites[0]!.id,
        title: 'A pump',
        lines: [],
      },
    })
    await office.ok('newContact', {
      body: { id: id(), customerId: made.customerId, name: 'Marten junior' },
    })
    await office.ok('newEquipment', {
      body: { id: id(), siteId: made.sites[0]!.id, category: 'pump', make: 'Own', serial: 'S-1' },
    })
    await office.ok('collectionNote', {
      params: { id: made.customerId },
      body: { id: id(), kind: 'note', text: 'said something' },
    })
    await db.query(
      `INSERT INTO signatures (id, work_order_id, name, signed_at, taken_by, image, shown, total_minor) SELECT ?, ?, 'Marten', NOW(3), id, 'x', '{}', 1 FROM people LIMIT 1`,
      [id(), workOrderId],
    )
    await office.send('saveCall', {
      params: { id: id() },
      body: { draft: { customerId: made.customerId, query: MARK, problem: MARK }, summary: MARK },
      key: `kept-${id()}`,
    })
    await db.query(`UPDATE visits SET state = 'finished' WHERE work_order_id = ?`, [workOrderId])
    await db.query(`UPDATE work_orders SET state = 'closed', closed = TRUE WHERE id = ?`, [
      workOrderId,
    ])
    await db.query(
      `UPDATE idempotency_keys SET answer = JSON_SET(answer, '$.more', ?) WHERE answer LIKE CONCAT('%', ?, '%') AND JSON_VALID(answer)`,
      [MARK, made.customerId],
    )
    const [columns] = (await db.query(
      `SELECT table_name AS t, column_name AS c, character_maximum_length AS most FROM information_schema.columns WHERE table_schema = DATABASE() AND data_type IN ('varchar', 'text', 'mediumtext', 'longtext') AND extra NOT LIKE '%GENERATED%'`,
    )) as unknown as [{ t: string; c: string; most: number }[]]
    const OF: Record<string, string> = {
      customers: 'id = ?',
      sites: 'customer_id = ?',
      contacts: 'customer_id = ?',
      work_orders: 'customer_id = ?',
      quotes: 'customer_id = ?',
      messages: 'customer_id = ?',
      collection_notes: 'customer_id = ?',
      equipment: 'site_id IN (SELECT id FROM sites WHERE customer_id = ?)',
      visits: 'work_order_id IN (SELECT id FROM work_orders WHERE customer_id = ?)',
      signatures: 'work_order_id IN (SELECT id FROM work_orders WHERE customer_id = ?)',
    }
    // Numbers, kinds and what the books stand on keep their values; everything else is written over.
    const KEPT = new Set([
      'number',
      'kind',
      'currency',
      'details',
      'contact',
      'other_contacts',
      'answers',
      'own_prices',
      'terms',
      'custom',
      'tags',
      'recipients',
      'shown',
      'frozen',
      'state',
      'channel',
      'category',
      'make',
    ])
    for (const { t, c, most } of columns)
      if (OF[t] && !KEPT.has(c))
        await db.query(`UPDATE ${t} SET ${c} = ? WHERE ${OF[t]}`, [
          MARK.slice(0, most),
          made.customerId,
        ])
    for (const [t, c] of [
      ['customers', 'custom'],
      ['sites', 'custom'],
      ['work_orders', 'custom'],
      ['work_orders', 'details'],
      ['work_orders', 'contact'],
    ])
      await db.query(`UPDATE ${t} SET ${c} = ? WHERE ${OF[t!]}`, [
        JSON.stringify({ a: MARK }),
        made.customerId,
      ])
    await db.query(`UPDATE customers SET tags = ? WHERE id = ?`, [
      JSON.stringify([MARK]),
      made.customerId,
    ])
    const { version } = await customer(made.customerId)
    expect(
      await owner.send('erase', { params: { id: made.customerId }, body: { version, name: MARK } }),
    ).toMatchObject({ status: 200 })
    const left: string[] = []
    for (const { t, c } of columns) {
      if (STAYS.has(`${t}.${c}`)) continue
      const [[found]] = (await db.query(`SELECT COUNT(*) AS n FROM ${t} WHERE ${c} LIKE ?`, [
        `%${MARK}%`,
      ])) as unknown as [[{ n: number }]]
      if (found.n) left.push(`${t}.${c}`)
    }
    expect(left).toEqual([])
    expect(quote.id).toBeTruthy()
  })
})
