// A visit on the phone: the clock's single next step, lines, findings, time that nobody charges for, agreement, the bill at the door.
import { DOMWrapper } from '@vue/test-utils'
import { beforeAll, describe, expect, it, vi } from 'vitest'
import { clockActsFrom, visitLifecycle, type VisitState } from '~~/core/visits/visitLifecycle'
import { routeOf, type Answer } from '~~/shared/api'
import { draftsOf } from '~/base/drafts'
import { catalogueOfRoutes } from '~/lib/api'
import { askAllAnew } from '~/lib/live'
import { useSession } from '~/stores/session'
import { alerts, button, buttons, fill, press, typed } from './hands'
import { sampleOf } from './sample'
import { open, settle, type Server } from './screen'

type Visit = Answer<'fieldVisit'>
const ID = '0192d4e0-0000-7000-8000-00000000002a'
const NONE = { amount: '0.00', currency: 'USD' }
beforeAll(() => catalogueOfRoutes())

/** A visit in a state, as its technician has it. */
function visitIn(state: VisitState, over: (visit: Visit) => void = () => {}): Visit {
  const visit = sampleOf(routeOf('fieldVisit').answer!, { seed: 4 }) as Visit
  Object.assign(visit, {
    acts: clockActsFrom(state),
    findings: '',
    openVisitId: null,
    proposed: null,
  })
  Object.assign(visit.visit, { id: ID, state, lead: '' })
  Object.assign(visit.clock, { kind: null, since: null })
  for (const line of visit.workOrder.lines) Object.assign(line, { billed: NONE, done: true })
  over(visit)
  return visit
}
const onPhone = (visit: Visit, says: Server['says'] = {}) =>
  open(`/field/visits/${ID}`, {
    role: 'technician',
    server: { says: { fieldVisit: visit, ...says } },
  })
/** The form that a button stands in, sent as by its press. */
async function send(name: string | RegExp) {
  const form = button(name).element.closest('form')!
  await new DOMWrapper(form).trigger('submit')
  await settle()
}

describe('the clock', () => {
  it.each(visitLifecycle.states)(
    'offers in “%s” what may happen then, and nothing else',
    async (state) => {
      const visit = visitIn(state)
      const { page } = await onPhone(visit)
      const offered = page.find('section.nowcard').findAll('button')
      expect(offered).toHaveLength(clockActsFrom(state).length)
    },
  )
  it('does its next step once, however often it is pressed', async () => {
    const visit = visitIn('planned')
    const { acts } = await onPhone(visit, { clock: visitIn('driving') })
    const first = new DOMWrapper(document.body).get('section.nowcard button')
    void first.trigger('click')
    void first.trigger('click')
    await settle()
    expect(acts().map(({ name, body }) => [name, body])).toEqual([
      ['clock', { act: 'set_off', otherDay: false }],
    ])
  })
  it('waits a moment before the next step can be pressed: a second tap means the button before', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    const { page } = await onPhone(visitIn('planned'), { clock: visitIn('driving') })
    const next = () => page.get('section.nowcard button')
    await next().trigger('click')
    await settle()
    expect(next().attributes('disabled')).toBeDefined()
    vi.advanceTimersByTime(1000)
    await settle()
    expect(next().attributes('disabled')).toBeUndefined()
    vi.useRealTimers()
  })
  it('of somebody else’s visit is theirs: whoever goes along has none', async () => {
    const along = visitIn('on_site', (v) => (v.visit.lead = 'Ines Calloway'))
    const { page } = await onPhone(along)
    expect(page.find('section.nowcard').exists()).toBe(false)
    expect(page.text()).toContain('You go along with Ines Calloway')
  })
  it('says what stands in its way, and leads to the visit that is open', async () => {
    const other = '0192d4e0-0000-7000-8000-0000000000ff'
    const { page } = await onPhone(visitIn('planned', (v) => (v.openVisitId = other)))
    expect(page.get(`a[href="/field/visits/${other}"]`).text()).toContain('open visit')
  })
  it('keeps what was found before it stops', async () => {
    const { acts } = await onPhone(visitIn('on_site'), { findings: visitIn('on_site') })
    const area = new DOMWrapper(document.body).get('textarea')
    await area.setValue('The foot valve leaked.')
    await press(buttons(/finish|done/i).length ? /finish|done/i : /pause/i)
    expect(acts().map(({ name }) => name)).toEqual(['findings', 'clock'])
    expect(acts()[0]!.body).toMatchObject({ findings: 'The foot valve leaked.' })
  })
})

describe('what was found', () => {
  it('is kept when the field is left, with the version that it was read with', async () => {
    const visit = visitIn('on_site')
    const { acts } = await onPhone(visit)
    const area = new DOMWrapper(document.body).get('textarea')
    await area.setValue('Pressure tank empty.')
    await area.trigger('blur')
    await settle()
    const [kept] = acts()
    expect([kept!.name, kept!.body]).toEqual([
      'findings',
      {
        version: (visit as unknown as { version: number }).version,
        findings: 'Pressure tank empty.',
      },
    ])
  })
  it('is kept to the last of several presses on what is often written, while the first is on its way', async () => {
    const first = visitIn('on_site', (v) => (v.findings = 'Worn, replaced'))
    const { acts } = await onPhone(visitIn('on_site'), { findings: first })
    for (const phrase of ['Worn, replaced', 'Cleaned and tested', 'Runs as it should'])
      await button(phrase).trigger('click')
    await settle()
    await settle()
    expect(acts().at(-1)).toMatchObject({
      ...{ name: 'findings' },
      body: { findings: 'Worn, replaced. Cleaned and tested. Runs as it should' },
    })
  })
  it('stays as it was typed where it could not be kept, and says so at its place', async () => {
    const { page } = await onPhone(visitIn('on_site'), { findings: 'There is no signal.' })
    const area = new DOMWrapper(document.body).get('textarea')
    await area.setValue('Pressure tank empty.')
    await area.trigger('blur')
    await settle()
    expect((area.element as HTMLTextAreaElement).value).toBe('Pressure tank empty.')
    expect(alerts().join()).toContain('What you typed is still here.')
    // Whoever leaves tries once more.
    page.unmount()
    await settle()
  })
  it('that nobody touched is not sent', async () => {
    const { acts } = await onPhone(visitIn('on_site'))
    await new DOMWrapper(document.body).get('textarea').trigger('blur')
    await settle()
    expect(acts()).toEqual([])
  })
})

describe('the lines', () => {
  const opened = async (index: number, says: Server['says'] = {}) => {
    const visit = visitIn('on_site')
    const screen = await onPhone(visit, says)
    await screen.page.findAll('ul.lines button.line')[index]!.trigger('click')
    return { ...screen, line: visit.workOrder.lines[index]! }
  }
  it('open one at a time, the third as itself', async () => {
    const { page, line } = await opened(2)
    expect(typed('Quantity')).toBe(line.quantity)
    await page.findAll('ul.lines button.line')[0]!.trigger('click')
    expect(page.findAll('form.edit')).toHaveLength(1)
  })
  it('are marked as done by one tap, the third as itself', async () => {
    const visit = visitIn('on_site')
    const line = visit.workOrder.lines[2]!
    line.billed = { amount: '0.00', currency: 'USD' }
    const { acts, page } = await onPhone(visit)
    await page.findAll('ul.lines button.tick')[2]!.trigger('click')
    await settle()
    expect([acts()[0]!.url, acts()[0]!.body]).toEqual([
      `/api/v1/work-lines/${line.id}`,
      { version: line.version, done: !line.done },
    ])
  })
  it('are changed by version, in what was typed alone', async () => {
    const { acts, line } = await opened(2)
    await fill('Quantity', '3')
    await send('Keep')
    expect([acts()[0]!.url, acts()[0]!.body]).toEqual([
      `/api/v1/work-lines/${line.id}`,
      { version: line.version, quantity: '3' },
    ])
  })
  it('stay open with what was typed where that is refused', async () => {
    await opened(2, { changeLine: 'Somebody changed it meanwhile.' })
    await fill('Quantity', '3')
    await send('Keep')
    expect(typed('Quantity')).toBe('3')
    expect(alerts().join()).toContain('Somebody changed it meanwhile.')
  })
  it.each([
    ['Not done', { done: false }],
    ['Take out', { removed: true }],
  ])('“%s”', async (name, values) => {
    const { acts, line } = await opened(1)
    await press(name)
    expect(acts()[0]!.body).toEqual({ version: line.version, ...values })
  })
  it('that were taken out come back by one press, the third as itself', async () => {
    const visit = visitIn('on_site', ({ workOrder }) =>
      workOrder.takenOut.forEach((line, i) =>
        Object.assign(line, { name: `Gone ${i}`, version: 3 }),
      ),
    )
    const gone = visit.workOrder.takenOut[2]!
    const { acts } = await onPhone(visit)
    await press(`Put ${gone.name} back`)
    expect([acts()[0]!.url, acts()[0]!.body]).toEqual([
      `/api/v1/work-lines/${gone.id}`,
      { version: gone.version, removed: false },
    ])
  })
  it('that are on an invoice are read, not changed', async () => {
    const visit = visitIn('on_site', (v) => {
      v.workOrder.lines[0]!.billed = { amount: '20.00', currency: 'USD' }
    })
    const { page } = await onPhone(visit)
    await page.findAll('ul.lines button.line')[0]!.trigger('click')
    expect(page.text()).toContain('This line is on an invoice.')
    expect(page.findAll('form.edit')).toHaveLength(0)
  })
  it('that were promised and not done are spoken of when the visit is over', async () => {
    const over = visitIn('finished', (v) => (v.workOrder.lines[0]!.done = false))
    expect((await onPhone(over)).page.text()).toContain(
      '1 line was promised and is not marked done',
    )
  })
})

describe('minutes that no line charges for', () => {
  const late = () =>
    visitIn('finished', (v) => {
      v.workOrder.time.uncoveredSeconds = 1800
    })
  it('are charged in one press', async () => {
    const { acts } = await onPhone(late())
    await press(/^Charge/)
    expect(acts().map(({ name }) => name)).toEqual(['chargeTime'])
  })
  it('are left out for a reason', async () => {
    const { acts } = await onPhone(late())
    await press('Leave out')
    await fill('Why these minutes are not charged', 'We taught the apprentice.')
    await send('Keep')
    expect(acts()[0]!.body).toEqual({ seconds: 1800, reason: 'We taught the apprentice.' })
  })
})

describe('a further visit', () => {
  it('is asked for with what it is for', async () => {
    const visit = visitIn('on_site')
    const { acts } = await onPhone(visit)
    await press('A further visit is needed…')
    await fill(/^What for/, 'a longer rope')
    await send('Ask the office for a further visit')
    expect(acts()[0]!.body).toMatchObject({ note: 'a longer rope', durationSeconds: 3600 })
  })
  it('that is refused keeps its words', async () => {
    await onPhone(visitIn('on_site'), { furtherVisit: 'The work order is closed.' })
    await press('A further visit is needed…')
    await fill(/^What for/, 'a longer rope')
    await send('Ask the office for a further visit')
    expect(typed(/^What for/)).toBe('a longer rope')
    expect(alerts().join()).toContain('The work order is closed.')
  })
})

describe('the bill at the door', () => {
  it('is made with the total that was shown, and sent to the addresses that stand there', async () => {
    const visit = visitIn('finished', (v) => {
      v.workOrder.invoices = []
    })
    const { acts } = await onPhone(visit)
    await press('Bill')
    await fill('Send to', 'else@example.com')
    await press(/^Make and send invoice/)
    expect(acts()[0]).toMatchObject({
      name: 'makeInvoice',
      body: { shownTotal: visit.workOrder.bill.total.amount },
    })
    expect((acts()[0]!.body as { to: string[] }).to[0]).toBe('else@example.com')
  })
  it('has the address again that was typed before a step back', async () => {
    draftsOf(ID)
    await onPhone(visitIn('finished', (v) => (v.workOrder.invoices = [])))
    await press('Bill')
    await fill('Send to', 'else@example.com')
    await press('Back to the visit')
    await press('Bill')
    expect(typed('Send to')).toBe('else@example.com')
  })
  it('is made and not sent where that is wanted', async () => {
    const { acts } = await onPhone(visitIn('finished', (v) => (v.workOrder.invoices = [])))
    await press('Bill')
    await press('Make it, send later')
    expect((acts()[0]!.body as { to: string[] }).to).toEqual([])
  })
  it('that was made to be sent later is sent from where it was made, to who was typed', async () => {
    const invoice = sampleOf(routeOf('invoice').answer!) as Answer<'invoice'>
    Object.assign(invoice, { acts: ['send'], messages: [], sent: false })
    const visit = visitIn('finished', (v) => (v.workOrder.invoices = []))
    const { acts } = await onPhone(visit, { invoice })
    await press('Bill')
    await fill('Send to', 'else@example.com')
    await press('Make it, send later')
    // The money comes first; it may be left for later as well.
    await press('Close this dialog')
    await press('Send it…')
    await press('Send it')
    const [, sent] = acts()
    expect([sent!.name, (sent!.body as { to: string[] }).to[0]]).toEqual([
      'sendInvoice',
      'else@example.com',
    ])
    expect(sent!.url).toBe(`/api/v1/invoices/${invoice.id}/send`)
  })
  it.each([
    ['a receipt alone', [['receipt', 'delivered']], false, true],
    ['a mail that came back', [['invoice', 'failed']], true, true],
    [
      'a mail that left after one came back',
      [
        ['invoice', 'failed'],
        ['invoice', 'delivered'],
      ],
      true,
      false,
    ],
    ['being handed over', [], true, false],
  ])('may be sent after %s', async (_, mails, isSent, offered) => {
    const invoice = sampleOf(routeOf('invoice').answer!) as Answer<'invoice'>
    const [message] = invoice.messages
    const messages = mails.map(([kind, state], i) => ({ ...message!, id: String(i), kind, state }))
    Object.assign(invoice, { acts: ['send'], messages, sent: isSent })
    const visit = visitIn('finished', (v) => (v.workOrder.totals.toBill = NONE))
    await onPhone(visit, { invoice })
    await press('Take payment')
    expect(buttons('Send it…')).toHaveLength(offered ? 1 : 0)
  })
  it('says what was done and not priced, rather than billing nothing', async () => {
    const nothing = visitIn('finished', (v) => {
      v.workOrder.bill.total = NONE
      v.workOrder.invoices = []
    })
    const { page } = await onPhone(nothing)
    await press('Bill')
    expect(page.text()).toContain('Nothing is marked done that is not billed.')
    expect(buttons(/^Make and send/)).toHaveLength(0)
  })
  it('opens the invoice that is there where nothing is left to bill', async () => {
    const billed = visitIn('finished', (v) => {
      v.workOrder.totals.toBill = NONE
    })
    const { sent } = await onPhone(billed)
    await press('Take payment')
    const open = billed.workOrder.invoices.find((i) => Number(i.open.amount) > 0)!
    expect(sent.some(({ url }) => url === `/api/v1/invoices/${open.id}`)).toBe(true)
  })
})

describe('the day', () => {
  const day = () => sampleOf(routeOf('fieldDay').answer!) as Answer<'fieldDay'>
  const opened = (fieldDay: unknown) =>
    open('/field', { role: 'technician', server: { says: { fieldDay } } })
  it('names what nobody began with its day, and leads there, the third as itself', async () => {
    const { notBegun } = day()
    const { page } = await opened({ ...day(), notBegun })
    const links = page.get('[aria-labelledby="not-begun"]').findAll('a')
    expect(links.map((link) => link.attributes('href'))[2]).toBe(`/field/visits/${notBegun[2]!.id}`)
    expect(links[2]!.text()).toContain(useSession().dayOf(notBegun[2]!.startAt!))
  })
  it('says why it cannot be had, and is there once it is asked for again', async () => {
    let isAway = true
    const away = 'The books are being put right.'
    const { page } = await opened(() => (isAway ? away : day()))
    expect(page.text()).toContain(away)
    isAway = false
    await press('Ask again')
    expect(page.text()).not.toContain(away)
    expect(page.findAll('li').length).toBeGreaterThan(0)
  })
  it('that is there already says so, too, and stays', async () => {
    let isAway = false
    const away = 'The books are being put right.'
    const { page } = await opened(() => (isAway ? away : day()))
    isAway = true
    askAllAnew()
    await vi.waitFor(() => expect(alerts().join()).toContain(away))
    expect(page.findAll('li').length).toBeGreaterThan(0)
  })
})

describe('a closed door', () => {
  const closed = (step: 'ring' | null) =>
    visitIn('no_access', (visit) => {
      visit.proposed = { step, note: step ? 'The dog' : '' }
    })
  it('asks what is to be done next, and takes the answer with what the office should know', async () => {
    const { acts } = await onPhone(closed(null), { proposeNext: closed('ring') })
    await fill('What the office should know', ' The dog ')
    await press('Ring them first')
    expect(acts().map(({ name, body }) => [name, body])).toEqual([
      ['proposeNext', { step: 'ring', note: 'The dog' }],
    ])
    expect(button('Ring them first').attributes('aria-pressed')).toBe('true')
  })
  it('that opened asks nothing', async () => {
    await onPhone(visitIn('on_site', (visit) => void (visit.proposed = null)))
    expect(buttons('Ring them first')).toEqual([])
  })
})
