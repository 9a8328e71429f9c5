// How papers look, what is written with them, what is taken off, and by when taxes hold: set up, and seen on papers made then.
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Body } from '../../shared/api'
import { USUAL_LAYOUT } from '../../core/documents/paperLayout'
import { invoiceDocument } from '../../core/invoices/invoiceDocument'
import { plusDays } from '../../core/time/zone'
import {
  callerNamed,
  database,
  id,
  signedIn,
  somethingToBill,
  textOfPdf,
  until,
  type Client,
} from './client'

let owner: Client
let office: Client
let books: Client
beforeAll(async () => {
  ;[owner, office, books] = await Promise.all([
    signedIn('owner'),
    signedIn('office'),
    signedIn('books'),
  ])
})
type Layout = Omit<Body<'keepLayout'>, 'id' | 'version'>
const layoutOf = (said: Partial<Layout> & Pick<Layout, 'kind' | 'name'>): Layout => ({
  ...{ usual: false, retired: false, ...USUAL_LAYOUT },
  ...said,
})
const kept = async (key: string) => (await owner.ok('layouts')).items.find((one) => one.id === key)!
async function make(said: Parameters<typeof layoutOf>[0]): Promise<string> {
  const key = id()
  await owner.ok('keepLayout', { body: { id: key, version: 0, ...layoutOf(said) } })
  return key
}
/** No paper of other tests has them. */
afterAll(async () => {
  const db = await database()
  await db.query('UPDATE paper_layouts SET is_usual = FALSE, retired = TRUE')
  await db.query('UPDATE customers SET quote_layout_id = NULL, invoice_layout_id = NULL')
  await db.end()
})
const bill = async (body: object = {}) => {
  const work = await somethingToBill(office)
  const body_ = { id: id(), ...body }
  const invoice = await office.ok('makeInvoice', { params: { id: work.workOrderId }, body: body_ })
  return { ...work, invoice }
}

describe('a layout', () => {
  it('is on papers made from then on, in the words that it says; those from before stay', async () => {
    const before = await bill()
    const name = `Rechnung ${id().slice(-5)}`
    const words = { title: 'Rechnung {number}', total: 'Summe' }
    const key = await make({ kind: 'invoice', name, usual: true, words, opening: 'Für {title}:' })
    const { invoice } = await bill()
    expect(invoice.paper.layout).toMatchObject({ words, opening: 'Für {title}:' })
    const said = textOfPdf((await office.raw('GET', `/api/v1/invoices/${invoice.id}.pdf`)).bytes)
    for (const text of [`Rechnung ${invoice.paper.number}`, 'Summe', 'Für Test work:'])
      expect(said).toContain(text)
    const old = await office.raw('GET', `/api/v1/invoices/${before.invoice.id}.pdf`)
    expect(textOfPdf(old.bytes)).toContain(`Invoice ${before.invoice.paper.number}`)
    const { version } = await kept(key)
    const next = layoutOf({ kind: 'invoice', name, usual: true, words: { title: 'Nota {number}' } })
    await owner.ok('keepLayout', { body: { id: key, version, ...next } })
    const again = await office.ok('invoice', { params: { id: invoice.id } })
    expect(invoiceDocument(again.paper as never, again).title).toBe(
      `Rechnung ${invoice.paper.number}`,
    )
  })
  it('of a customer comes before the usual, and one that is said for a paper before both', async () => {
    await make({ kind: 'invoice', name: `Usual ${id().slice(-5)}`, usual: true, subject: 'usual' })
    const theirs = await make({
      kind: 'invoice',
      name: `Theirs ${id().slice(-5)}`,
      subject: 'theirs',
    })
    const this_ = await make({ kind: 'invoice', name: `This ${id().slice(-5)}`, subject: 'this' })
    const subjectOf = async (body?: object) => (await bill(body)).invoice.paper.layout?.subject
    expect(await subjectOf()).toBe('usual')
    const { customerId } = await callerNamed(office, 'lowfold')
    const give = async (invoiceLayoutId: string | null) => {
      const { version } = await office.ok('customer', { params: { id: customerId! } })
      const body = { version, invoiceLayoutId }
      return office.ok('changeCustomer', { params: { id: customerId! }, body })
    }
    expect(await give(theirs)).toMatchObject({ invoiceLayoutId: theirs })
    expect(await subjectOf()).toBe('theirs')
    expect(await subjectOf({ layoutId: this_ })).toBe('this')
    // What was put away is on no paper any more.
    const { version, kind, name } = await kept(theirs)
    const away = { ...layoutOf({ kind, name, retired: true }), id: theirs, version }
    await owner.ok('keepLayout', { body: away })
    expect(await subjectOf()).toBe('usual')
    const { workOrderId } = await somethingToBill(office)
    const chosen = { id: id(), layoutId: theirs }
    expect(
      await office.send('makeInvoice', { params: { id: workOrderId }, body: chosen }),
    ).toMatchObject({ status: 422, body: { errors: [{ path: 'layoutId' }] } })
    await give(null)
  })
  it('of quotes is kept with the quote when it is sent', async () => {
    const c = await callerNamed(office, 'lowfold')
    const key = await make({
      kind: 'quote',
      name: `Estimate ${id().slice(-5)}`,
      words: { title: 'Estimate {number}' },
    })
    const line = { id: id(), kind: 'other', name: 'Look', quantity: '1', unitPrice: '10' } as const
    const quote = await office.ok('beginQuote', {
      body: {
        id: id(),
        customerId: c.customerId,
        siteId: c.sites[0]!.id,
        title: 'A look',
        lines: [line],
      },
    })
    await office.ok('sendQuote', {
      params: { id: quote.id },
      body: { version: quote.version, to: [], layoutId: key },
    })
    const pdf = await office.raw('GET', `/api/v1/quotes/${quote.id}.pdf`)
    expect(textOfPdf(pdf.bytes)).toContain(`Estimate ${quote.number}`)
  })
  it('is the one usual of its kind', async () => {
    const names = [1, 2].map((n) => `Sign ${n} ${id().slice(-5)}`)
    for (const name of names) await make({ kind: 'signed', name, usual: true })
    const { items } = await owner.ok('layoutNames')
    const usual = items.filter((one) => one.kind === 'signed' && one.usual)
    expect(usual.map(({ name }) => name)).toEqual([names[1]])
  })
  it.each([
    [{ opening: 'Dear {nmae}' }, 'opening'],
    [{ words: { title: 'Invoice {nummer}' } }, 'words.title'],
    [{ colour: '#ccddee' }, 'colour'],
    [{ usual: true, retired: true }, 'retired'],
  ])('is refused at the place that is wrong: %j', async (said, path) => {
    const body = { id: id(), version: 0, ...layoutOf({ kind: 'invoice', name: id(), ...said }) }
    expect(await owner.send('keepLayout', { body })).toMatchObject({
      ...{ status: 422, body: { errors: [{ path }] } },
    })
  })
  it('that somebody changed meanwhile is looked at again', async () => {
    const name = `Two ${id().slice(-5)}`
    const key = await make({ kind: 'quote', name })
    const { version } = await kept(key)
    const body = { id: key, version, ...layoutOf({ kind: 'quote', name, subject: 'first' }) }
    const replies = await Promise.all([
      owner.send('keepLayout', { body }),
      office.send('keepLayout', { body: { ...body, subject: 'second' } }),
    ])
    expect(replies.map(({ status }) => status).sort()).toEqual([200, 409])
    expect(replies.find(({ status }) => status === 409)!.body.code).toBe('stale')
  })
  it('is put back as it was, while nobody changed it since', async () => {
    const name = `Undo ${id().slice(-5)}`
    const key = await make({ kind: 'quote', name, subject: 'before' })
    const { version } = await kept(key)
    const next = layoutOf({ kind: 'quote', name, subject: 'after', columns: ['amount'] })
    await owner.ok('keepLayout', { body: { id: key, version, ...next } })
    const { items, undoable } = await owner.ok('settingsHistory')
    expect(undoable).toContain(items[0]!.id)
    // Nothing was there before it was made.
    expect(undoable).not.toContain(items[1]!.id)
    await owner.ok('undoSetting', { params: { entry: String(items[0]!.id) } })
    expect(await kept(key)).toMatchObject({
      layout: { subject: 'before', columns: ['quantity', 'each', 'amount'] },
    })
    expect(
      (await owner.send('undoSetting', { params: { entry: String(items[0]!.id) } })).body.code,
    ).toBe('stale')
  })
  it('is seen on the last paper of its kind, on the page and as PDF', async () => {
    const { invoice } = await bill()
    const { invoice: example } = await owner.ok('layoutExamples')
    expect(example?.number).toBe(invoice.paper.number)
    const key = await make({
      kind: 'invoice',
      name: `Seen ${id().slice(-5)}`,
      words: { title: 'Bill {number}' },
    })
    const pdf = await owner.raw('GET', `/api/v1/set-up/layouts/${key}/example.pdf`)
    expect(textOfPdf(pdf.bytes)).toContain(`Bill ${invoice.paper.number}`)
  })
})

describe('what is written with papers', () => {
  const wordsOf = async (kind: string) =>
    (await owner.ok('mailWords')).items.find((one) => one.kind === kind)!
  const keep = async (kind: 'bill' | 'reminder1', text: string) =>
    owner.send('keepMailWords', { body: { kind, text, shown: (await wordsOf(kind)).text } })
  it('is in the firm’s own words from then on, its fields filled', async () => {
    await keep('bill', 'Hello {name}, for “{title}”: {link}')
    const { workOrderId } = await somethingToBill(office)
    const { bill: shown } = await office.ok('workOrder', { params: { id: workOrderId } })
    expect(shown.mail).toMatch(/^Hello .+, for “Test work”: \{link\}$/)
    expect((await keep('bill', (await wordsOf('bill')).usual)).status).toBe(200)
    expect(await wordsOf('bill')).toMatchObject({ text: (await wordsOf('bill')).usual })
  })
  it('names only what is known, and is not changed over somebody else', async () => {
    expect(await keep('reminder1', 'Dear {nmae}')).toMatchObject({
      ...{ status: 422, body: { errors: [{ path: 'text' }] } },
    })
    const body = { kind: 'reminder1', text: 'x', shown: 'what nobody wrote' } as const
    expect((await owner.send('keepMailWords', { body })).body.code).toBe('stale')
  })
  it('comes to whoever asks, with what is made up in its fields', async () => {
    await owner.ok('tryMailWords', { body: { kind: 'reminder2', text: 'Of {name}: {sum} {list}' } })
    const mail = await until(async () => {
      const { items } = await owner.ok('messages', { query: { limit: '50' } })
      return items.find(({ subject }) => subject.includes('as a customer would read it'))
    })
    expect(mail.to).toBe('owner@demo.test')
  })
  it('is put back from the history', async () => {
    const was = (await wordsOf('reminder1')).text
    await keep('reminder1', 'Dear {name}, {sum} is open. {list}')
    const { items, undoable } = await owner.ok('settingsHistory')
    expect(undoable).toContain(items[0]!.id)
    await owner.ok('undoSetting', { params: { entry: String(items[0]!.id) } })
    expect((await wordsOf('reminder1')).text).toBe(was)
  })
})

describe('rates of tax', () => {
  const classOf = async (key: string) =>
    (await owner.ok('taxClasses')).classes.find((one) => one.id === key)!
  type Rates = Body<'keepTaxClass'>['rates']
  const rate = (said: Partial<Rates[number]>) => ({
    ...{ name: 'Levy', percent: '5', from: '', until: '', postcodes: '' },
    ...said,
  })
  const keep = async (rates: Rates) => {
    const { name, rates: shown } = await classOf('none')
    const body = { id: 'none', name, rates, shown: { name, rates: shown } }
    return owner.send('keepTaxClass', { body })
  }
  const line = { kind: 'other', name: 'Taxed', quantity: '1', unitPrice: '100' } as const
  /** What is charged on a line of that class, at a site. */
  async function charged(rates: Rates): Promise<string[]> {
    expect((await keep(rates)).status).toBe(200)
    const { workOrderId } = await somethingToBill(office)
    const db = await database()
    await db.query('UPDATE work_lines SET tax_class = "none" WHERE work_order_id = ?', [
      workOrderId,
    ])
    await db.end()
    const { paper } = await office.ok('makeInvoice', {
      params: { id: workOrderId },
      body: { id: id() },
    })
    return paper.taxes.map(({ name, tax }) => `${name} ${tax.amount}`)
  }
  afterAll(() => keep([]))
  it('hold from their day on: what is told ahead is not charged yet', async () => {
    const { today } = await owner.ok('session')
    const ahead = rate({ percent: '9', from: plusDays(today, 1) })
    expect(await charged([rate({}), ahead])).toEqual(['Levy 5.00'])
    const since = rate({ percent: '9', from: today })
    expect(await charged([rate({}), since])).toEqual(['Levy 9.00'])
    expect(await charged([rate({ until: plusDays(today, -1) })])).toEqual([])
  })
  it('hold where the work is', async () => {
    const c = await callerNamed(office, 'lowfold')
    const postcode = c.sites[0]!.postcode
    const here = rate({ name: 'Here', postcodes: postcode.slice(0, 3) })
    expect(await charged([here, rate({ name: 'There', postcodes: 'ZZ' })])).toEqual(['Here 5.00'])
  })
  it('are on quotes and signed papers as on invoices', async () => {
    const c = await callerNamed(office, 'lowfold')
    const { today } = await owner.ok('session')
    await keep([rate({}), rate({ percent: '9', from: plusDays(today, 1) })])
    const quote = await office.ok('beginQuote', {
      body: {
        id: id(),
        customerId: c.customerId,
        siteId: c.sites[0]!.id,
        title: 'x',
        lines: [{ ...line, id: id() }],
      },
    })
    const db = await database()
    await db.query('UPDATE quote_lines SET tax_class = "none" WHERE quote_id = ?', [quote.id])
    await db.end()
    const { price } = await office.ok('quote', { params: { id: quote.id } })
    expect(price.taxes.map(({ name, tax }) => `${name} ${tax.amount}`)).toEqual(['Levy 5.00'])
  })
  it('that end before they begin, or stand there twice, are refused', async () => {
    const backward = rate({ from: '2026-12-31', until: '2026-01-01' })
    expect((await keep([backward])).body.errors?.[0]?.path).toBe('rates[0].until')
    expect((await keep([rate({}), rate({ percent: '6' })])).body.errors?.[0]?.path).toBe(
      'rates[1].name',
    )
  })
  it('are put back from the history', async () => {
    await keep([rate({ percent: '3' })])
    await keep([rate({ percent: '4' })])
    const { items, undoable } = await owner.ok('settingsHistory')
    expect(undoable).toContain(items[0]!.id)
    await owner.ok('undoSetting', { params: { entry: String(items[0]!.id) } })
    expect((await classOf('none')).rates).toEqual([rate({ percent: '3' })])
  })
})

describe('price levels and care plans', () => {
  it('a level takes off what it says, from the next line on', async () => {
    const key = id()
    const off = [{ kind: 'other' as const, percent: '12.5' }]
    const name = `Landlords ${key.slice(-5)}`
    await owner.ok('keepPriceLevel', { body: { id: key, name, off } })
    expect((await books.ok('priceLevels')).items.find((one) => one.id === key)).toEqual({
      ...{ id: key, name, agreement: false, off },
    })
    const c = await callerNamed(office, 'lowfold')
    const { version, levelId } = await office.ok('customer', { params: { id: c.customerId! } })
    const params = { id: c.customerId! }
    const changed = await office.ok('changeCustomer', { params, body: { version, levelId: key } })
    const line = { id: id(), kind: 'other' as const, name: 'x', quantity: '1', unitPrice: '80' }
    const quote = await office.ok('beginQuote', {
      body: {
        id: id(),
        customerId: c.customerId,
        siteId: c.sites[0]!.id,
        title: 'x',
        lines: [line],
      },
    })
    expect(quote.price.net.amount).toBe('70.00')
    await office.ok('changeCustomer', { params, body: { version: changed.version, levelId } })
  })
  it('a level is not changed over somebody else, and its name is given once', async () => {
    const key = id()
    const body = { id: key, name: `Once ${key.slice(-5)}`, off: [] }
    await owner.ok('keepPriceLevel', { body })
    expect((await owner.send('keepPriceLevel', { body })).body.code).toBe('stale')
    const twice = { ...body, id: id(), name: body.name.toUpperCase() }
    expect((await owner.send('keepPriceLevel', { body: twice })).body.errors?.[0]?.path).toBe(
      'name',
    )
    expect((await books.send('keepPriceLevel', { body: twice })).status).toBe(403)
  })
  it('of two that are named alike at once one is kept, and the other is told', async () => {
    const name = `Twin ${id().slice(-5)}`
    const plan = { name, visitsAYear: 1, price: '10', work: 'Look' }
    const both = await Promise.all([
      ...[owner, office].map((who) => who.send('keepPlan', { body: { id: id(), ...plan } })),
      ...[owner, office].map((who) =>
        who.send('keepPriceLevel', { body: { id: id(), name, off: [] } }),
      ),
    ])
    const [plans, levels] = [both.slice(0, 2), both.slice(2)]
    for (const replies of [plans, levels])
      expect(replies.map(({ status }) => status).sort()).toEqual([200, 422])
    const { items } = await owner.ok('settingsHistory')
    expect(items.filter(({ text }) => text.includes(name))).toHaveLength(2)
  })
  it('both are put back from the history by whoever may change them, while nobody changed them since', async () => {
    const [levelId, planId] = [id(), id()]
    const off = [{ kind: 'part' as const, percent: '5' }]
    const level = { name: `Back ${levelId.slice(-5)}`, agreement: false, off }
    await owner.ok('keepPriceLevel', { body: { id: levelId, ...level } })
    const less = [{ kind: 'part' as const, percent: '7.50' }]
    const asked = { id: levelId, ...level, off: less, shown: level }
    await owner.ok('keepPriceLevel', { body: asked })
    const plan = { name: level.name, visitsAYear: 1, price: '10', work: 'Look' }
    await owner.ok('keepPlan', { body: { id: planId, ...plan } })
    const planNow = async () => (await owner.ok('plans')).items.find((one) => one.id === planId)!
    const { id: _, ...shown } = await planNow()
    await owner.ok('keepPlan', { body: { id: planId, ...shown, price: '12', shown } })

    const { items, undoable } = await owner.ok('settingsHistory')
    const ours = items.filter(({ text }) => text.includes(level.name)).map((one) => one.id)
    const [newPlan, madePlan, newLevel, madeLevel] = ours
    expect(ours.filter((entry) => undoable.includes(entry))).toEqual([newPlan, newLevel])
    const back = (entry: unknown, by = owner) =>
      by.send('undoSetting', { params: { entry: String(entry) } })
    expect((await back(madePlan)).status).toBe(404)
    expect((await back(madeLevel)).status).toBe(404)
    expect([(await back(newPlan)).status, (await back(newLevel)).status]).toEqual([200, 200])
    expect((await planNow()).price).toBe('10.00')
    const levelNow = (await owner.ok('priceLevels')).items.find((one) => one.id === levelId)
    expect(levelNow).toMatchObject({ off })
    expect((await back(newPlan)).body.code).toBe('stale')
    expect((await back(newLevel, books)).status).toBe(403)
  })
  it('a plan is changed for agreements made from then on, and put away', async () => {
    const key = id()
    const plan = {
      name: `Plan ${key.slice(-5)}`,
      visitsAYear: 2,
      price: '90',
      work: 'Look after it',
    }
    await office.ok('keepPlan', { body: { id: key, ...plan } })
    const { items } = await office.ok('plans')
    const { id: _, ...shown } = items.find((one) => one.id === key)!
    expect(shown).toMatchObject({ ...plan, price: '90.00', minutes: 60, retired: false })
    const next = { ...shown, price: '99.50', retired: true }
    await office.ok('keepPlan', { body: { id: key, ...next, shown } })
    expect((await office.send('keepPlan', { body: { id: key, ...next, shown } })).body.code).toBe(
      'stale',
    )
    const c = await callerNamed(office, 'lowfold')
    const body = {
      id: id(),
      customerId: c.customerId!,
      siteId: c.sites[0]!.id,
      planId: key,
      startsOn: '2026-12-01',
    }
    expect((await office.send('newAgreement', { body })).body.errors?.[0]?.path).toBe('planId')
  })
})
