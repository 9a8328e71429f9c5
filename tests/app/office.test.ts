// The office's screens in use: a sign-in, a search, customers told and reminded, quotes changed line by line, agreements booked, hours taken
// over, a call that is about somebody else by the time the answer comes.
import { DOMWrapper, mount } from '@vue/test-utils'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { nextTick } from 'vue'
import { permissionsOf } from '~~/core/access/permissions'
import { routeOf, type Answer, type RouteName } from '~~/shared/api'
import { asked } from '~/base/leaving'
import FindAnything from '~/components/base/FindAnything.vue'
import ReminderSheet from '~/dispatch/visit/ReminderSheet.vue'
import TellSheet from '~/dispatch/visit/TellSheet.vue'
import { catalogueOfRoutes } from '~/lib/api'
import { useSession } from '~/stores/session'
import { alerts, button, buttons, field, fill, goTo, press, rows, typed } from './hands'
import { sampleOf, type Wanted } from './sample'
import { later } from './server'
import { bring, open, settle } from './screen'

const ID = '0192d4e0-0000-7000-8000-00000000002a'
const OTHER = '0192d4e0-0000-7000-8000-0000000000ff'
const body = () => new DOMWrapper(document.body)
const made = <N extends RouteName>(name: N, over: Partial<Answer<N>> = {}, wanted?: Wanted) =>
  ({ ...(sampleOf(routeOf(name).answer!, wanted) as object), ...over }) as Answer<N>
beforeAll(() => catalogueOfRoutes())
beforeEach(() => goTo(null))
const signIn = () => {
  useSession().me = {
    company: { locale: 'en-US', timeZone: 'America/New_York', currency: 'USD', name: 'Otterfall' },
    person: { may: permissionsOf('books'), name: 'Olive' },
    today: '2026-11-24',
    now: '2026-11-24T15:00:00Z',
    clockFixed: true,
  } as never
}

describe('signing in', () => {
  it('leads to where one wanted to go', async () => {
    const { went, acts } = await open('/sign-in?to=/unpaid', {
      server: { says: { signIn: made('session') } },
    })
    await fill('Mail address', 'olive@example.com')
    await fill('Password', 'open-ledger')
    await press('Sign in')
    const typedIn = { email: 'olive@example.com', password: 'open-ledger', code: '' }
    expect(acts()[0]!.body).toEqual(typedIn)
    expect(went).toEqual(['/unpaid'])
  })
  it.each(['//elsewhere.example', '/\\elsewhere.example', 'https://elsewhere.example'])(
    'does not lead elsewhere: %s',
    async (to) => {
      const { went } = await open(`/sign-in?to=${encodeURIComponent(to)}`, {
        server: { says: { signIn: made('session') } },
      })
      await fill('Mail address', 'olive@example.com')
      await fill('Password', 'open-ledger')
      await press('Sign in')
      expect(went).toEqual(['/'])
    },
  )
  it('that is refused keeps the address, and says why', async () => {
    await open('/sign-in', { server: { says: { signIn: 'Too many tries. Wait a minute.' } } })
    await fill('Mail address', 'olive@example.com')
    await fill('Password', 'wrong')
    await press('Sign in')
    expect(alerts()).toEqual(['Too many tries. Wait a minute.'])
    expect(typed('Mail address')).toBe('olive@example.com')
  })
})

describe('finding anything', () => {
  const found = (title: string, to: string) => ({ kind: 'customer', title, detail: '', to })
  const drawn = (server: Parameters<typeof bring>[0]) => {
    const went = bring(server)
    signIn()
    const page = mount(FindAnything, { props: { modelValue: true }, attachTo: document.body })
    const words = () => page.get('input')
    const type = async (text: string) => {
      await words().setValue(text)
      await settle()
    }
    const titles = () => page.findAll('[role="option"] b').map((one) => one.text())
    return { page, words, type, titles, went }
  }
  it('offers commands at once, and what is found before them', async () => {
    const items = [found('Marrow & Son', '/customers/1')]
    const { type, titles } = drawn({ says: { find: { items } } })
    expect(titles()).toContain('Calls')
    // What somebody may not do is not offered.
    expect(titles()).not.toContain('Take a call')
    await type('unp')
    expect(titles()).toEqual(['Marrow & Son', 'Unpaid'])
  })
  it('is walked by arrows and taken by Enter', async () => {
    const items = [found('Marrow & Son', '/customers/1'), found('Marlow', '/customers/2')]
    const { words, type, went, page } = drawn({ says: { find: { items } } })
    await type('mar')
    await words().trigger('keydown', { key: 'ArrowDown' })
    await words().trigger('keydown', { key: 'Enter' })
    expect(went).toEqual(['/customers/2'])
    expect(page.emitted('update:modelValue')).toEqual([[false]])
  })
  it('says that it could not look, which is not that nothing is there', async () => {
    const { type, page } = drawn({ says: { find: 'The index is being built.' } })
    await type('zzz')
    expect(page.text()).toContain('Could not look: The index is being built.')
    expect(page.text()).not.toContain('Nothing is called that.')
  })
  it('shows what the last words found', async () => {
    const late = later<unknown>()
    let turn = 0
    const { type, titles } = drawn({
      says: { find: () => (turn++ ? { items: [found('Ada', '/customers/3')] } : late.promise) },
    })
    await type('zza')
    await type('zzad')
    late.settle({ items: [found('Zzabel', '/customers/4')] })
    await settle()
    expect(titles()).toEqual(['Ada'])
  })
  it('is forgotten when it is opened anew', async () => {
    const { page, type, words } = drawn({ says: { find: { items: [] } } })
    await type('mar')
    await page.setProps({ modelValue: false })
    await page.setProps({ modelValue: true })
    await nextTick()
    expect((words().element as HTMLInputElement).value).toBe('')
  })
})

describe('telling a customer', () => {
  const notice = (over: Partial<Answer<'visitNotice'>> = {}) =>
    made('visitNotice', {
      visitId: ID,
      customer: 'Marrow & Son',
      phone: '(607) 555-0142',
      to: ['marrow@example.com'],
      mails: true,
      texts: false,
      subject: 'Your visit',
      body: 'We are late.',
      text: 'Late, sorry.',
      ...over,
    })
  const drawn = async (server: Parameters<typeof bring>[0], visitId: string | null = ID) => {
    bring(server)
    signIn()
    const page = mount(TellSheet, { props: { visitId }, attachTo: document.body })
    await settle()
    return page
  }
  it('goes by text where they agreed to texts, by mail else, each with its own words', async () => {
    await drawn({ says: { visitNotice: notice({ texts: true }) } })
    expect([typed('Text to'), typed('Text')]).toEqual(['(607) 555-0142', 'Late, sorry.'])
    await press('By mail')
    expect([typed('Mail to'), typed('Text')]).toEqual(['marrow@example.com', 'We are late.'])
  })
  it('sends what stands there to the visit that it was looked up for', async () => {
    const sent = (await drawn({ says: { visitNotice: notice() } }), bring.sent())
    await fill('Text', 'We come at five.')
    await press('Send the mail')
    expect(sent.at(-1)).toMatchObject({
      name: 'tellCustomer',
      url: `/api/v1/visits/${ID}/tell`,
      body: { channel: 'mail', to: ['marrow@example.com'], body: 'We come at five.' },
    })
  })
  it('who wants no mails are rung, and it is noted', async () => {
    const page = await drawn({ says: { visitNotice: notice({ mails: false }) } })
    expect(body().text()).toContain('This customer wants no mails.')
    expect(buttons('Send the mail')).toHaveLength(0)
    await fill(/^Or rang/, 'is fine')
    await press('Note the call')
    expect(bring.sent().at(-1)!.body).toMatchObject({ spoken: 'is fine' })
    expect(page.emitted('close')).toHaveLength(1)
  })
  it('shows nothing of a visit whose answer comes when it is about another one', async () => {
    const late = later<unknown>()
    const page = await drawn({
      says: {
        visitNotice: (url: string) =>
          url.includes(ID) ? late.promise : notice({ visitId: OTHER, customer: 'Ada Castell' }),
      },
    })
    await page.setProps({ visitId: OTHER })
    await settle()
    late.settle(notice())
    await settle()
    expect(body().text()).toContain('Tell Ada Castell')
    expect(body().text()).not.toContain('Marrow & Son')
  })
  it('says why nothing is known of the visit', async () => {
    await drawn({ says: { visitNotice: 'This visit is gone.' } })
    expect(alerts()).toContain('This visit is gone.')
  })
})

describe('reminding the customers of a day', () => {
  const item = (customer: string, over: object = {}) => ({
    ...made('reminders').items[0]!,
    visitId: customer,
    customer,
    told: false,
    channel: 'mail',
    broken: '',
    ...over,
  })
  const drawn = async (says: NonNullable<Parameters<typeof bring>[0]>['says']) => {
    bring({ says })
    signIn()
    const page = mount(ReminderSheet, {
      props: { date: '2026-11-26' as string | null },
      attachTo: document.body,
    })
    await settle()
    return page
  }
  it('counts whom a message can reach and who was not told', async () => {
    const items = [item('Vane'), item('Okonjo', { told: true }), item('Ada', { channel: 'none' })]
    await drawn({ reminders: { items } })
    expect(button(/^Remind/).text()).toBe('Remind 1 customer')
    expect(body().text()).toContain('somebody rings')
  })
  it('lists the people of the day that it is about, not of the one before', async () => {
    const late = later<unknown>()
    const page = await drawn({
      reminders: (url: string) =>
        url.includes('2026-11-26') ? late.promise : { items: [item('Friday’s Vane')] },
    })
    await page.setProps({ date: '2026-11-27' })
    await settle()
    late.settle({ items: [item('Thursday’s Okonjo')] })
    await settle()
    expect(body().text()).toContain('Friday’s Vane')
    expect(body().text()).not.toContain('Thursday’s Okonjo')
  })
  it('cannot be sent before it is seen', async () => {
    await drawn({ reminders: later<unknown>().promise })
    expect(button('Everybody has been told').attributes('disabled')).toBeDefined()
  })
})

describe('a quote that is written', () => {
  const draft = made('quote', { id: ID, state: 'draft', acts: ['change', 'send'] })
  const [, , third] = draft.lines
  const opened = (says: object = {}) =>
    open(`/quotes/${ID}`, { server: { says: { quote: draft, changeQuote: draft, ...says } } })
  const linesSent = (sent: { body: unknown }[]) =>
    (sent[0]!.body as { lines: { id: string; quantity: string; unitPrice: string }[] }).lines
  it('has its third line changed, and the others sent as they stand', async () => {
    const { acts } = await opened()
    await fill(`Quantity of ${third!.name}`, '7')
    const lines = linesSent(acts())
    expect(lines.map(({ id }) => id)).toEqual(draft.lines.map(({ id }) => id))
    expect(lines.map(({ quantity }) => quantity)).toEqual([
      draft.lines[0]!.quantity,
      draft.lines[1]!.quantity,
      '7',
    ])
  })
  it('has its second line taken out', async () => {
    const { acts } = await opened()
    await press(`Take out ${draft.lines[1]!.name}`)
    expect(linesSent(acts()).map(({ id }) => id)).toEqual([draft.lines[0]!.id, third!.id])
  })
  it('says of which version it was changed', async () => {
    const { acts } = await opened()
    await fill(`Price of ${third!.name}, here only`, '99.00')
    expect(acts()[0]!.body).toMatchObject({ version: draft.version })
    expect(linesSent(acts())[2]!.unitPrice).toBe('99.00')
  })
  it('keeps its words when the field is left, all of them together', async () => {
    const { acts } = await opened()
    await fill('For', 'A new pump')
    await field('For').trigger('focusout')
    await settle()
    const changed = acts().find(({ body: kept }) => (kept as { title?: string }).title)
    expect(changed!.body).toMatchObject({ title: 'A new pump', version: draft.version })
  })
  it('that was sent has nothing to type in', async () => {
    const sent = { ...draft, state: 'sent' as const, acts: ['accept' as const] }
    await open(`/quotes/${ID}`, { server: { says: { quote: sent } } })
    expect(body().findAll(`input[aria-label="Quantity of ${third!.name}"]`)).toHaveLength(0)
    expect(buttons(/^Take out/)).toHaveLength(0)
  })
})

describe('agreements', () => {
  const items = made('agreements').items.map((row, i) => ({
    ...row,
    visitDueOn: '2026-11-20',
    booked: i === 1 ? 'W-1001' : '',
    site: '4 Quarry Road',
  }))
  const opened = (says: object = {}) =>
    open('/agreements', {
      server: { says: { agreements: { items, next: null, total: 3 }, ...says } },
    })
  it('have their due visits made, of those that are taken and can be booked', async () => {
    const { acts } = await opened({ bookDueVisits: { made: [], skipped: [] } })
    await press('all')
    expect(button(/^Make/).text()).toBe('Make 2 visits')
    await press(/^Make/)
    const { items: booked } = acts()[0]!.body as { items: { agreementId: string }[] }
    expect(booked.map(({ agreementId }) => agreementId)).toEqual([items[0]!.id, items[2]!.id])
  })
  it('say which of them were left out, and why', async () => {
    const skipped = [{ agreementId: items[0]!.id, why: 'the customer wants no work' }]
    const { page } = await opened({ bookDueVisits: { made: [], skipped } })
    await press('all')
    await press(/^Make/)
    expect(page.text()).toContain('Left out: the customer wants no work.')
  })
  it('stay chosen where the booking is refused', async () => {
    await opened({ bookDueVisits: 'Somebody books them at this moment.' })
    await press('all')
    await press(/^Make/)
    expect(alerts()).toContain('Somebody books them at this moment.')
    expect(button(/^Make/).text()).toBe('Make 2 visits')
  })
})

describe('mail that failed', () => {
  it('is tried again in its own row', async () => {
    const items = made('messages').items.map((row) => ({ ...row, state: 'failed' as const }))
    const { acts } = await open('/messages', {
      server: { says: { messages: { items, next: null, total: 3 } } },
    })
    await buttons('Try again')[2]!.trigger('click')
    await settle()
    expect(acts().map(({ url }) => url)).toEqual([`/api/v1/messages/${items[2]!.id}/retry`])
  })
})

describe('customers that are perhaps one', () => {
  const pairs = made('duplicates')
  const third = pairs.items[2]!
  const preview = made('mergePreview')
  const opened = (says: object = {}) =>
    open('/customers/duplicates', {
      server: { says: { duplicates: pairs, mergePreview: preview, ...says } },
    })
  const look = async () => {
    const [row] = rows().filter((one) => one.text().includes(third.second.name))
    await row!.findAll('button')[0]!.trigger('click')
    await settle()
  }
  it('are looked at, the third pair as itself', async () => {
    const { sent } = await opened()
    await look()
    const asked = sent.find(({ name }) => name === 'mergePreview')!
    expect(asked.url).toContain(third.first.id)
    expect(asked.url).toContain(third.second.id)
  })
  it('are merged as they were looked at, and taken apart by the same name', async () => {
    const { acts } = await opened()
    await look()
    await press(/^Merge into/)
    const merged = acts()[0]!
    expect([merged.name, merged.url]).toEqual([
      'merge',
      `/api/v1/customers/${preview.kept.id}/merge`,
    ])
    expect(merged.body).toMatchObject({ otherId: preview.merged.id })
    await press('Undo')
    expect(acts()[1]!.url).toContain((merged.body as { id: string }).id)
  })
  it('whose merge had no answer are, asked again, merged once', async () => {
    const { acts } = await opened({ merge: 'The line dropped.' })
    await look()
    await press(/^Merge into/)
    await press(/^Merge into/)
    expect(acts()[1]!.body).toEqual(acts()[0]!.body)
    expect(acts()[1]!.key).toBe(acts()[0]!.key)
  })
})

describe('what is unpaid', () => {
  const unpaid = made('unpaid')
  const owing = (url: string) => {
    const customerId = /customers\/([^/?]+)/.exec(url)![1]!
    const entry = unpaid.worklist.find((one) => one.customerId === customerId)
    return made('owing', { customerId, name: entry?.name ?? 'nobody' })
  }
  it('shows beside it whom the row is about, however late an answer for another comes', async () => {
    const late = later<unknown>()
    const [first, second] = unpaid.worklist
    const { page } = await open('/unpaid', {
      server: {
        says: {
          unpaid,
          owing: (url: string) => (url.includes(first!.customerId) ? late.promise : owing(url)),
        },
      },
    })
    await press(second!.name)
    late.settle(owing(`/customers/${first!.customerId}/owing`))
    await settle()
    expect(page.get('.beside').text()).toContain(second!.name)
    expect(page.get('.beside').text()).not.toContain(first!.name)
  })
  it('notes that nobody answered, of whoever stands beside', async () => {
    const { acts } = await open('/unpaid', { server: { says: { unpaid, owing } } })
    await press(unpaid.worklist[1]!.name)
    await press('No answer')
    expect(acts()[0]).toMatchObject({
      url: `/api/v1/customers/${unpaid.worklist[1]!.customerId}/collection-notes`,
      body: { kind: 'no_answer' },
    })
  })
  it('is paid with a receipt to each address of whoever stands beside', async () => {
    const addresses = { email: 'farm@example.com', email2: 'office@example.com' }
    const { acts } = await open('/unpaid', {
      server: {
        says: {
          unpaid,
          owing: (url: string) => ({ ...owing(url), ...addresses }),
          pay: made('pay'),
        },
      },
    })
    await press(unpaid.worklist[2]!.name)
    await press('Paid now…')
    await fill('Amount', '10.00')
    await press('Take $10.00')
    expect(acts()[0]).toMatchObject({
      name: 'pay',
      body: {
        customerId: unpaid.worklist[2]!.customerId,
        receiptTo: ['farm@example.com', 'office@example.com'],
      },
    })
  })
  it('is shown by customer, with sums that the server made', async () => {
    const { page } = await open('/unpaid', { server: { says: { unpaid, owing } } })
    await press('Ageing by customer')
    const sums = page.findAll('tfoot').map((foot) => foot.text())
    expect(sums.find((text) => text.startsWith('All'))).toContain(
      useSession().money(unpaid.totals.owed, false),
    )
  })
})

describe('minutes that no line charges for', () => {
  it.each([
    ['books', 0],
    ['office', 1],
  ] as const)('are told to %s, and offered to who may charge them', async (role, offered) => {
    const workOrder = made('workOrder', { id: ID }, { fields: { uncoveredSeconds: 1800 } })
    const { page } = await open(`/work/${ID}`, { role, server: { says: { workOrder } } })
    expect(page.text()).toContain('30 minutes were worked that no line charges for.')
    expect([buttons(/^Charge/).length, buttons(/^Leave out/).length]).toEqual([offered, offered])
  })
})

describe('hours and areas', () => {
  const setUp = made('scheduleSetUp')
  const there = (says: object = {}) =>
    open('/schedule/set-up', { server: { says: { scheduleSetUp: setUp, ...says } } })
  it('leave a territory as it is, so that the next one is a new one', async () => {
    const { acts } = await there({ keepTerritory: setUp })
    const third = setUp.territories[2]!
    await press(`Change ${third.name}`)
    goTo('Keep the territory')
    await press('Leave it as it is')
    await fill('Postcodes: single ones, beginnings, ranges', '04101')
    await fill('A territory', 'The fells')
    await press('Keep the territory')
    expect(acts()[0]!.body).toMatchObject({ name: 'The fells' })
    expect((acts()[0]!.body as { id: string }).id).not.toBe(third.id)
  })
  it('end a calendar link only where somebody says so', async () => {
    const technicians = setUp.technicians.map((p) => ({ ...p, calendar: true }))
    const { acts } = await there({ scheduleSetUp: { ...setUp, technicians } })
    const third = `Calendar of ${technicians[2]!.name}`
    await press(third)
    expect(asked.value!.text).toContain(technicians[2]!.name)
    asked.value!.answer(false)
    await settle()
    expect(acts()).toEqual([])
    await press(third)
    asked.value!.answer(true)
    await settle()
    expect(acts()[0]).toMatchObject({
      name: 'newCalendar',
      url: `/api/v1/technicians/${technicians[2]!.id}/calendar`,
    })
  })
})

describe('who is where today', () => {
  it('says whom each is with, and who is late next', async () => {
    const schedule = made('schedule', {}, { rows: 1 })
    const { id } = schedule.technicians[0]!
    const [visit] = schedule.visits
    const at = (arriveAt: string, over: object) => ({
      ...visit!,
      technicianId: id,
      crewIds: [],
      alongIds: [],
      arriveAt,
      ...over,
    })
    schedule.visits = [
      at('2026-11-24T17:00:00Z', {
        id: 'c',
        state: 'planned',
        customer: 'Third',
        town: 'Larkmoor',
      }),
      at('2026-11-24T15:00:00Z', {
        id: 'b',
        state: 'planned',
        customer: 'Next',
        town: 'Otterfall',
      }),
      at('2026-11-24T13:00:00Z', {
        id: 'a',
        state: 'on_site',
        customer: 'Now',
        town: 'Fenny Marsh',
      }),
    ]
    await open('/on-site', { server: { says: { schedule } } })
    const [row] = rows('Everybody today')
    expect(row!.text()).toContain('on site at Now, Fenny Marsh')
    expect(row!.text()).toContain('Next, Otterfall')
    expect(row!.text()).toContain('2 of 3')
  })
})

describe('a call', () => {
  const caller = (customerId: string, name: string) =>
    made('caller', { customerId, name, stopWork: '' })
  it('that cannot be had is not opened as an empty one', async () => {
    const { page, acts } = await open(`/calls/${ID}`, {
      server: { says: { call: 'The books are away.' } },
    })
    expect(page.text()).toContain('The books are away.')
    expect(page.findAll('textarea')).toHaveLength(0)
    expect(acts()).toEqual([])
  })
  it('is about whom was chosen last, however late the answer for the one before comes', async () => {
    const late = later<unknown>()
    const match = (customerId: string, name: string) => ({
      ...made('matches').items[0]!,
      customerId,
      name,
      siteId: null,
    })
    const { page } = await open(`/calls/${ID}?fresh=1`, {
      server: {
        says: {
          matches: { items: [match(ID, 'Marrow & Son'), match(OTHER, 'Ada Castell')] },
          caller: (url: string) => (url.includes(ID) ? late.promise : caller(OTHER, 'Ada Castell')),
        },
      },
    })
    await fill('Who is calling', 'mar')
    const options = () => page.findAll('[role="option"]')
    await options()[0]!.trigger('mousedown')
    await options()[0]!.trigger('click')
    await fill('Who is calling', 'ada')
    await options()[1]?.trigger('mousedown')
    await options()[1]?.trigger('click')
    await settle()
    late.settle(caller(ID, 'Marrow & Son'))
    await settle()
    expect(page.get('section.who').text()).toContain('Ada Castell')
    expect(page.get('section.who').text()).not.toContain('Marrow & Son')
  })
})

describe('a work order that will not be', () => {
  const ID = '0192d4e0-0000-7000-8000-00000000002a'
  const work = (over: Partial<Answer<'workOrder'>>) => {
    const of = sampleOf(routeOf('workOrder').answer!, { seed: 3 }) as Answer<'workOrder'>
    const none = { amount: '0.00', currency: 'USD' }
    const visits = of.visits.map((visit) => ({ ...visit, state: 'planned' as const }))
    return { ...of, id: ID, visits, totals: { ...of.totals, billed: none }, ended: false, ...over }
  }
  const opened = (says: object) =>
    open(`/work/${ID}`, { role: 'owner', server: { says: { ...says } } })
  it.each([
    [
      'cancelled',
      false,
      'Cancel the work order…',
      'Cancel it, and its visits',
      'cancelWorkOrder',
      { known: false },
    ],
    ['taken up again', true, 'Go on with it…', 'Go on with it', 'reopenWorkOrder', {}],
  ] as const)('is %s with its reason', async (_, ended, asks, does, route, more) => {
    const { acts } = await opened({
      workOrder: work({ ended }),
      [route]: work({ ended: !ended }),
    })
    await press(asks)
    await fill(/^Why it/, 'They moved')
    await press(does)
    const done = acts().filter(({ name }) => name === route)
    expect(done.map(({ name, body }) => [name, body])).toEqual([
      [route, { reason: 'They moved', ...more }],
    ])
    expect(buttons(asks)).toEqual([])
  })
  it('is not to be cancelled once something of it is billed', async () => {
    const { totals } = work({})
    const billed = { amount: '5.00', currency: 'USD' }
    await opened({ workOrder: work({ totals: { ...totals, billed } }) })
    expect(buttons('Cancel the work order…')).toEqual([])
  })
  it('and has ended takes no lines', async () => {
    await opened({ workOrder: work({ ended: true, state: 'cancelled' }) })
    expect([buttons('Add line'), buttons('Take out')]).toEqual([[], []])
  })
})
