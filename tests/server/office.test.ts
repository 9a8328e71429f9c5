// Small things that an office lives by: the one search, filters of lists, set-up, words of a work order, what a page may run.
import type { Connection } from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { contentPolicy, inlineScripts } from '../../server/http/policy'
import { HISTORY_PAGE } from '../../shared/schema'
import { kindOf, PICTURES } from '../../server/http/files'
import {
  callerNamed,
  database,
  id,
  setClock,
  signedIn,
  somethingToBill,
  type Client,
} from './client'

let office: Client, dispatch: Client, books: Client, db: Connection
beforeAll(async () => {
  setClock('2026-11-24T10:21')
  ;[office, dispatch, books] = await Promise.all([
    signedIn('office'),
    signedIn('dispatch'),
    signedIn('books'),
  ])
  db = await database()
})
afterAll(() => db.end())
const book = async (words: string, more: Record<string, unknown> = {}) => {
  const c = await callerNamed(office, words)
  const ids = { workOrderId: id(), visitId: id() }
  await office.ok('bookCall', {
    params: { id: id() },
    body: {
      ...ids,
      customerId: c.customerId,
      siteId: c.sites[0]!.id,
      problem: 'Test work',
      ...more,
    },
  })
  return { ...ids, customerId: c.customerId }
}

describe('one search over everything', () => {
  const find = async (q: string) => (await office.ok('find', { query: { q } })).items
  it('finds a paper by its number before anything else', async () => {
    const [[w]] = (await db.query(
      'SELECT number, id FROM work_orders ORDER BY created_at LIMIT 1',
    )) as unknown as [[{ number: string; id: string }]]
    expect((await find(w.number))[0]).toMatchObject({ kind: 'work', to: `/work/${w.id}` })
    const [[i]] = (await db.query(
      'SELECT number, id FROM invoices ORDER BY created_at LIMIT 1',
    )) as unknown as [[{ number: string; id: string }]]
    expect((await find(i.number))[0]).toMatchObject({ kind: 'invoice', to: `/invoices/${i.id}` })
  })
  it('finds work by what was wrong and by what was found, and what the price book has', async () => {
    const { workOrderId, visitId } = await book('mill row flats', { problem: 'Gurgling xylophone' })
    const to = `/work/${workOrderId}`
    expect((await find('xylophone')).map((f) => f.to)).toContain(to)
    await db.query(`UPDATE visits SET findings = 'A zeppelin in the tank' WHERE id = ?`, [visitId])
    expect((await find('zeppelin')).map((f) => f.to)).toContain(to)
    const entry = (await office.ok('priceBook')).items[0]!
    expect((await find(entry.code)).map((f) => f.to)).toContain(`/price-book/${entry.id}`)
  })
  it('finds a customer by number, address, serial number and contact, and says by what', async () => {
    const hallam = await callerNamed(office, 'hallam dairy')
    const to = `/customers/${hallam.customerId}`
    for (const [q, by] of [
      ['555 0142', 'telephone'],
      [hallam.sites[0]!.line1, 'address'],
      [hallam.equipment[0]!.serial, 'serial number'],
      ['Edda Hallam', 'contact'],
    ] as const) {
      const hit = (await find(q)).find((x) => x.to === to)
      expect(hit?.detail, q).toContain(`by ${by}`)
    }
  })
  it('finds a half-filled call, and a work order by the customer’s own order number', async () => {
    const callId = id()
    await office.ok('saveCall', {
      params: { id: callId },
      body: { draft: { query: 'Quarrelsome' }, summary: 'Quarrelsome Quentin, leak' },
    })
    expect((await find('quarrelsome')).find((x) => x.kind === 'call')).toMatchObject({
      to: `/calls/${callId}`,
      detail: 'half-filled',
    })
    const { workOrderId } = await book('lowfold', { orderNumber: 'PO-889911' })
    expect((await find('PO-889911')).map((x) => x.to)).toContain(`/work/${workOrderId}`)
    await office.ok('endCall', {
      params: { id: callId },
      body: { state: 'declined', reason: 'test' },
    })
  })
})

describe('lists of customers and sites', () => {
  it('tell prospects from customers, and both from those who owe', async () => {
    const narrowed: Record<string, string>[] = [
      {},
      { kind: 'prospect' },
      { kind: 'customer' },
      { owing: 'yes' },
    ]
    const [all, prospects, customers, owing] = await Promise.all(
      narrowed.map((query) => office.ok('customers', { query: { ...query, limit: '200' } })),
    )
    expect(prospects!.total + customers!.total).toBe(all!.total)
    expect(prospects!.items.every((c) => c.prospect && c.next !== '')).toBe(true)
    expect(customers!.items.every((c) => !c.prospect && c.next === '')).toBe(true)
    expect(owing!.items.every((c) => Number(c.owed.amount) > 0)).toBe(true)
    expect(owing!.total).toBeLessThan(all!.total)
  })
  it('filter by a tag, and find by it', async () => {
    const tagged = await office.ok('customers', { query: { tag: 'milk twice a day' } })
    expect(tagged.items.map((c) => c.name)).toEqual(['Hallam Dairy'])
    expect(
      (await office.ok('matches', { query: { q: 'milk twice' } })).items.map((m) => m.name),
    ).toContain('Hallam Dairy')
  })
  it('page through every site once, by address and by town', async () => {
    for (const sort of ['address', '-town']) {
      const seen: string[] = []
      let after = ''
      let total = 0
      do {
        const page = await office.ok('sites', {
          query: { sort, limit: '60', ...(after ? { after } : {}) },
        })
        seen.push(...page.items.map((s) => s.id))
        after = page.next ?? ''
        total = page.total
      } while (after)
      expect([seen.length, new Set(seen).size]).toEqual([total, total])
    }
  })
})

describe('set-up', () => {
  it('a question wants its words and choices; retired it stays with the answers that were given', async () => {
    const questionId = id()
    expect(
      await office.send('keepQuestion', { body: { id: questionId, text: '', kind: 'text' } }),
    ).toMatchObject({
      status: 422,
      body: { errors: [{ path: 'text', message: 'Write the question.' }] },
    })
    await office.ok('keepQuestion', { body: { id: questionId, text: 'Geese?', kind: 'yes_no' } })
    const { workOrderId } = await book('wren cottages', {
      answers: [
        { questionId, question: 'Geese?', answer: 'yes' },
        { questionId: id(), question: 'Not asked', answer: '' },
      ],
    })
    const shown = { text: 'Geese?', kind: 'yes_no', choices: [], retired: false }
    await office.ok('keepQuestion', {
      body: { id: questionId, text: 'Geese?', kind: 'yes_no', retired: true, shown },
    })
    expect((await office.ok('setUp')).questions.find((q) => q.id === questionId)!.retired).toBe(
      true,
    )
    expect((await office.ok('workOrder', { params: { id: workOrderId } })).answers).toEqual([
      { question: 'Geese?', answer: 'yes' },
    ])
    expect(
      (
        await dispatch.send('keepQuestion', {
          body: { id: questionId, text: 'Geese?', kind: 'yes_no' },
        })
      ).status,
    ).toBe(403)
  })
  it('sources are kept once each, also where two people add one at once', async () => {
    const { sources } = await office.ok('setUp')
    const [fair, radio] = ['county fair', 'the radio']
    await Promise.all([fair, radio].map((add) => office.ok('keepSources', { body: { add } })))
    expect((await office.ok('setUp')).sources.sort()).toEqual([...sources, fair, radio].sort())
    const again = await office.send('keepSources', { body: { add: 'County Fair' } })
    expect([again.status, again.body.errors?.[0]?.path]).toEqual([422, 'add'])
    for (const takeOut of [fair, radio]) await office.ok('keepSources', { body: { takeOut } })
    expect((await office.ok('setUp')).sources).toEqual(sources)
  })
  it('a plan wants a price and its number of visits; its name is given once', async () => {
    expect(
      (
        await office.send('keepPlan', {
          body: { id: id(), name: 'Weekly', visitsAYear: 52, price: '1', work: 'x' },
        })
      ).body.errors,
    ).toMatchObject([{ path: 'visitsAYear' }])
    const plan = {
      name: `Spring ${id()}`,
      visitsAYear: 4,
      price: '99.50',
      work: 'Open the seasonal well',
    }
    await office.ok('keepPlan', { body: { id: id(), ...plan } })
    expect(await office.send('keepPlan', { body: { id: id(), ...plan } })).toMatchObject({
      ...{ status: 422, body: { errors: [{ path: 'name' }] } },
    })
    expect((await books.ok('plans')).items.find((p) => p.name === plan.name)).toMatchObject({
      visitsAYear: 4,
      work: plan.work,
    })
  })
})

describe('a care agreement', () => {
  it('that was renewed before it was billed is billed a year at a time', async () => {
    const match = await callerNamed(office, 'wren cottages')
    const plan = {
      id: id(),
      name: `Yearly ${id()}`,
      visitsAYear: 1,
      price: '120.00',
      work: 'Look after it',
    }
    await office.ok('keepPlan', { body: plan })
    const agreementId = id()
    const made = await office.ok('newAgreement', {
      body: {
        id: agreementId,
        customerId: match.customerId,
        siteId: match.sites[0]!.id,
        planId: plan.id,
        startsOn: '2026-01-01',
      },
    })
    await office.ok('renewAgreement', {
      params: { id: agreementId },
      body: { version: made.version },
    })
    const bill = () =>
      office.send('billAgreement', {
        params: { id: agreementId },
        body: { workOrderId: id(), lineId: id() },
      })
    const waits = async () => {
      const params = { id: String((await bill()).body.workOrderId) }
      return { params, line: (await office.ok('workOrder', { params })).lines[0]! }
    }
    // Where its work order comes to nothing, the year waits to be billed again.
    const nothing = await waits()
    await office.ok('changeLine', {
      params: { id: nothing.line.id },
      body: { version: nothing.line.version, removed: true },
    })
    const reason = 'made by mistake'
    await office.ok('cancelWorkOrder', { params: nothing.params, body: { reason } })
    const years = []
    for (const turn of [1, 2]) {
      const { params, line } = await waits()
      expect(params.id, String(turn)).not.toBe(nothing.params.id)
      await office.ok('makeInvoice', { params, body: { id: id() } })
      years.push(line)
    }
    expect(years.map((l) => [l.name.split(', ')[1], l.net.amount])).toEqual([
      ['2026-01-01 to 2026-12-31', '120.00'],
      ['2027-01-01 to 2027-12-31', '120.00'],
    ])
    expect((await bill()).body.code).toBe('billed_already')
  })
})
describe('a list', () => {
  it('finds what it holds as it is written, with capitals, signs and numbers', async () => {
    const made = await office.ok('newCustomer', {
      body: { id: id(), siteId: id(), name: 'Żurek & Marrowfield', line1: '7 Long Lane' },
    })
    const workOrderId = id()
    await office.ok('bookCall', {
      params: { id: id() },
      body: {
        workOrderId,
        visitId: id(),
        customerId: made.customerId,
        siteId: made.sites[0]!.id,
        problem: 'Low pressure upstairs',
        title: 'Low Pressure Upstairs',
      },
    })
    await office.ok('addLines', {
      params: { id: workOrderId },
      body: {
        lines: [{ id: id(), name: 'Work', kind: 'other', quantity: '1', unitPrice: '10.00' }],
      },
    })
    const { number } = await office.ok('workOrder', { params: { id: workOrderId } })
    const invoice = await office.ok('makeInvoice', {
      params: { id: workOrderId },
      body: { id: id(), to: [] },
    })
    await books.ok('pay', {
      body: {
        id: id(),
        customerId: made.customerId,
        method: 'cheque',
        reference: 'Bank AB-77',
        amount: '1.00',
        invoiceIds: [invoice.id],
      },
    })
    for (const q of [
      'Marrowfield',
      'marrowfield',
      'MARROW',
      'zurek',
      'Low Pressure',
      'low pressure',
      number,
      number.toLowerCase(),
      number.replace('-', ' '),
    ]) {
      expect(
        (await office.ok('workOrders', { query: { q } })).items.map((w) => w.id),
        q,
      ).toContain(workOrderId)
    }
    for (const q of [
      'Marrowfield',
      'zurek',
      invoice.paper.number,
      invoice.paper.number.toLowerCase(),
    ])
      expect(
        (await books.ok('invoices', { query: { q } })).items.map((i) => i.id),
        q,
      ).toContain(invoice.id)
    for (const q of ['Marrowfield', 'ab-77', 'AB-77'])
      expect(
        (await books.ok('payments', { query: { q } })).items.map((p) => p.customer),
        q,
      ).toContain('Żurek & Marrowfield')
    // Who went there, alone and beside another word; nobody else's.
    const goers = async (workOrder: string) => {
      const [rows] = await db.query(
        'SELECT p.name FROM visits v JOIN people p ON p.id = v.technician_id WHERE v.work_order_id = ?',
        [workOrder],
      )
      return (rows as { name: string }[]).map(({ name }) => name)
    }
    const { items: piets } = await office.ok('workOrders', { query: { q: 'Piet' } })
    expect(piets.length).toBeGreaterThan(2)
    for (const w of piets) expect(await goers(w.id)).toContain('Piet Sandvik')
    const third = piets[2]!
    const both = await office.ok('workOrders', { query: { q: `piet ${third.number}` } })
    expect(both.items.map((w) => w.id)).toEqual([third.id])
    // Signs that mean something to the database mean themselves here.
    expect((await books.ok('payments', { query: { q: '%' } })).items).toEqual([])
  })
})
describe('the words of a work order', () => {
  it('change in the office, with both versions kept in the history and a stale change sent back', async () => {
    const { workOrderId } = await book('mill row flats', { problem: 'No hot water' })
    const before = await office.ok('workOrder', { params: { id: workOrderId } })
    const after = await office.ok('writeWorkOrder', {
      params: { id: workOrderId },
      body: {
        version: before.version,
        title: 'Boiler feed',
        printedNote: 'Please keep the stopcock clear.',
      },
    })
    expect(after).toMatchObject({
      title: 'Boiler feed',
      problem: 'No hot water',
      printedNote: 'Please keep the stopcock clear.',
    })
    expect(after.history[0]).toMatchObject({
      text: 'Changed the title, the note on papers',
      changes: [
        { what: 'title', from: before.title, to: 'Boiler feed' },
        { what: 'printed note', from: before.printedNote, to: 'Please keep the stopcock clear.' },
      ],
    })
    expect(
      await dispatch.send('writeWorkOrder', {
        params: { id: workOrderId },
        body: { version: before.version, title: 'Other' },
      }),
    ).toMatchObject({ status: 409, body: { code: 'stale' } })
    expect(
      (
        await books.send('writeWorkOrder', {
          params: { id: workOrderId },
          body: { version: after.version, title: 'Other' },
        })
      ).status,
    ).toBe(403)
  })
})

describe('whom and what a work order is about', () => {
  it('is changed later: the kind, who is spoken to, who else, and what is for the office alone', async () => {
    const ines = await signedIn('technician')
    const { workOrderId } = await book('mill row flats', { problem: 'No hot water' })
    const params = { id: workOrderId }
    const before = await office.ok('workOrder', { params })
    const now = await office.ok('writeWorkOrder', {
      params,
      body: {
        ...{ version: before.version, kind: 'service', officeNote: 'Pays late.' },
        contact: { name: 'Ray Lee', phone: '2075550117', role: 'tenant' },
        otherContacts: [
          { name: 'Ada Holt', phone: '2075550118', role: 'caretaker' },
          { name: '', phone: '', role: '' },
        ],
      },
    })
    expect(now).toMatchObject({
      ...{ kind: 'service', officeNote: 'Pays late.', title: before.title },
      contact: { name: 'Ray Lee', phone: expect.stringContaining('555') as string, role: 'tenant' },
    })
    expect(now.otherContacts.map(({ name, role }) => [name, role])).toEqual([
      ['Ada Holt', 'caretaker'],
    ])
    expect(now.history[0]!.text).toBe(
      'Changed the office note, the kind of work, who is spoken to, who else is spoken to',
    )
    await db.query('UPDATE visits SET technician_id = (SELECT id FROM people WHERE email = ?) WHERE work_order_id = ?', ['ines@demo.test', workOrderId]) // prettier-ignore
    const onPhone = await ines.ok('workOrder', { params })
    expect(onPhone.officeNote).toBe('')
    expect(onPhone.history.flatMap(({ changes }) => changes)).toEqual([])
    const [visit] = onPhone.visits
    const seen = await ines.ok('fieldVisit', { params: { id: visit!.id } })
    expect(seen.visit.otherContacts).toMatchObject([{ name: 'Ada Holt' }])
  })
  it('stays a call-back where it is one', async () => {
    const { items } = await office.ok('workOrders', { query: { state: 'closed', limit: '20' } })
    const made = { workOrderId: id(), visitId: id() }
    const body = { ...made, problem: 'Drips again' }
    await office.ok('callBack', {
      params: { id: items.find((w) => w.technician && w.kind !== 'call_back')!.id },
      body,
    })
    const { version } = await office.ok('workOrder', { params: { id: made.workOrderId } })
    expect(
      await office.send('writeWorkOrder', {
        params: { id: made.workOrderId },
        body: { version, kind: 'repair' },
      }),
    ).toMatchObject({ status: 422, body: { errors: [{ path: 'kind' }] } })
  })
})

describe('a history', () => {
  it('is told in pages without end, each entry once, the last first', async () => {
    const { workOrderId } = await book('mill row flats', { problem: 'History' })
    const params = { id: workOrderId }
    for (let i = 0; i < HISTORY_PAGE + 5; i++)
      await db.query(
        `INSERT INTO trail (at, who, ip, subject, subject_id, code, work_order_id, text, data)
        VALUES (NOW(3), 'Somebody', '', 'work', ?, 'work.photoAdded', ?, '', '{}')`,
        [workOrderId, workOrderId],
      )
    const { history } = await office.ok('workOrder', { params })
    expect(history).toHaveLength(HISTORY_PAGE)
    const last = history.at(-1)!.id
    const before = String(last)
    const { items } = await office.ok('workOrderEarlier', { params, query: { before } })
    expect(items.every((entry) => entry.id < last)).toBe(true)
    expect(items.at(-1)!.text).toContain('Call taken')
    const { id: ofCustomer } = (await office.ok('workOrder', { params })).customer
    const inAll = { params: { id: ofCustomer }, query: { before: String(items[0]!.id) } }
    expect((await office.ok('customerEarlier', inAll)).items.length).toBeGreaterThan(0)
    for (const name of ['quoteEarlier', 'invoiceEarlier'] as const)
      expect((await office.send(name, { params, query: { before } })).status).toBe(404)
  })
  it('says once that a call began, however often its typing pauses', async () => {
    const { customerId } = await callerNamed(office, 'mill row flats')
    const params = { id: id() }
    for (const problem of ['It', 'It drips', 'It drips again'])
      await office.ok('saveCall', { params, body: { draft: { customerId, problem }, summary: '' } })
    const { history } = await office.ok('customer', { params: { id: customerId } })
    expect(history.filter(({ text }) => /^A call began|^Call kept/.test(text))).toHaveLength(1)
  })
})

describe('a merge that cannot be taken apart', () => {
  it('says which payment stands in the way, and changes nothing', async () => {
    const person = async (name: string) => {
      const made = await office.ok('newCustomer', {
        body: { id: id(), siteId: id(), name, line1: '1 Test Way' },
      })
      const workOrderId = id()
      await office.ok('bookCall', {
        params: { id: id() },
        body: {
          workOrderId,
          visitId: id(),
          customerId: made.customerId,
          siteId: made.sites[0]!.id,
          problem: 'x',
        },
      })
      await office.ok('addLines', {
        params: { id: workOrderId },
        body: {
          lines: [{ id: id(), name: 'Work', kind: 'other', quantity: '1', unitPrice: '10.00' }],
        },
      })
      const invoiceId = id()
      await office.ok('makeInvoice', {
        params: { id: workOrderId },
        body: { id: invoiceId, to: [] },
      })
      return { customerId: made.customerId, invoiceId }
    }
    const [a, b] = [await person('Joint Ada'), await person('Joint Bram')]
    const mergeId = id()
    await office.ok('merge', {
      params: { id: a.customerId },
      body: { id: mergeId, otherId: b.customerId },
    })
    const paid = await office.ok('pay', {
      body: {
        id: id(),
        customerId: a.customerId,
        method: 'transfer',
        amount: '15.00',
        invoiceIds: [a.invoiceId, b.invoiceId],
      },
    })
    const refused = await office.send('undoMerge', { params: { id: mergeId } })
    expect(refused).toMatchObject({ status: 409, body: { code: 'paid_together' } })
    expect(String(refused.body.detail)).toContain(paid.number)
    expect((await office.ok('invoice', { params: { id: b.invoiceId } })).customerId).toBe(
      a.customerId,
    )
  })
})

describe('held times and bookings', () => {
  it('a held time is shown to the others and does not forbid a booking', async () => {
    const day = await office.ok('schedule', { query: { date: '2026-12-04' } })
    const rosa = day.technicians.find((t) => t.name.startsWith('Rosa'))!
    const callId = id()
    await office.ok('saveCall', {
      params: { id: callId },
      body: {
        draft: { date: '2026-12-04', start: '08:00', technicianId: rosa.id },
        summary: 'Holding',
      },
    })
    expect(
      (await dispatch.ok('schedule', { query: { date: '2026-12-04' } })).held.map((h) => h.summary),
    ).toEqual(['Holding'])
    const { visitId } = await book('wren cottages', {
      technicianId: rosa.id,
      date: '2026-12-04',
      start: '08:00',
      override: true,
    })
    expect(
      (await office.ok('schedule', { query: { date: '2026-12-04' } })).visits.map((v) => v.id),
    ).toContain(visitId)
    await office.ok('endCall', {
      params: { id: callId },
      body: { state: 'declined', reason: 'test' },
    })
  })
  it('what is sold without a visit does not wait for a slot', async () => {
    const { workOrderId } = await somethingToBill(office)
    await db.query('UPDATE visits SET state = "cancelled" WHERE work_order_id = ?', [workOrderId])
    await office.ok('addLines', {
      params: { id: workOrderId },
      body: {
        lines: [
          { id: id(), name: 'Salt, delivered', kind: 'other', quantity: '1', unitPrice: '9.00' },
        ],
      },
    })
    expect((await office.ok('workOrder', { params: { id: workOrderId } })).state).toBe('to_bill')
  })
})

describe('what a page may run', () => {
  const page =
    '<html><head><script src="/a.js"></script><script type="application/json">{"x":1}</script></head><body><script>window.x=1</script><script id="b" defer>\nrun()\n</script></body></html>'
  it('finds the scripts that stand in the page, and no others', () =>
    expect(inlineScripts(page)).toEqual(['window.x=1', '\nrun()\n']))
  it('names each by its hash and allows no other', () => {
    const policy = contentPolicy({ framed: false, scripts: ['window.x=1'] })
    expect(policy).toMatch(/script-src 'self' 'sha256-[\w+/=]{44}'(;|$)/)
    expect(policy).not.toContain(`script-src 'self' 'unsafe-inline'`)
    expect(policy).toContain(`frame-ancestors 'none'`)
    expect(contentPolicy({ framed: true, scripts: [] })).toContain('frame-ancestors *')
  })
})

describe('what a file is', () => {
  const jpeg = Buffer.from([0xff, 0xd8, 0xff, 0xe0])
  it('its first bytes say', () => {
    expect(kindOf(jpeg, PICTURES)).toBe('image/jpeg')
    expect(kindOf(Buffer.from('%PDF-1.7'), [...PICTURES, 'application/pdf'])).toBe(
      'application/pdf',
    )
    expect(() => kindOf(Buffer.from('%PDF-1.7'), PICTURES)).toThrow(
      'This is not a PNG, JPEG or WebP picture.',
    )
    expect(() => kindOf(Buffer.concat([jpeg, Buffer.alloc(5_000_001)]), PICTURES)).toThrow('5 MB')
  })
})
