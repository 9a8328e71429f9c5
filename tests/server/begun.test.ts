// What begins without all of it being known: a bill without a visit, a site whose address follows; and what stays linked: what was supplied
// before, the call that a quote came of, the payments of a customer.
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { closePool } from '../../server/db/pool'
import { callerNamed, type Client, database, id, setClock, signedIn } from './client'

let office: Client
beforeAll(async () => {
  setClock('2026-11-24T10:21')
  office = await signedIn('office')
})
afterAll(closePool)
const line = (name: string, unitPrice: string) => ({
  ...{ id: id(), kind: 'other' as const, name, unitPrice, quantity: '1' },
})

describe('something that is billed without a visit', () => {
  const begun = async () => {
    const { customerId, sites } = await callerNamed(office, 'wren cottages')
    const body = { id: id(), customerId, siteId: sites[0]!.id, title: 'A year of salt' }
    const work = await office.ok('beginBill', { body })
    return { work, body, params: { id: work.id } }
  }
  it('waits among what is to bill from its beginning, and is billed and paid like any work', async () => {
    const { work, params } = await begun()
    expect(work).toMatchObject({ state: 'to_bill', title: 'A year of salt', visits: [] })
    expect(work.history.at(-1)!.text).toMatch(/begun to be billed, without a visit: A year of salt/)
    const body = { visitId: null, lines: [line('Salt', '88.00')] }
    const priced = await office.ok('addLines', { params, body })
    const invoice = await office.ok('makeInvoice', {
      params,
      body: { id: id(), to: [], shownTotal: priced.bill.total.amount },
    })
    expect(invoice.paper.number).toMatch(/^I-/)
    expect((await office.ok('workOrder', { params })).state).toBe('billed')
  })
  it('stays there when all of it is taken out again: it never needs a slot', async () => {
    const { params } = await begun()
    const salt = line('Salt', '88.00')
    await office.ok('addLines', { params, body: { visitId: null, lines: [salt] } })
    const { lines } = await office.ok('workOrder', { params })
    const gone = { version: lines[0]!.version, removed: true }
    const empty = await office.ok('changeLine', { params: { id: salt.id }, body: gone })
    expect(empty).toMatchObject({ state: 'to_bill', visits: [] })
    const cancelled = { params, body: { reason: 'They changed their mind' } }
    expect((await office.ok('cancelWorkOrder', cancelled)).state).toBe('cancelled')
  })
  it('is of a customer’s own site, and says what it is', async () => {
    const { body } = await begun()
    const { sites } = await callerNamed(office, 'hallam dairy')
    const other = await office.send('beginBill', {
      body: { ...body, id: id(), siteId: sites[0]!.id },
    })
    expect(other).toMatchObject({ status: 422, body: { errors: [{ path: 'siteId' }] } })
    const nameless = await office.send('beginBill', { body: { ...body, id: id(), title: '' } })
    expect(nameless).toMatchObject({ status: 422, body: { errors: [{ path: 'title' }] } })
  })
})

describe('an address that follows later', () => {
  it('keeps nobody from booking, is said, and is there for everybody once it is known', async () => {
    const [customerId, siteId, workOrderId, visitId] = [id(), id(), id(), id()]
    const body = { id: customerId, siteId, name: 'Orla Tansy', phone: '6075550143' }
    const caller = await office.ok('newCustomer', { body })
    expect(caller.sites).toMatchObject([{ id: siteId, line1: '', town: '' }])
    const dispatch = await signedIn('dispatch')
    const { technicians } = await dispatch.ok('schedule', { query: { date: '2026-11-27' } })
    const place = {
      ...{ siteId, technicianId: technicians[0]!.id, durationSeconds: 3600 },
      startAt: '2026-11-27T19:00:00.000Z',
    }
    const said = await office.ok('checkPlacement', { body: place })
    expect(said.warnings).toContainEqual({
      ...{ code: 'no_address', text: 'its address is still to follow' },
    })
    await office.ok('bookCall', {
      params: { id: id() },
      body: { workOrderId, visitId, customerId, siteId, problem: 'Tap drips' },
    })
    const { tray } = await dispatch.ok('schedule', { query: { date: '2026-11-27' } })
    expect(tray.find((visit) => visit.id === visitId)).toMatchObject({ place: 'address to follow' })
    const known = { version: caller.sites[0]!.version, line1: '9 Weir Lane', town: 'Larkmoor' }
    await office.ok('changeSite', { params: { id: siteId }, body: known })
    const work = await office.ok('workOrder', { params: { id: workOrderId } })
    expect(work).toMatchObject({ site: { line1: '9 Weir Lane' }, changedDetails: [] })
    const after = await dispatch.ok('schedule', { query: { date: '2026-11-27' } })
    expect(after.tray.find((visit) => visit.id === visitId)).toMatchObject({ place: '9 Weir Lane' })
  })
  it('once known is the work order’s own, on the board, too', async () => {
    const { customerId, sites } = await callerNamed(office, 'fenn orchard')
    const [workOrderId, visitId] = [id(), id()]
    const [site] = sites
    await office.ok('bookCall', {
      params: { id: id() },
      body: {
        ...{ workOrderId, visitId, customerId, siteId: site!.id, problem: 'Hose bib leaks' },
        reason: 'as agreed',
      },
    })
    const inTray = async () => {
      const { tray } = await office.ok('schedule', { query: { date: '2026-11-24' } })
      return tray.find((visit) => visit.id === visitId)!.place
    }
    const was = await inTray()
    const moved = { version: site!.version, line1: '1 New Road' }
    const now = await office.ok('changeSite', { params: { id: site!.id }, body: moved })
    expect(await inTray()).toBe(was)
    await office.ok('carryOver', { params: { id: workOrderId } })
    expect(await inTray()).toContain('1 New Road')
    const { version } = now.sites.find((one) => one.id === site!.id)!
    const back = { version, line1: site!.line1 }
    await office.ok('changeSite', { params: { id: site!.id }, body: back })
  })
})

describe('what was supplied before', () => {
  it('stays linked to the work that it failed for, with our warranty as it is given', async () => {
    const owner = await signedIn('owner')
    await owner.ok('keepWarranty', { body: { months: 12 } })
    const peel = await callerNamed(office, 'peel daughters')
    const [item] = peel.supplied
    expect(item!.warrantyUntil!.slice(5)).toBe(item!.on.slice(5))
    expect(Number(item!.warrantyUntil!.slice(0, 4))).toBe(Number(item!.on.slice(0, 4)) + 1)
    const booking = (siteId: string) => ({
      params: { id: id() },
      body: {
        ...{ workOrderId: id(), visitId: id(), customerId: peel.customerId, siteId },
        ...{ suppliedLineId: item!.lineId, problem: 'It failed', reason: 'as agreed' },
      },
    })
    const booked = booking(item!.siteId)
    await office.ok('bookCall', booked)
    const work = await office.ok('workOrder', { params: { id: booked.body.workOrderId } })
    expect(work.supplied).toEqual(item)
    const { customerId, sites } = await callerNamed(office, 'hallam dairy')
    const elsewhere = booking(sites[0]!.id)
    const foreign = { ...elsewhere, body: { ...elsewhere.body, customerId } }
    expect(await office.send('bookCall', foreign)).toMatchObject({
      ...{ status: 422, body: { errors: [{ path: 'suppliedLineId' }] } },
    })
    // Who gives none says nothing of one.
    await owner.ok('keepWarranty', { body: { months: 0 } })
    const none = await callerNamed(office, 'peel daughters')
    expect(none.supplied[0]!.warrantyUntil).toBeNull()
    await owner.ok('keepWarranty', { body: { months: 24 } })
    for (const months of [121, null]) {
      const wrong = await owner.send('keepWarranty', { body: { months } })
      expect(wrong).toMatchObject({ status: 422, body: { errors: [{ path: 'months' }] } })
    }
  })
})

describe('what came before a quote', () => {
  it('is told in its history, and what came with the call is at hand', async () => {
    const { customerId, sites } = await callerNamed(office, 'fenn orchard')
    const [callId, fileId, quoteId] = [id(), id(), id()]
    const draft = { customerId, siteId: sites[0]!.id, problem: 'Wants a softener' }
    await office.ok('saveCall', {
      params: { id: callId },
      body: { draft, summary: 'A softener', origin: 'telephone', version: null },
    })
    const data = Buffer.from('%PDF-1.4\n%%EOF').toString('base64')
    await office.ok('addFile', { body: { id: fileId, callId, name: 'plan.pdf', data } })
    const quote = await office.ok('beginQuote', {
      body: { id: quoteId, callId, customerId, siteId: sites[0]!.id, scope: 'A softener' },
    })
    expect(quote.files).toEqual([{ id: fileId, name: 'plan.pdf' }])
    const told = quote.history.map(({ text }) => text)
    expect(told.findIndex((text) => /begun/i.test(text))).toBeGreaterThanOrEqual(0)
    expect(told.length).toBeGreaterThan(1)
    const earlier = await office.ok('quoteEarlier', {
      params: { id: quoteId },
      query: { before: String(quote.history[0]!.id) },
    })
    expect(earlier.items.map(({ text }) => text)).toEqual(told.slice(1))
  })
})

describe('the payments of a customer', () => {
  it('are on their page with what they paid, and what is on no invoice', async () => {
    const books = await signedIn('books')
    const { customerId } = await callerNamed(office, 'tansy')
    const paid = await books.ok('pay', {
      body: {
        ...{ id: id(), customerId, method: 'cash', amount: '10.00' },
        mayLeaveCredit: true,
      },
    })
    const { payments } = await books.ok('customer', { params: { id: customerId } })
    expect(payments[0]).toMatchObject({
      ...{ number: paid.number, method: 'cash', amount: { amount: '10.00' } },
      ...{ invoices: '', left: { amount: '10.00' }, takenBack: null },
    })
    await books.ok('takeBack', {
      params: { id: paid.id },
      body: { why: 'mistyped', reason: 'Somebody else paid' },
    })
    const after = await books.ok('customer', { params: { id: customerId } })
    expect(after.payments[0]).toMatchObject({ takenBack: 'mistyped', left: { amount: '0.00' } })
    const found = await books.ok('find', { query: { q: paid.number } })
    expect(found.items[0]).toMatchObject({
      kind: 'receipt',
      to: `/customers/${customerId}#payments`,
    })
  })
})

describe('a care agreement whose visit is due', () => {
  it('waits in its place until the visit is made, and comes to nothing else', async () => {
    const db = await database()
    const [[due]] = (await db.query(
      `SELECT a.id, a.visit_due_on AS was FROM agreements a WHERE a.ends_on > '2027-01-01' AND NOT EXISTS
      (SELECT 1 FROM work_orders w WHERE w.site_id = a.site_id AND w.kind = 'service' AND w.state IN
      ('needs_slot', 'scheduled', 'on_site', 'paused')) ORDER BY a.id LIMIT 1`,
    )) as unknown as [[{ id: string; was: string | null }]]
    const dueOn = (day: string | null) =>
      db.query('UPDATE agreements SET visit_due_on = ? WHERE id = ?', [day, due.id])
    const waiting = async () => {
      const { places } = await office.ok('toActOn')
      const { items = [] } = places.find(({ place }) => place === 'agreements') ?? {}
      return items.find((item) => item.id === due.id)
    }
    await dueOn('2026-11-20')
    expect(await waiting()).toMatchObject({ next: 'Make the visit', kind: 'agreement' })
    await dueOn('2026-12-01')
    expect(await waiting()).toBeUndefined()
    await dueOn('2026-11-20')
    await office.ok('bookDueVisits', {
      body: { items: [{ agreementId: due.id, workOrderId: id(), visitId: id() }] },
    })
    expect(await waiting()).toBeUndefined()
    await db.end()
  })
})
