// Sheets in use: money that is taken by several methods, a visit beside the schedule, customers from a file, prices that are changed by a rule.
import { DOMWrapper, mount } from '@vue/test-utils'
import { beforeAll, beforeEach, describe, expect, it, vi } from 'vitest'
import { routeOf, type Answer, type RouteName } from '~~/shared/api'
import PaySheet from '~/components/payments/PaySheet.vue'
import { draftsOf } from '~/base/drafts'
import FileInput from '~/base/FileInput.vue'
import { watchFocus } from '~/base/focusBack'
import VisitSheet from '~/dispatch/visit/VisitSheet.vue'
import type { Visit } from '~/dispatch/visit/visit'
import { catalogueOfRoutes } from '~/lib/api'
import { useSession } from '~/stores/session'
import { alerts, button, buttons, fill, goTo, press, typed } from './hands'
import { sampleOf, type Wanted } from './sample'
import { bring, open, settle, type Says } from './screen'

const ID = '0192d4e0-0000-7000-8000-00000000002a'
const INES = '0192d4e0-0000-7000-8000-0000000000aa'
const OTHER = '0192d4e0-0000-7000-8000-00000000002b'
const PIET = '0192d4e0-0000-7000-8000-0000000000bb'
const usd = (amount: string) => ({ amount, currency: 'USD' })
const made = <N extends RouteName>(name: N, over: Partial<Answer<N>> = {}, wanted?: Wanted) =>
  ({ ...(sampleOf(routeOf(name).answer!, wanted) as object), ...over }) as Answer<N>
const body = () => new DOMWrapper(document.body)
beforeAll(() => catalogueOfRoutes())
beforeEach(() => goTo(null))
const signIn = () => {
  useSession().me = {
    company: { locale: 'en-US', timeZone: 'America/New_York', currency: 'USD', name: 'Otterfall' },
    person: { may: [], name: 'Olive' },
    today: '2026-11-24',
    now: '2026-11-24T15:00:00Z',
    clockFixed: true,
  } as never
}
/** A refusal with its code and what it knows besides. */
const refused = (code: string, extra: object = {}) => ({ refused: { code, ...extra } })

describe('taking money', () => {
  const drawn = async (pay: unknown, due = '150.00') => {
    bring({ says: { pay } })
    signIn()
    const page = mount(PaySheet, {
      props: {
        modelValue: true,
        customerId: ID,
        invoiceId: ID,
        number: 'I-1001',
        due: usd(due),
        mails: ['marrow@example.com'],
      },
      attachTo: document.body,
    })
    await settle()
    return page
  }
  const paid = (amount: string, stillOpen: string, left = '0.00') =>
    made('pay', {
      number: 'R-1',
      amount: usd(amount),
      stillOpen: usd(stillOpen),
      left: usd(left),
    })
  it('proposes what is open, and the rest for the next method', async () => {
    const page = await drawn(paid('100.00', '50.00'))
    expect(typed('Amount')).toBe('150.00')
    await fill('Amount', '100')
    await press('Take $100.00')
    expect(body().text()).toContain('$100.00 by cash, receipt R-1')
    expect([typed('Amount'), button('Cheque').attributes('aria-checked')]).toEqual([
      '50.00',
      'true',
    ])
    expect(page.emitted('paid')).toHaveLength(1)
  })
  it.each([
    ['10.005', 'Take payment'],
    ['10.5', 'Take $10.50'],
    ['ten', 'Take payment'],
  ])('%s is offered as “%s”: no sum that nobody typed', async (amount, offered) => {
    await drawn(paid('10.50', '0.00'))
    await fill('Amount', amount)
    expect(buttons(offered)).toHaveLength(1)
  })
  it('is done when nothing is open any more', async () => {
    await drawn(paid('150.00', '0.00'))
    await press('Take $150.00')
    expect(body().text()).toContain('Nothing is open on I-1001.')
    expect(buttons(/^Take/)).toHaveLength(0)
  })
  it('says which cheque it was', async () => {
    await drawn(paid('150.00', '0.00'))
    await press('Cheque')
    await fill('Number of the cheque', '4711')
    await press('Take $150.00')
    expect(body().text()).toContain('by cheque (4711)')
    expect(bring.sent()[0]!.body).toMatchObject({ method: 'cheque', reference: '4711' })
  })
  it('keeps more than is open only where somebody says so', async () => {
    let asked = 0
    await drawn(() =>
      asked++
        ? paid('200.00', '0.00', '50.00')
        : refused('more_than_open', { over: usd('50.00'), detail: 'More than is open.' }),
    )
    await fill('Amount', '200')
    await press('Take $200.00')
    expect(body().text()).toContain('$50.00 would be kept as a credit.')
    await press('Yes, keep it as a credit')
    const [first, second] = bring.sent()
    expect(
      [first!.body, second!.body].map((one) => (one as { mayLeaveCredit: boolean }).mayLeaveCredit),
    ).toEqual([false, true])
    expect(body().text()).toContain('$50.00 kept as a credit')
  })
  it('asks again where another sum is typed', async () => {
    await drawn(refused('more_than_open', { over: usd('50.00'), detail: 'More than is open.' }))
    await fill('Amount', '200')
    await press('Take $200.00')
    await fill('Amount', '150')
    expect(body().text()).not.toContain('would be kept as a credit')
  })
  it('that somebody else took meanwhile shows both sums, and goes on with what is open', async () => {
    let asked = 0
    const page = await drawn(() =>
      asked++
        ? paid('30.00', '0.00')
        : refused('open_changed', { open: usd('30.00'), detail: 'Somebody took money meanwhile.' }),
    )
    await press('Take $150.00')
    expect(body().text()).toContain('Shown was $150.00, open is $30.00.')
    expect(page.emitted('paid')).toHaveLength(1)
    await press('Go on with $30.00')
    expect([typed('Amount'), alerts()]).toEqual(['30.00', []])
    await press('Take $30.00')
    expect(bring.sent()[1]!.body).toMatchObject({ amount: '30.00', shownOpen: '30.00' })
  })
  it('whose answer was lost is, pressed again, the same payment', async () => {
    await drawn('The line dropped.')
    await press('Take $150.00')
    await press('Take $150.00')
    const [first, second] = bring.sent()
    expect([second!.body, second!.key]).toEqual([first!.body, first!.key])
  })
  it('mails no receipt where that is not wanted', async () => {
    await drawn(paid('150.00', '0.00'))
    await body().get('.check input[type="checkbox"]').setValue(false)
    await press('Take $150.00')
    expect(bring.sent()[0]!.body).toMatchObject({ receiptTo: [] })
  })
})

describe('a visit beside the schedule', () => {
  const technicians = [
    { id: INES, name: 'Ines Calloway', kind: 'employee' },
    { id: PIET, name: 'Piet Sandvik', kind: 'employee' },
  ]
  const visit = (over: Partial<Visit> = {}): Visit => ({
    ...made('placeVisit'),
    id: ID,
    version: 3,
    state: 'planned',
    technicianId: INES,
    startAt: '2026-11-24T19:00:00.000Z',
    durationSeconds: 3600,
    crewIds: [],
    alongIds: [],
    locked: false,
    customer: 'Marrow & Son',
    title: 'Pump hums',
    ...over,
  })
  const drawn = async (says: Record<string, unknown>, over: Partial<Visit> = {}, may = true) => {
    bring({ says })
    signIn()
    const page = mount(VisitSheet, {
      props: { visit: visit(over) as Visit | null, may, technicians, visits: [] },
      attachTo: document.body,
      global: { stubs: { NuxtLink: true } },
    })
    await settle()
    goTo(may ? 'Save the visit' : null)
    return page
  }
  it('is placed at the time that is typed, in the firm’s own zone, with its version', async () => {
    await drawn({ placeVisit: visit({ version: 4 }) })
    await fill('Begins', '15:30')
    await press('Save the visit')
    expect(bring.sent()[0]!.body).toMatchObject({
      technicianId: INES,
      startAt: '2026-11-24T20:30:00.000Z',
      version: 3,
      override: false,
    })
  })
  it('is not placed against a warning, until somebody says so', async () => {
    let asked = 0
    await drawn({
      placeVisit: () =>
        asked++
          ? visit({ version: 4 })
          : refused('placement_warning', { detail: 'Ines is at a meeting then.' }),
    })
    await fill('Begins', '15:30')
    await press('Save the visit')
    expect(body().text()).toContain('Not saved yet. Ines is at a meeting then.')
    await press('Place it all the same')
    expect(bring.sent().map((one) => (one.body as { override: boolean }).override)).toEqual([
      false,
      true,
    ])
    expect(body().text()).not.toContain('Not saved yet.')
  })
  it('forgets a warning when it was moved by somebody else', async () => {
    const page = await drawn({
      placeVisit: refused('placement_warning', { detail: 'Ines is at a meeting then.' }),
    })
    await press('Save the visit')
    await page.setProps({ visit: visit({ version: 9, startAt: '2026-11-24T21:00:00.000Z' }) })
    await settle()
    expect(body().text()).not.toContain('Ines is at a meeting then.')
    expect(typed('Begins')).toBe('16:00')
  })
  it('keeps what is typed while somebody else moves it', async () => {
    const page = await drawn({})
    await fill('Begins', '15:30')
    await page.setProps({ visit: visit({ version: 9, technicianId: PIET }) })
    await settle()
    expect(typed('Begins')).toBe('15:30')
  })
  it('has again what was typed about it, after another one was looked at', async () => {
    draftsOf(INES)
    const page = await drawn({})
    const field = () =>
      body().get<HTMLInputElement>('[aria-label="Why it will not be"]').element.value
    goTo('Cancel the visit')
    await fill('Why it will not be', 'the well is dry')
    await page.setProps({ visit: visit({ id: OTHER, customer: 'Crossways Estate' }) })
    await settle()
    expect(field()).toBe('')
    await page.setProps({ visit: visit({}) })
    await settle()
    expect(field()).toBe('the well is dry')
  })
  it('takes the focus of whoever opened it by a key, and gives it back', async () => {
    const opener = document.body.appendChild(document.createElement('button'))
    watchFocus()
    opener.focus()
    const matches = vi.spyOn(opener, 'matches').mockReturnValue(true)
    const page = await drawn({})
    expect(document.activeElement!.getAttribute('role')).toBe('dialog')
    await page.setProps({ visit: null })
    await expect.poll(() => document.activeElement).toBe(opener)
    // Somebody who points at it goes on where they are.
    matches.mockReturnValue(false)
    await page.setProps({ visit: visit({}) })
    await settle()
    expect(document.activeElement).toBe(opener)
    opener.remove()
  })
  it('that is locked is only unlocked', async () => {
    await drawn({ lockVisit: visit() }, { locked: true })
    expect(button('Save the visit').attributes('disabled')).toBeDefined()
    await press(/^Unlock/)
    expect(bring.sent()[0]).toMatchObject({
      name: 'lockVisit',
      body: { version: 3, locked: false },
    })
  })
  it('is cancelled for a reason', async () => {
    const page = await drawn({ cancelVisit: visit({ state: 'cancelled', version: 4 }) })
    goTo('Cancel the visit')
    await fill('Why it will not be', 'the well is dry')
    await press('Cancel the visit')
    expect(bring.sent()[0]!.body).toMatchObject({
      cancelled: true,
      reason: 'the well is dry',
      version: 3,
    })
    expect(page.emitted('close')).toBeTruthy()
  })
  it('is split where its halves are long enough', async () => {
    await drawn({ furtherVisit: made('furtherVisit') }, { durationSeconds: 7200 })
    goTo(null)
    await press(/^Split/)
    expect(bring.sent()[0]!.body).toMatchObject({ split: true, durationSeconds: 3600 })
  })
  it('that is too short is not split', async () => {
    await drawn({}, { durationSeconds: 900 })
    goTo(null)
    expect(button(/^Split/).attributes('disabled')).toBeDefined()
  })
  it('goes out as an invitation to whoever is named', async () => {
    await drawn({ inviteToVisit: { ok: true } })
    goTo('Send as invitation')
    await fill('Invite by mail', 'tenant@example.com')
    await press('Send as invitation')
    expect(bring.sent()[0]).toMatchObject({
      name: 'inviteToVisit',
      body: { to: ['tenant@example.com'] },
    })
    expect(body().text()).toContain('The invitation is on its way to tenant@example.com.')
  })
  it('is only read by whoever does not plan, and when it is over', async () => {
    await drawn({}, {}, false)
    expect(buttons('Save the visit', body())).toHaveLength(0)
    await drawn({}, { state: 'finished' }, true)
    expect(buttons('Save the visit', body())).toHaveLength(0)
  })
})

describe('customers from a file', () => {
  const piece = (added: number) => made('importPiece', { rows: [], added, skipped: 0 })
  const chosen = async (text: string, importPiece: unknown) => {
    const screen = await open('/customers/import', { server: { says: { importPiece } } })
    screen.page.findComponent(FileInput).vm.$emit('choose', [new File([text], 'list.csv')])
    await settle()
    return screen
  }
  const LIST = 'Name,Telephone\nVane,607 555 0101\nOkonjo,607 555 0102'
  it('are tried dry first: nothing is taken in before', async () => {
    const { acts } = await chosen(LIST, piece(2))
    expect(button(/^Take in/).attributes('disabled')).toBeDefined()
    await press('Try it dry')
    expect(acts()[0]!.body).toMatchObject({ dry: true, first: 2 })
    expect(body().text()).toContain('2 would be taken in')
  })
  it('are tried anew where a column means something else', async () => {
    const { page } = await chosen(LIST, piece(2))
    await press('Try it dry')
    page.findComponent({ name: 'FileColumns' }).vm.$emit('update:modelValue', ['name', null])
    await settle()
    expect(button(/^Take in/).attributes('disabled')).toBeDefined()
  })
  it('are taken in as what was tried, by one name for each piece', async () => {
    const rows = Array.from({ length: 700 }, (_, i) => `Customer ${i},607`).join('\n')
    const { acts } = await chosen(`Name,Telephone\n${rows}`, piece(350))
    await press('Try it dry')
    const tried = acts().length
    await press(/^Take in/)
    const pieces = acts().slice(tried)
    expect(new Set(pieces.map(({ url }) => url)).size).toBe(1)
    expect(pieces.map(({ body: sent }) => (sent as { first: number }).first)[0]).toBe(2)
  })
  it('that broke off are, taken in again, the same import', async () => {
    let turn = 0
    const { acts } = await chosen(LIST, (() =>
      turn++ === 1 ? 'The line dropped.' : piece(2)) as Says)
    await press('Try it dry')
    await press(/^Take in/)
    expect(alerts()).toContain('The line dropped.')
    await press(/^Take in/)
    const [, first, second] = acts()
    expect(second!.url).toBe(first!.url)
  })
  it('without a name are not tried', async () => {
    await chosen('Shoe,Hat\n1,2', piece(0))
    expect(body().text()).toContain('Say which column holds the name.')
    expect(button('Try it dry').attributes('disabled')).toBeDefined()
  })
  it('that cannot be read say why, with the file’s name', async () => {
    await chosen('Name', piece(0))
    expect(body().text()).toContain('list.csv: There is a heading and no row beneath it.')
  })
})

describe('prices that are changed by a rule', () => {
  const preview = made('previewPrices', { stamp: 's7', questions: [] })
  const opened = (says: object = {}) =>
    open('/price-book/reprice', { server: { says: { previewPrices: preview, ...says } } })
  it('are looked at first, and changed as they were looked at', async () => {
    const { acts } = await opened({
      changePrices: made('changePrices', { state: 'done' as never }),
    })
    await fill('Per cent', '4')
    await press('Look at it first')
    expect(acts()[0]!.body).toMatchObject({ kind: 'part', rule: 'price_percent', percent: '4' })
    await press(/^Change \d/)
    expect(acts()[1]).toMatchObject({ name: 'changePrices', body: { stamp: 's7', percent: '4' } })
  })
  it('with another wish want another look', async () => {
    await opened()
    await fill('Per cent', '4')
    await press('Look at it first')
    expect(buttons(/^Change \d/)).toHaveLength(1)
    await fill('Per cent', '5')
    expect(buttons(/^Change \d/)).toHaveLength(0)
    expect(body().text()).toContain('The book as it stands')
  })
  it('that are refused are still looked at, and named the same when they are changed again', async () => {
    const { acts } = await opened({ changePrices: 'Somebody changes prices at this moment.' })
    await fill('Per cent', '4')
    await press('Look at it first')
    await press(/^Change \d/)
    expect(alerts()).toContain('Somebody changes prices at this moment.')
    await press(/^Change \d/)
    expect(acts()[2]!.body).toEqual(acts()[1]!.body)
  })
})
