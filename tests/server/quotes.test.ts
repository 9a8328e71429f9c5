// Quotes: from the wish to promised work; frozen once sent; who may see them; the paper and the mail.
import { beforeAll, describe, expect, it } from 'vitest'
import type { Answer } from '../../shared/api'
import {
  base,
  callerNamed,
  Client,
  database,
  forgetClocksAfter,
  id,
  setClock,
  signedIn,
  textOfPdf,
  until,
} from './client'

let office: Client
beforeAll(async () => {
  setClock('2026-11-24T10:21')
  office = await signedIn('office')
})
const task = async (q: string) =>
  (await office.ok('searchPriceBook', { query: { q, kind: 'task' } })).items[0]!
async function begun(words = 'lowfold') {
  const c = await callerNamed(office, words)
  const entry = await task('softener')
  const quote = await office.ok('beginQuote', {
    body: {
      id: id(),
      customerId: c.customerId,
      siteId: c.sites[0]!.id,
      title: 'A softener',
      scope: 'Beside the tank',
      lines: [{ id: id(), entryId: entry.id, quantity: '2' }],
    },
  })
  return { quote, c, entry }
}
const sent = async () => {
  const { quote, ...rest } = await begun()
  return {
    quote: await office.ok('sendQuote', {
      params: { id: quote.id },
      body: { version: quote.version, to: [] },
    }),
    ...rest,
  }
}
const answer = (version: number, accepted: boolean) => ({
  version,
  accepted,
  words: 'rang us',
  workOrderId: id(),
  visitId: id(),
})

describe('a quote', () => {
  it('has its number at once, is priced from the book, and held for thirty days', async () => {
    const { quote, entry } = await begun()
    expect(quote.number).toMatch(/^Q-\d+$/)
    expect(quote.expiresOn).toBe('2026-12-24')
    expect(Number(quote.price.net.amount)).toBeCloseTo(Number(quote.lines[0]!.net.amount), 2)
    expect(Number(quote.lines[0]!.unitPrice)).toBe(Number(entry.price))
    expect(Number(quote.price.total.amount)).toBeCloseTo(
      Number(quote.price.net.amount) + Number(quote.price.tax.amount),
      2,
    )
  })
  it('is changed as a draft, line by line, and refuses what somebody changed in the meantime', async () => {
    const { quote } = await begun()
    const lines = [
      {
        id: quote.lines[0]!.id,
        entryId: quote.lines[0]!.entryId,
        quantity: '1',
        unitPrice: '99.50',
      },
      { id: id(), name: 'Drain pipe', kind: 'other' as const, quantity: '3', unitPrice: '4.20' },
    ]
    const changed = await office.ok('changeQuote', {
      params: { id: quote.id },
      body: { version: quote.version, title: 'Softener and drain', lines },
    })
    // This customer has a care agreement: its saving is taken off the lines, the one with an own price too.
    expect(
      changed.lines.map((l) => (Number(l.net.amount) + Number(l.discount.amount)).toFixed(2)),
    ).toEqual(['99.50', '12.60'])
    expect(changed.lines[0]!.discount.amount).toBe('14.93')
    expect(changed.price.net.amount).toBe(
      changed.lines.reduce((sum, l) => sum + Number(l.net.amount), 0).toFixed(2),
    )
    const stale = await office.send('changeQuote', {
      params: { id: quote.id },
      body: { version: quote.version, title: 'Mine' },
    })
    expect([stale.status, stale.body.code]).toEqual([409, 'stale'])
    const zero = await office.send('changeQuote', {
      params: { id: quote.id },
      body: { version: changed.version, lines: [{ ...lines[0]!, quantity: '0' }] },
    })
    expect([zero.status, zero.body.errors?.[0]?.path]).toEqual([422, 'lines[0].quantity'])
    expect(
      (
        await office.send('changeQuote', {
          params: { id: quote.id },
          body: { version: changed.version, expiresOn: '2026-11-23' },
        })
      ).body.errors?.[0]?.path,
    ).toBe('expiresOn')
  })
  it('stays as it was sent; taken back it can be changed again', async () => {
    const { quote } = await sent()
    expect(quote.state).toBe('sent')
    const refused = await office.send('changeQuote', {
      params: { id: quote.id },
      body: { version: quote.version, title: 'Other' },
    })
    expect([refused.status, refused.body.code]).toEqual([409, 'quote_sent'])
    const back = await office.ok('reopenQuote', {
      params: { id: quote.id },
      body: { version: quote.version },
    })
    expect(back.state).toBe('draft')
    expect(
      (
        await office.ok('changeQuote', {
          params: { id: quote.id },
          body: { version: back.version, title: 'Other' },
        })
      ).title,
    ).toBe('Other')
  })
  it('without lines, or never sent, goes nowhere', async () => {
    const c = await callerNamed(office, 'lowfold')
    const empty = await office.ok('beginQuote', {
      body: { id: id(), customerId: c.customerId, siteId: c.sites[0]!.id, title: 'Nothing yet' },
    })
    expect(
      (
        await office.send('sendQuote', {
          params: { id: empty.id },
          body: { version: empty.version, to: [] },
        })
      ).body.errors?.[0]?.path,
    ).toBe('lines')
    const { quote } = await begun()
    expect(
      (
        await office.send('answerQuote', {
          params: { id: quote.id },
          body: answer(quote.version, true),
        })
      ).body.code,
    ).toBe('quote_draft')
  })
  it('accepted becomes promised work that waits for its slot, once', async () => {
    const { quote } = await sent()
    const body = answer(quote.version, true)
    const yes = await office.ok('answerQuote', { params: { id: quote.id }, body })
    expect([yes.state, yes.answer]).toEqual(['accepted', 'rang us'])
    const work = await office.ok('workOrder', { params: { id: yes.workOrder!.id } })
    expect(work.state).toBe('needs_slot')
    expect(work.totals.promised.amount).toBe(quote.price.net.amount)
    expect(work.totals.done.amount).toBe('0.00')
    expect(work.quotes.map((q) => q.number)).toEqual([quote.number])
    expect(
      (
        await office.send('answerQuote', {
          params: { id: quote.id },
          body: { ...body, version: yes.version },
        })
      ).body.code,
    ).toBe('already_answered')
    expect(
      (await office.ok('schedule')).tray.some((v) => v.workOrderId === yes.workOrder!.id),
    ).toBe(true)
  })
  it('past its day is not accepted at the old price', async () => {
    const { quote } = await sent()
    setClock('2026-12-25T09:00')
    expect((await office.ok('quote', { params: { id: quote.id } })).state).toBe('expired')
    expect(
      (
        await office.send('answerQuote', {
          params: { id: quote.id },
          body: answer(quote.version, true),
        })
      ).body.code,
    ).toBe('quote_expired')
    const back = await office.ok('reopenQuote', {
      params: { id: quote.id },
      body: { version: quote.version },
    })
    expect(back.expiresOn).toBe('2027-01-24')
    setClock('2026-11-24T10:21')
  })
})
describe('the way from a prospect to a quote', () => {
  it('a visit to quote: nothing to bill, the quote is with the person who goes, the yes comes back as a further visit', async () => {
    const rosa = await signedIn({ email: 'rosa@demo.test' })
    const me = (await rosa.ok('session')).person.id
    const prospect = await office.ok('newCustomer', {
      body: {
        id: id(),
        siteId: id(),
        name: 'Ottoline Fenwick',
        line1: '3 Quarry Row',
        prospect: true,
        phone: '+44 20 7946 0911',
      },
    })
    const ids = { workOrderId: id(), visitId: id() }
    await office.ok('bookCall', {
      params: { id: id() },
      body: {
        ...ids,
        customerId: prospect.customerId,
        siteId: prospect.sites[0]!.id,
        problem: 'Wants a price for a filter',
        kind: 'quote_visit',
        technicianId: me,
        date: '2026-11-26',
        start: '16:00',
        source: 'neighbour',
        override: true,
      },
    })
    expect((await office.ok('workOrder', { params: { id: ids.workOrderId } })).source).toBe(
      'neighbour',
    )
    const quote = await rosa.ok('beginQuote', {
      body: {
        id: id(),
        workOrderId: ids.workOrderId,
        lines: [{ id: id(), entryId: (await task('iron filter')).id, quantity: '1' }],
      },
    })
    expect(quote.owner?.id).toBe(me)
    setClock('2026-11-26T16:05')
    await forgetClocksAfter('2026-11-26T21:05Z')
    for (const act of ['set_off', 'arrive', 'finish'] as const)
      await office.ok('clock', { params: { id: ids.visitId }, body: { act } })
    expect((await office.ok('workOrder', { params: { id: ids.workOrderId } })).state).toBe('closed')
    const handed = await rosa.ok('sendQuote', {
      params: { id: quote.id },
      body: { version: quote.version, to: [] },
    })
    expect(
      (await office.ok('caller', { params: { id: prospect.customerId } })).quotes.map(
        (q) => q.number,
      ),
    ).toEqual([quote.number])
    await office.ok('answerQuote', { params: { id: quote.id }, body: answer(handed.version, true) })
    const work = await office.ok('workOrder', { params: { id: ids.workOrderId } })
    expect([work.state, work.visits.length, work.source]).toEqual(['needs_slot', 2, 'neighbour'])
    expect((await office.ok('caller', { params: { id: prospect.customerId } })).prospect).toBe(
      false,
    )
    setClock('2026-11-24T10:21')
  })
  it('somebody else pays: the price follows who pays, the work is made for them, at the same place', async () => {
    const { quote, c } = await begun()
    const landlord = await callerNamed(office, 'crossways')
    const changed = await office.ok('changeQuote', {
      params: { id: quote.id },
      body: { version: quote.version, customerId: landlord.customerId },
    })
    expect([changed.customer.id, changed.site.belongsTo]).toEqual([landlord.customerId, c.name])
    // What was agreed with the one who pays now stands over the book; a price typed by hand stays as it is.
    const entryId = changed.lines.find((l) => l.entryId)!.entryId!
    const own = await office.ok('customer', { params: { id: landlord.customerId } })
    const agreed = await office.ok('changeCustomer', {
      params: { id: own.id },
      body: { version: own.version, ownPrices: [{ entryId, price: '77.70' }] },
    })
    const other = await begun()
    const typed = { id: id(), kind: 'other', name: 'Scaffold', quantity: '1', unitPrice: '12.34' }
    const more = await office.ok('changeQuote', {
      params: { id: other.quote.id },
      body: {
        version: other.quote.version,
        lines: [
          ...other.quote.lines.map((l) => ({
            id: l.id,
            entryId: l.entryId,
            kind: l.kind,
            name: l.name,
            quantity: l.quantity,
            unitPrice: l.unitPrice,
          })),
          typed,
        ],
      },
    })
    const theirs = await office.ok('changeQuote', {
      params: { id: other.quote.id },
      body: { version: more.version, customerId: landlord.customerId },
    })
    expect([
      theirs.lines.find((l) => l.entryId === entryId)!.unitPrice,
      theirs.lines.find((l) => l.name === 'Scaffold')!.unitPrice,
    ]).toEqual(['77.70', '12.34'])
    await office.ok('changeCustomer', {
      params: { id: own.id },
      body: { version: agreed.version, ownPrices: [] },
    })
    const out = await office.ok('sendQuote', {
      params: { id: quote.id },
      body: { version: changed.version, to: [] },
    })
    const yes = await office.ok('answerQuote', {
      params: { id: quote.id },
      body: answer(out.version, true),
    })
    const work = await office.ok('workOrder', { params: { id: yes.workOrder!.id } })
    expect([work.customer.id, work.site.id]).toEqual([landlord.customerId, c.sites[0]!.id])
  })
  it('from a call: the call has its answer, and cannot have another one', async () => {
    const c = await callerNamed(office, 'lowfold')
    const callId = id()
    await office.ok('saveCall', {
      params: { id: callId },
      body: { draft: { query: 'x' }, summary: 'Price for a filter' },
    })
    const quote = await office.ok('beginQuote', {
      body: {
        id: id(),
        callId,
        customerId: c.customerId,
        siteId: c.sites[0]!.id,
        scope: 'Price for a filter',
        answers: [
          { questionId: id(), question: 'Who heard of us', answer: 'A neighbour' },
          { questionId: id(), question: 'Not asked', answer: '' },
        ],
      },
    })
    expect((await office.ok('calls')).items.some((k) => k.id === callId)).toBe(false)
    expect(quote.answers).toEqual([{ question: 'Who heard of us', answer: 'A neighbour' }])
    const again = await office.send('beginQuote', {
      body: { id: id(), callId, customerId: c.customerId, siteId: c.sites[0]!.id, scope: 'Again' },
    })
    expect([again.status, again.body.code]).toEqual([409, 'already_answered'])
  })
})
describe('what a quote is about', () => {
  it('comes with the call, and goes along to the work; it is at the site', async () => {
    const peel = await callerNamed(office, 'peel daughters')
    const [item] = peel.supplied
    const entry = await task('softener')
    const begin = (siteId: string) =>
      office.send('beginQuote', {
        body: {
          ...{ id: id(), callId: id(), customerId: peel.customerId, siteId, scope: 'It failed' },
          suppliedLineId: item!.lineId,
          lines: [{ id: id(), entryId: entry.id, quantity: '1' }],
        },
      })
    const elsewhere = (await callerNamed(office, 'hallam dairy')).sites[0]!.id
    expect(await begin(elsewhere)).toMatchObject({
      ...{ status: 422, body: { errors: [{ path: 'suppliedLineId' }] } },
    })
    const quote = (await begin(item!.siteId)).body as unknown as Answer<'quote'>
    expect(quote.supplied).toEqual(item)
    const params = { id: quote.id }
    const ready = await office.ok('sendQuote', { params, body: { version: quote.version } })
    const { workOrder } = await office.ok('answerQuote', {
      params,
      body: answer(ready.version, true),
    })
    const work = await office.ok('workOrder', { params: { id: workOrder!.id } })
    expect(work.supplied).toMatchObject({ lineId: item!.lineId })
  })
})
describe('who sees a quote, and where it goes', () => {
  it('a technician sees only those of their own work', async () => {
    const { quote } = await begun()
    const rosa = await signedIn({ email: 'rosa@demo.test' })
    for (const name of ['quote', 'quotePdf'] as const)
      expect((await rosa.send(name, { params: { id: quote.id } })).status).toBe(404)
    expect(
      (
        await rosa.send('sendQuote', {
          params: { id: quote.id },
          body: { version: quote.version, to: [] },
        })
      ).status,
    ).toBe(404)
    const c = await callerNamed(office, 'lowfold')
    expect(
      (
        await rosa.send('beginQuote', {
          body: { id: id(), customerId: c.customerId, siteId: c.sites[0]!.id, title: 'x' },
        })
      ).status,
    ).toBe(404)
  })
  it('goes out as a mail with the PDF that was frozen, and without what it costs us', async () => {
    const { quote } = await begun()
    await office.ok('sendQuote', {
      params: { id: quote.id },
      body: { version: quote.version, to: ['lowfold@example.com'] },
    })
    await until(async () =>
      (await office.ok('messages', { query: { q: quote.number } })).items.some(
        (m) => m.state === 'delivered' && m.attachment === 'quote PDF',
      ),
    )
    const text = textOfPdf((await office.send('quotePdf', { params: { id: quote.id } })).bytes)
    expect(text).toContain(`Quote ${quote.number}`)
    expect(text).toContain('Price held until December 24, 2026')
    expect(text).toContain(
      new Intl.NumberFormat('en-US', { style: 'currency', currency: 'USD' }).format(
        Number(quote.price.total.amount),
      ),
    )
    expect(text).not.toMatch(/cost|margin/i)
  })
  it('is found by its number, and counted beside the run', async () => {
    const before = (await office.ok('run')).quotes
    const { quote } = await begun()
    expect((await office.ok('find', { query: { q: quote.number } })).items[0]).toMatchObject({
      kind: 'quote',
      to: `/quotes/${quote.id}`,
    })
    expect((await office.ok('run')).quotes.count).toBe(before.count + 1)
    const page = await office.ok('quotes', { query: { state: 'draft', q: quote.number } })
    expect(page.items.map((q) => q.waiting)).toEqual(['begun today, not sent'])
  })
})
describe('the customer’s page of a quote', () => {
  const tokenOf = ({ link }: { link: string }) => link.split('/q/')[1]!
  const anybody = new Client()
  const again = async (quoteId: string) => {
    const params = { id: quoteId }
    const { version } = await office.ok('quote', { params })
    const back = await office.ok('reopenQuote', { params, body: { version } })
    return { back, send: () => office.ok('sendQuote', { params, body: { version: back.version } }) }
  }
  const said = (version: number, accepted: boolean) => ({ version, accepted, name: 'E. Lowfold' })

  it('shows what was sent last, and nothing while it is changed; who guesses finds nothing', async () => {
    const { quote } = await begun()
    expect(quote.link).toBe('')
    const sentNow = await office.ok('sendQuote', {
      params: { id: quote.id },
      body: { version: quote.version, to: [] },
    })
    const params = { token: tokenOf(sentNow) }
    const page = await anybody.ok('publicQuote', { params })
    expect(page).toMatchObject({
      number: quote.number,
      state: 'sent',
      paper: { title: 'A softener' },
    })
    expect(JSON.stringify(page)).not.toMatch(/cost|margin/i)
    const pdf = await anybody.send('publicQuotePdf', { params })
    expect(textOfPdf(pdf.bytes)).toContain(`Quote ${quote.number}`)
    const { send } = await again(quote.id)
    expect(await anybody.ok('publicQuote', { params })).toMatchObject({
      ...{ state: 'draft', paper: null },
    })
    expect((await anybody.send('publicQuotePdf', { params })).status).toBe(404)
    await send()
    expect((await anybody.ok('publicQuote', { params })).state).toBe('sent')
    const guessed = await anybody.send('publicQuote', { params: { token: `${params.token}x` } })
    expect(guessed.status).toBe(404)
  })
  it('opened, stands in its history once for each time it was sent, and beside how long it waits', async () => {
    const { quote } = await sent()
    const params = { token: tokenOf(quote) }
    const opened = async () =>
      (await office.ok('quote', { params: { id: quote.id } })).history.filter((h) =>
        h.text.endsWith('opened by the customer'),
      ).length
    await anybody.ok('seenQuote', { params })
    await anybody.ok('seenQuote', { params })
    expect(await opened()).toBe(1)
    const { waiting } = await office.ok('quote', { params: { id: quote.id } })
    expect(waiting).toBe('sent today, read today, no answer')
    const { quotes } = await office.ok('customer', { params: { id: quote.customer.id } })
    expect(quotes.find(({ id: of }) => of === quote.id)!.waiting).toBe(waiting)
    await (await again(quote.id)).send()
    await anybody.ok('seenQuote', { params })
    expect(await opened()).toBe(2)
  })
  it('takes a yes to the version that was read, once: work that waits for its slot, in the customer’s words', async () => {
    const { quote } = await sent()
    const params = { token: tokenOf(quote) }
    await (await again(quote.id)).send()
    const old = await anybody.send('answerPublicQuote', { params, body: said(quote.version, true) })
    expect([old.status, old.body.code]).toEqual([409, 'stale'])
    const { version } = await anybody.ok('publicQuote', { params })
    const body = { ...said(version, true), words: 'before Christmas' }
    const both = await Promise.all(
      [1, 2].map(() => anybody.send('answerPublicQuote', { params, body })),
    )
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409])
    const accepted = await office.ok('quote', { params: { id: quote.id } })
    expect(accepted).toMatchObject({
      state: 'accepted',
      answer: 'E. Lowfold, on the page of the quote: before Christmas',
    })
    const work = await office.ok('workOrder', { params: { id: accepted.workOrder!.id } })
    expect(work.totals.promised.amount).toBe(quote.price.net.amount)
    const { tray } = await office.ok('schedule')
    expect(tray.filter(({ workOrderId }) => workOrderId === work.id)).toHaveLength(1)
  })
  it('takes a no without JavaScript, wants a name, and nothing from another site', async () => {
    const { quote } = await sent()
    const at = `/q/${tokenOf(quote)}`
    const post = (fields: Record<string, string>, headers: Record<string, string> = {}) =>
      fetch(`${base}${at}/answer`, {
        ...{ method: 'POST', redirect: 'manual', headers },
        body: new URLSearchParams(fields),
      })
    const fields = { version: String(quote.version), accepted: 'false', words: 'too dear' }
    const nameless = await post(fields)
    expect([nameless.status, nameless.headers.get('location')]).toEqual([303, `${at}?said=invalid`])
    expect(await (await fetch(`${base}${at}?said=invalid`)).text()).toContain('write your name')
    await post({ ...fields, name: 'E. Lowfold' }, { Origin: 'https://elsewhere.example' })
    const state = async () => (await office.ok('quote', { params: { id: quote.id } })).state
    expect(await state()).toBe('sent')
    const done = await post({ ...fields, name: 'E. Lowfold' })
    expect(done.headers.get('location')).toBe(at)
    expect(await state()).toBe('declined')
    expect(await (await fetch(`${base}${at}`)).text()).toContain('You have declined this quote')
  })
})
describe('another quote like one', () => {
  it('has its words and lines, a number of its own, and belongs to no work; it is begun once', async () => {
    const { quote } = await sent()
    const copy = { params: { id: quote.id }, body: { id: id() } }
    const made = await office.ok('copyQuote', copy)
    expect(await office.ok('copyQuote', copy)).toEqual(made)
    expect(made).toMatchObject({
      ...{ state: 'draft', title: quote.title, scope: quote.scope, orderNumber: '' },
      workOrder: null,
      price: { net: quote.price.net },
    })
    expect(made.number).not.toBe(quote.number)
    expect(made.lines.map(({ name, quantity }) => [name, quantity])).toEqual(
      quote.lines.map(({ name, quantity }) => [name, quantity]),
    )
    expect(made.history.map(({ text }) => text)).toContain(
      `Quote ${made.number} begun like ${quote.number}`,
    )
  })
  it('is priced as of today where the book had priced it; what somebody typed stays', async () => {
    const { quote } = await begun()
    const own = { kind: 'other' as const, quantity: '1' }
    const lines = [
      ...quote.lines.map(({ id: lineId, entryId, quantity }) => ({
        id: lineId,
        entryId,
        quantity,
      })),
      { ...own, id: id(), name: 'A shelf', unitPrice: '33.00' },
    ]
    const { params } = { params: { id: quote.id } }
    await office.ok('changeQuote', { params, body: { version: quote.version, lines } })
    const db = await database()
    const { entryId, unitPrice } = quote.lines[0]!
    const price = (to: string) =>
      db.query('UPDATE price_entries SET price = ? WHERE id = ?', [to, entryId])
    await price(String(Number(unitPrice) + 10))
    const made = await office.ok('copyQuote', { params, body: { id: id() } })
    await price(unitPrice)
    await db.end()
    expect(made.lines.map((line) => Number(line.unitPrice))).toEqual([Number(unitPrice) + 10, 33])
  })
})
