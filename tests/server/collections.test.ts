// What is unpaid and what is done about it: promises that run and break, disputes that rest, reminders that say what is owed at that moment.
import { beforeAll, describe, expect, it } from 'vitest'
import type { Answer } from '../../shared/api'
import { plusDays } from '../../core/time/zone'
import { type Client, database, id, signedIn, somethingToBill } from './client'

let office: Client
let books: Client
let customerId: string
let invoice: Answer<'invoice'>
const TODAY = '2026-11-24'
/** The day on which the invoice of this file has been late for so long. */
const late = (days: number) => plusDays(TODAY, days + 1)

beforeAll(async () => {
  office = await signedIn('office')
  books = await signedIn('books')
  const other = await office.ok('newCustomer', {
    body: {
      id: id(),
      siteId: id(),
      name: 'Quillon Harbour Trust',
      phone: '607 555 0177',
      email: 'quillon@example.com',
      line1: '9 Slipway',
      town: 'Otterfall',
      postcode: '04101',
    },
  })
  customerId = other.customerId
  const workOrderId = id()
  await office.ok('bookCall', {
    params: { id: id() },
    body: {
      workOrderId,
      visitId: id(),
      customerId,
      siteId: other.sites[0]!.id,
      problem: 'A bilge pump',
    },
  })
  await office.ok('addLines', {
    params: { id: workOrderId },
    body: {
      lines: [{ id: id(), name: 'Work', kind: 'other', quantity: '1', unitPrice: '400.00' }],
    },
  })
  invoice = await office.ok('makeInvoice', {
    params: { id: workOrderId },
    body: { id: id(), dueOn: plusDays(TODAY, 1), to: [] },
  })
})
const note = (body: object, on = customerId) =>
  books.send('collectionNote', { params: { id: on }, body: { id: id(), ...body } })
const owing = (on?: string) =>
  books.ok('owing', { params: { id: customerId }, ...(on ? { query: { on } } : {}) })
const hasCredits = ({ credits }: { credits: { amount: string } }) => Number(credits.amount) !== 0
const entry = async (on: string) =>
  (await books.ok('unpaid', { query: { on } })).worklist.find((e) => e.customerId === customerId)

describe('the ageing', () => {
  it('agrees with the books on any day, row by row and in all', async () => {
    for (const on of [TODAY, late(1), late(40), late(100)]) {
      const { totals, customers, agrees } = await books.ok('unpaid', { query: { on } })
      expect(agrees, on).toBe(true)
      const cents = (amount: string) => Math.round(Number(amount) * 100)
      const sum = customers.reduce((all, one) => all + cents(one.owed.amount), 0)
      expect(sum).toBe(cents(totals.owed.amount))
    }
  })
  it('moves what is late from bucket to bucket, and leaves the sum alone', async () => {
    const row = async (on: string) =>
      (await books.ok('unpaid', { query: { on } })).customers.find(
        (one) => one.customerId === customerId,
      )!
    const total = invoice.open.amount
    expect((await row(TODAY)).current.amount).toBe(total)
    expect((await row(late(1))).d1_30.amount).toBe(total)
    expect((await row(late(31))).d31_60.amount).toBe(total)
    expect((await row(late(61))).d61_90.amount).toBe(total)
    expect((await row(late(91))).over90.amount).toBe(total)
  })
  it('knows nothing of an invoice before it was made', async () => {
    const { customers } = await books.ok('unpaid', { query: { on: plusDays(TODAY, -1) } })
    expect(customers.some((one) => one.customerId === customerId)).toBe(false)
  })
})

describe('beside the list', () => {
  it.each(['2026-10-31', TODAY])(
    'a customer owes on %s what the list says of them, by invoices of that day',
    async (on) => {
      const { customers } = await books.ok('unpaid', { query: { on } })
      expect(customers.length).toBeGreaterThan(10)
      for (const row of customers.slice(0, 25)) {
        const { owed, credits, open, invoices } = await books.ok('owing', {
          params: { id: row.customerId },
          query: { on },
        })
        expect([owed, credits, open]).toEqual([row.owed, row.credits, row.open])
        const cents = invoices.reduce((sum, i) => sum + Math.round(Number(i.open.amount) * 100), 0)
        expect(cents).toBe(Math.round(Number(open.amount) * 100))
        expect(invoices.filter(({ issueOn }) => issueOn > on)).toEqual([])
      }
    },
  )
  it('what a customer owes is the same on their page, at their call and in the list of customers', async () => {
    const { customers } = await books.ok('unpaid')
    const some = [...customers.slice(0, 8), ...customers.filter(hasCredits)]
    expect(some.some(hasCredits), 'one with money to their credit').toBe(true)
    for (const { customerId: of, name, owed, credits } of some) {
      const params = { id: of }
      const page = await office.ok('customer', { params })
      const caller = await office.ok('caller', { params })
      const { items } = await office.ok('customers', { query: { q: name, limit: '200' } })
      const row = items.find((one) => one.id === of)!
      expect([page.owed, caller.owed, row.owed], name).toEqual([owed, owed, owed])
      expect([page.credits, caller.credits].map(({ amount }) => Math.abs(Number(amount)))).toEqual(
        Array(2).fill(Math.abs(Number(credits.amount))),
      )
    }
  })
  it('nothing is shown that was said after that day', async () => {
    const asked = (on: string) => owing(on).then(({ said }) => said.map(({ text }) => text))
    await note({ kind: 'note', text: 'Rings on Friday.' })
    expect((await asked(TODAY)).join()).toContain('Rings on Friday.')
    expect(await asked(plusDays(TODAY, -1))).toEqual([])
  })
})

describe('the list to act on', () => {
  it('has nobody who is not late', async () => expect(await entry(TODAY)).toBeUndefined())
  it('begins with a reminder, and says how late it is', async () =>
    expect(await entry(late(5))).toMatchObject({
      act: 'remind',
      late: 5,
      reason: '5 days late, no reminder yet',
      resting: false,
    }))
})

describe('a note', () => {
  it.each([
    [{ kind: 'promise', onDate: plusDays(TODAY, 9) }, 'amount'],
    [{ kind: 'promise', amount: '0.00', onDate: plusDays(TODAY, 9) }, 'amount'],
    [{ kind: 'promise', amount: '50.00' }, 'onDate'],
    [{ kind: 'promise', amount: '50.00', onDate: plusDays(TODAY, -1) }, 'onDate'],
    [{ kind: 'dispute' }, 'text'],
    [{ kind: 'note', text: '' }, 'text'],
    [{ kind: 'promise', amount: 'much', onDate: plusDays(TODAY, 9) }, 'amount'],
  ])('that lacks something is sent back at its field: %j', async (body, path) => {
    const reply = await note(body)
    expect(reply.status).toBe(422)
    expect(reply.body.errors!.map((error) => error.path)).toContain(path)
  })
  it('on nobody is refused', async () =>
    expect((await note({ kind: 'no_answer' }, id())).status).toBe(404))
  it('that is sent again with its key is one', async () => {
    const body = { id: id(), kind: 'note', text: 'Rang the harbour office.' }
    const params = { id: customerId }
    const key = id()
    await books.ok('collectionNote', { params, body, key })
    await books.ok('collectionNote', { params, body, key })
    const { said } = await owing()
    expect(said.filter((one) => one.text.includes('Rang the harbour office.'))).toHaveLength(1)
  })
  it('says who noted it, and stands first', async () => {
    await note({ kind: 'no_answer' })
    const [first] = (await owing()).said
    expect([first!.kind, first!.text]).toEqual(['no_answer', 'No answer'])
    expect(first!.who).not.toBe('')
  })
})

describe('a promise', () => {
  const promised = plusDays(TODAY, 10)
  it('rests whoever made it until its day', async () => {
    expect((await note({ kind: 'promise', amount: '400.00', onDate: promised })).status).toBe(200)
    expect(await entry(late(5))).toMatchObject({
      resting: true,
      act: 'wait',
      expectedOn: promised,
      reason: 'Promised $400.00 for Fri, Dec 4',
    })
  })
  it('that has not come wants a call, and counts against them', async () =>
    expect(await entry(plusDays(promised, 1))).toMatchObject({
      resting: false,
      act: 'call',
      reason: 'Promised $400.00 for Fri, Dec 4; it has not come. Kept 0 of 1 promises',
    }))
})

describe('a dispute', () => {
  it('rests the debt with its words, until it is settled', async () => {
    await note({ kind: 'dispute', text: 'The pump hums.' })
    expect(await entry(late(5))).toMatchObject({
      resting: true,
      act: 'settle',
      reason: 'Disputes it: “The pump hums.”',
    })
    await note({ kind: 'settled', text: 'We looked at it.' })
    expect((await entry(late(40)))!.act).not.toBe('settle')
  })
})

describe('a reminder', () => {
  const remind = (body: object) =>
    books.send('remind', {
      params: { id: customerId },
      body: { id: id(), to: ['quillon@example.com'], ...body },
    })
  it('without an address is sent back at its field', async () => {
    const reply = await remind({ to: [] })
    expect([reply.status, reply.body.errors![0]!.path]).toEqual([422, 'to'])
  })
  it('that shows another sum than is owed says both, and nothing goes out', async () => {
    const before = (await owing()).reminder.step
    const reply = await remind({ shownOwed: '1.00' })
    expect([reply.status, reply.body.code, reply.body.shown]).toEqual([409, 'owed_changed', '1.00'])
    expect((reply.body.owed as { amount: string }).amount).toBe((await owing()).owed.amount)
    expect((await owing()).reminder.step).toBe(before)
  })
  it('goes out once, in the words that were shown, and the next one is the next step', async () => {
    const { reminder, owed } = await owing()
    const params = { id: customerId }
    const body = {
      id: id(),
      to: ['quillon@example.com'],
      subject: reminder.subject,
      body: reminder.body,
      shownOwed: owed.amount,
    }
    const key = id()
    await books.ok('remind', { params, body, key })
    await books.ok('remind', { params, body, key })
    const db = await database()
    const [rows] = await db.query(
      'SELECT subject FROM messages WHERE customer_id = ? AND kind = "reminder"',
      [customerId],
    )
    await db.end()
    expect(rows).toEqual([{ subject: reminder.subject }])
    expect((await owing()).reminder.step).toBe(reminder.step + 1)
  })
  it('that another window has sent already is not sent as the same one once more', async () => {
    const { step } = (await owing()).reminder
    const reply = await remind({ step: step - 1 })
    expect([reply.status, reply.body.code, reply.body.step]).toEqual([409, 'stale', step])
    expect((await owing()).reminder.step).toBe(step)
  })
  it('stands in the history, and among what was said', async () => {
    expect((await owing()).said[0]!.text).toContain('Reminder sent')
    const { history } = await office.ok('customer', { params: { id: customerId } })
    expect(history.some((one) => one.text === 'Reminder 1 sent')).toBe(true)
  })
  it('of whoever owes nothing is refused', async () => {
    const { customerId: nobody } = await office.ok('newCustomer', {
      body: { id: id(), siteId: id(), name: 'Owes Nothing', line1: '1 Nowhere Lane' },
    })
    const reply = await books.send('remind', {
      params: { id: nobody },
      body: { id: id(), to: ['a@example.com'] },
    })
    expect([reply.status, reply.body.detail]).toEqual([422, 'Nothing is open for this customer.'])
  })
})

describe('money that comes', () => {
  it('takes the customer off the list, and keeps what was said', async () => {
    const { open } = await books.ok('invoice', { params: { id: invoice.id } })
    await books.ok('pay', {
      body: {
        id: id(),
        customerId,
        invoiceIds: [invoice.id],
        method: 'transfer',
        amount: open.amount,
        shownOpen: open.amount,
      },
    })
    expect(await entry(late(40))).toBeUndefined()
    const now = await owing()
    expect([now.owed.amount, now.invoices.length]).toEqual(['0.00', 0])
    expect(now.said.length).toBeGreaterThan(3)
  })
  it('leaves nothing to be reminded of', async () => {
    const reply = await books.send('remind', {
      params: { id: customerId },
      body: { id: id(), to: ['quillon@example.com'] },
    })
    expect([reply.status, reply.body.detail]).toEqual([422, 'Nothing is open for this customer.'])
  })
})

describe('a letter', () => {
  it('is proposed to whom no mail can be sent, kept in its words without links, counted as a reminder, and printed', async () => {
    const made = await office.ok('newCustomer', {
      body: { ...{ id: id(), siteId: id(), name: 'Paper Pauline' }, line1: '4 Quay Lane' },
    })
    const work = { workOrderId: id(), visitId: id() }
    await office.ok('bookCall', {
      params: { id: id() },
      body: {
        ...{ ...work, customerId: made.customerId, siteId: made.sites[0]!.id },
        problem: 'Pump',
      },
    })
    const params = { id: work.workOrderId }
    const lines = [{ id: id(), name: 'Pump', kind: 'other', quantity: '1', unitPrice: '80.00' }]
    await office.ok('addLines', { params, body: { lines } })
    await office.ok('makeInvoice', { params, body: { id: id() } })
    const due = plusDays(TODAY, 60)
    const { worklist } = await books.ok('unpaid', { query: { on: due } })
    expect(worklist.find((e) => e.customerId === made.customerId)).toMatchObject({
      act: 'letter',
      reason: expect.stringContaining('no reminder yet; not to be had by mail') as string,
    })
    const about = { params: { id: made.customerId } }
    const { reminder, mails } = await books.ok('owing', about)
    expect([mails, reminder.letter]).toEqual([false, expect.not.stringContaining('http')])
    const { messageId } = await books.ok('remind', {
      ...about,
      body: { id: id(), letter: true, step: reminder.step },
    })
    const after = await books.ok('owing', about)
    expect([after.reminder.step, after.said[0]!.text]).toEqual([
      reminder.step + 1,
      expect.stringContaining('by letter'),
    ])
    const kept = (await books.ok('messages', { query: { q: 'Paper Pauline' } })).items[0]!
    expect(kept).toMatchObject({ id: messageId, channel: 'letter', body: reminder.letter })
    expect(kept.to).toContain('Paper Pauline')
    const pdf = await books.send('letter', { params: { id: messageId } })
    expect([pdf.status, pdf.text.slice(0, 5)]).toEqual([200, '%PDF-'])
    expect((await books.send('letter', { params: { id: id() } })).status).toBe(404)
  })
})

describe('a message that failed', () => {
  it('is let be by hand, and waits for nobody any more', async () => {
    const db = await database()
    const messageId = id()
    await db.query(
      `INSERT INTO messages (id, kind, recipients, subject, body, state, error, created_at)
      VALUES (?, 'receipt', '["x@example.com"]', 'Gone', '', 'failed', 'no such box', NOW(3))`,
      [messageId],
    )
    await db.end()
    const waits = async () =>
      (await office.ok('toActOn')).places
        .find(({ place }) => place === 'mail')!
        .items.some((item) => item.id === messageId)
    expect(await waits()).toBe(true)
    const letBe = () => office.send('letMessageBe', { params: { id: messageId } })
    expect((await letBe()).status).toBe(200)
    expect(await waits()).toBe(false)
    expect((await letBe()).status).toBe(404)
  })
  it('and was an invoice’s leaves the invoice among those that nobody got', async () => {
    const { workOrderId } = await somethingToBill(office)
    const params = { id: workOrderId }
    const mine = await office.ok('makeInvoice', { params, body: { id: id() } })
    const db = await database()
    const messageId = id()
    await db.query('UPDATE invoices SET sent = TRUE WHERE id = ?', [mine.id])
    await db.query(
      `INSERT INTO messages (id, kind, invoice_id, recipients, subject, body, state, error, created_at)
      VALUES (?, 'invoice', ?, '["x@example.com"]', 'Bill', '', 'failed', 'no such box', NOW(3))`,
      [messageId, mine.id],
    )
    const isUnsent = async () =>
      (
        await office.ok('invoices', { query: { state: 'unsent', q: mine.paper.number } })
      ).items.some((one) => one.id === mine.id)
    expect(await isUnsent()).toBe(true)
    await office.ok('letMessageBe', { params: { id: messageId } })
    expect(await isUnsent()).toBe(true)
    await db.end()
  })
  it('and would be a letter to nowhere is not written', async () => {
    const { version } = await office.ok('customer', { params: { id: customerId } })
    const params = { id: customerId }
    await office.ok('changeCustomer', { params, body: { version, line1: '' } })
    const reply = await books.send('remind', { params, body: { id: id(), letter: true } })
    expect([reply.status, reply.body.errors?.[0]?.path]).toEqual([422, 'letter'])
  })
})
