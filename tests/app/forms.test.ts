// Every form of the office, tried in one way: it is about what it was opened from, sends once what it shows, and keeps what was typed where
// it is refused.
import { DOMWrapper } from '@vue/test-utils'
import { beforeAll, describe, expect, it } from 'vitest'
import { USUAL_BILLED_TIME } from '~~/core/hours/billedTime'
import { invoiceLifecycle } from '~~/core/invoices/invoiceLifecycle'
import { quoteLifecycle } from '~~/core/quotes/quoteLifecycle'
import { USUAL_LAYOUT } from '~~/core/documents/paperLayout'
import { routeOf, type Answer, type RouteName } from '~~/shared/api'
import { catalogueOfRoutes } from '~/lib/api'
import { alerts, button, buttons, choose, fill, goTo, press, rows, typed } from './hands'
import { sampleOf, type Wanted } from './sample'
import { open, settle, type Screen, type Server } from './screen'

const ID = '0192d4e0-0000-7000-8000-00000000002a'
const NO = 'Somebody else has it open. Try again in a minute.'
beforeAll(() => catalogueOfRoutes())

interface Trial {
  what: string
  page: string
  /** what is pressed until the form is there: buttons by name, or a step of its own */
  way?: (string | RegExp | (() => Promise<unknown>))[]
  /** what is chosen and typed in it */
  chosen?: [label: string, value: string][]
  typed?: [label: string | RegExp, text: string][]
  act: string | RegExp
  /** what is sent: its route, and what follows from what it was opened from */
  sends: RouteName
  about?: string
  body?: Record<string, unknown>
  says?: Server['says']
}
const made = <N extends RouteName>(name: N, over: Partial<Answer<N>> = {}, wanted?: Wanted) =>
  ({ ...(sampleOf(routeOf(name).answer!, wanted) as object), ...over }) as Answer<N>
const invoice = made('invoice', {
  id: ID,
  state: 'sent' as never,
  acts: Object.keys(invoiceLifecycle.acts) as Answer<'invoice'>['acts'],
})
const cheques = {
  ...invoice,
  payments: invoice.payments.map((payment) => ({ ...payment, method: 'cheque', takenBack: null })),
}
const quote = made('quote', {
  id: ID,
  state: 'sent',
  acts: Object.keys(quoteLifecycle.acts) as Answer<'quote'>['acts'],
  asks: [],
})
const staff = {
  items: made(
    'staff',
    {},
    { fields: { active: true, comesIn: true, role: 'dispatch', ownRole: '' } },
  ).items.map((person, i) => ({ ...person, name: `Person ${i}`, version: 4 })),
}
const thirdPerson = staff.items[2]!
const newFirm: Answer<'guide'> = {
  steps: [{ code: 'book', done: false, unlocks: ['pricing'] }],
  tasks: [{ task: 'pricing', missing: ['book'] }],
}
const series: Answer<'numbers'> = {
  items: (['invoice', 'quote', 'work_order', 'receipt'] as const).map((kind, i) => ({
    ...{ kind, prefix: 'N-', width: 1, yearly: false, next: 7, example: 'N-7', version: i + 1 },
  })),
}
const before = made('broughtForward', {
  on: null,
  accounts: (['bank', 'cash', 'tax'] as const).map((account) => ({ account, amount: '0.00' })),
})
const workKinds: Answer<'workKinds'> = {
  items: [1, 2, 3].map((n) => ({
    ...{ code: `kind_${n}`, name: `Kind ${n}`, minutes: n * 10, skills: [] },
    ...{ charges: [], gone: 0, retired: false },
  })),
}
const rights: Answer<'limits'> = {
  given: [],
  roles: [
    { role: 'technician', name: 'technician', base: 'technician' as const },
    ...[1, 2, 3].map((n) => ({ role: `r${n}`, name: `Foreman ${n}`, base: 'office' as const })),
  ].map((role) => ({ ...role, lowerPercent: 10, belowCost: false, mendsTime: true })),
}
const phrases: Answer<'phrases'> = {
  items: (['parked', 'no_bill', 'taken_off'] as const).map((name) => ({
    ...{ name, phrases: [`Often in ${name}`] },
  })),
}
const layouts: Answer<'layouts'> = {
  items: [1, 2, 3].map((n) => ({
    ...{ id: `${ID.slice(0, -1)}${n}`, kind: 'quote', name: `Layout ${n}`, version: n },
    ...{ usual: n === 1, retired: false, layout: { ...USUAL_LAYOUT, subject: `about ${n}` } },
  })),
}
const mails: Answer<'mailWords'> = {
  items: (['bill', 'invoice', 'quote'] as const).map((kind) => ({
    ...{ kind, text: `Words with a ${kind}`, usual: 'Usual', fields: ['name'] },
  })),
}
const levels: Answer<'priceLevels'> = {
  items: [1, 2, 3].map((n) => ({
    ...{ id: `${ID.slice(0, -1)}${n}`, name: `Level ${n}`, agreement: n === 1 },
    off: [{ kind: 'part', percent: String(n) }],
  })),
}
const [, , thirdLevel] = levels.items
const plans: Answer<'plans'> = {
  levels: [],
  items: [1, 2, 3].map((n) => ({
    ...{ id: `${ID.slice(0, -1)}${n}`, name: `Plan ${n}`, visitsAYear: n, minutes: 60 },
    ...{ price: '90.00', levelId: null, work: 'Look after it', retired: false },
  })),
}
const { id: thirdPlanId, ...thirdPlan } = plans.items[2]!
const customer = made('customer', { id: ID, erased: false, mergedInto: null })
const [, , thirdSite] = customer.sites
const work = made('workOrder', { id: ID }, { fields: { state: 'to_bill', uncoveredSeconds: 1800 } })
const tasks = made('tasks', {}, { fields: { doneAt: null } }).items.map((task, i) => ({
  ...task,
  what: `Task ${i}`,
}))
const thirdTask = tasks[2]!
const lines = work.lines.map((line) => ({
  ...line,
  billed: { amount: '0.00', currency: 'USD' },
  done: false,
  visitId: null,
}))
const unpriced = {
  ...work,
  totals: { ...work.totals, toBill: { amount: '0.00', currency: 'USD' } },
}
const unpaid = made('unpaid')
const worklist = unpaid.worklist.map((entry) => ({ ...entry, act: 'remind', resting: false }))
const byLetter = { ...unpaid, worklist: worklist.map((entry) => ({ ...entry, act: 'letter' })) }
const owing = (url: string) => {
  const customerId = /customers\/([^/?]+)/.exec(url)?.[1] ?? ID
  const { name } = worklist.find((entry) => entry.customerId === customerId) ?? { name: 'nobody' }
  return made('owing', { customerId, name, email: 'pays@example.com', mails: true })
}
const toAct = { says: { unpaid: { ...unpaid, worklist }, owing } }
const thirdOwing = worklist[2]!
const scheduleSetUp = made('scheduleSetUp')
scheduleSetUp.technicians = scheduleSetUp.technicians.map((technician) => ({
  ...technician,
  kind: 'employee',
  startsAt: 'home',
  endsAt: 'yard',
}))
const thirdTechnician = scheduleSetUp.technicians[2]!
const setUp = made('setUp', { billedTime: USUAL_BILLED_TIME })
/** Presses something in the third row of a table. */
const inThirdRow = (name: string | RegExp, label?: string) => () =>
  press(name, rows(label).filter((row) => buttons(name, row).length)[2])

const TRIALS: Trial[] = [
  {
    what: 'an invoice that is sent',
    page: `/invoices/${ID}`,
    way: [/^Send/],
    typed: [
      ['To', 'else@example.com'],
      ['Text', 'With thanks.\n\n{link}'],
    ],
    act: 'Send it',
    sends: 'sendInvoice',
    about: ID,
    says: { invoice },
  },
  {
    what: 'an invoice that is handed over',
    page: `/invoices/${ID}`,
    way: [/^Send/],
    act: 'It was handed over',
    sends: 'sendInvoice',
    about: ID,
    body: { to: [] },
    says: { invoice },
  },
  {
    what: 'a payment',
    page: `/invoices/${ID}`,
    way: [/^Take payment/],
    typed: [
      ['Amount', '12.50'],
      ['Reference', 'envelope 7'],
    ],
    act: /^Take \$12.50/,
    sends: 'pay',
    body: { invoiceIds: [ID], shownOpen: invoice.open.amount },
    says: { invoice },
  },
  {
    what: 'the third cheque that came back',
    page: `/invoices/${ID}`,
    way: [async () => buttons('Take it back…')[2]!.trigger('click')],
    typed: [['What the bank said', 'account closed']],
    act: 'Take the payment back',
    sends: 'takeBack',
    body: { why: 'returned' },
    about: cheques.payments[2]!.id,
    says: { invoice: cheques },
  },
  {
    what: 'a quote that is sent',
    page: `/quotes/${ID}`,
    way: [/^Send/],
    typed: [['Send to', 'else@example.com']],
    act: 'Send it',
    sends: 'sendQuote',
    about: ID,
    body: { version: quote.version },
    says: { quote },
  },
  {
    what: 'a yes to a quote',
    page: `/quotes/${ID}`,
    way: [/yes|accept/i],
    typed: [['Who agreed, and how', 'Mr Vane, on the telephone']],
    act: 'Make it work to schedule',
    sends: 'answerQuote',
    about: ID,
    body: { version: quote.version, accepted: true },
    says: { quote },
  },
  {
    what: 'a no to a quote',
    page: `/quotes/${ID}`,
    way: [/they said no|declin/i],
    typed: [['Why not', 'too dear']],
    act: 'Close the quote',
    sends: 'answerQuote',
    about: ID,
    body: { accepted: false },
    says: { quote },
  },
  {
    what: 'a customer',
    page: `/customers/${ID}`,
    way: ['Change'],
    typed: [
      ['Name', 'Vane & Daughters'],
      ['Printed on their invoices', 'Ask for the key.'],
    ],
    act: 'Keep',
    sends: 'changeCustomer',
    about: ID,
    body: { version: customer.version },
    says: { customer },
  },
  {
    what: 'the third site',
    page: `/customers/${ID}`,
    way: [`Change ${thirdSite!.name}`],
    typed: [['Access: what the technician must know', 'The dog is loud and kind.']],
    act: 'Keep',
    sends: 'changeSite',
    about: thirdSite!.id,
    body: { version: thirdSite!.version },
    says: { customer },
  },
  {
    what: 'a further site',
    page: `/customers/${ID}`,
    way: ['Add a site'],
    typed: [
      ['Address', '4 Quarry Road'],
      ['Town', 'Otterfall'],
    ],
    act: 'Keep',
    sends: 'newSite',
    body: { customerId: ID },
    says: { customer },
  },
  {
    what: 'a quote that begins at a customer’s',
    page: `/customers/${ID}`,
    way: ['Begin a quote'],
    typed: [['What is quoted', 'A softener']],
    act: 'Begin the quote',
    sends: 'beginQuote',
    body: { customerId: ID, siteId: customer.sites[0]!.id },
    says: { customer },
  },
  {
    what: 'something to bill without a visit',
    page: `/customers/${ID}?begin=bill`,
    typed: [['What is billed', 'Two bags of salt']],
    act: 'Begin the bill',
    sends: 'beginBill',
    body: { customerId: ID, siteId: customer.sites[0]!.id },
    says: { customer },
  },
  {
    what: 'equipment at the third site',
    page: `/customers/${ID}`,
    way: [async () => buttons('+ equipment')[2]!.trigger('click')],
    typed: [
      ['What it is', 'pump'],
      ['Serial number', 'P-77'],
    ],
    act: 'Keep',
    sends: 'newEquipment',
    body: { siteId: thirdSite!.id },
    says: { customer },
  },
  {
    what: 'a person’s data that is taken out',
    page: `/customers/${ID}`,
    way: ['Take it out…'],
    typed: [[/^Write/, customer.name]],
    act: 'Take it out',
    sends: 'erase',
    about: ID,
    body: { version: customer.version },
    says: { customer },
  },
  {
    what: 'a reminder from the third row',
    page: '/unpaid',
    way: [inThirdRow('Send reminder')],
    typed: [['Text', 'Please see to it.']],
    act: 'Send this reminder',
    sends: 'remind',
    about: thirdOwing.customerId,
    body: { to: ['pays@example.com', expect.any(String)] },
    ...toAct,
  },
  {
    what: 'a letter to whom no mail can be sent',
    page: '/unpaid',
    way: [inThirdRow('Write a letter')],
    typed: [['Letter', 'Please see to it.']],
    act: 'Keep and print this letter',
    sends: 'remind',
    about: thirdOwing.customerId,
    body: { to: [], letter: true },
    says: {
      unpaid: byLetter,
      owing: (url: string) => ({ ...owing(url), mails: false }),
      remind: { messageId: ID },
    },
  },
  {
    what: 'a dispute of whoever the third row is about',
    page: '/unpaid',
    way: [inThirdRow(thirdOwing.name), 'Disputes…'],
    typed: [['In their words', 'The pump hums.']],
    act: 'Note it',
    sends: 'collectionNote',
    about: thirdOwing.customerId,
    body: { kind: 'dispute', amount: null },
    ...toAct,
  },
  {
    what: 'a promise of whoever the third row is about',
    page: '/unpaid',
    way: [inThirdRow(thirdOwing.name), 'Promised…'],
    typed: [
      ['Amount', '80.00'],
      ['By', 'Dec 1, 2026'],
    ],
    act: 'Note it',
    sends: 'collectionNote',
    about: thirdOwing.customerId,
    body: { kind: 'promise', onDate: '2026-12-01' },
    ...toAct,
  },
  {
    what: 'a work order that is billed',
    page: `/work/${ID}`,
    way: [/^Bill/],
    typed: [['Send to', 'else@example.com']],
    act: /^Make and send/,
    sends: 'makeInvoice',
    about: ID,
    body: { shownTotal: work.bill.total.amount },
    says: { workOrder: work },
  },
  {
    what: 'work that comes back',
    page: `/work/${ID}`,
    way: ['Call-back…'],
    typed: [['What is wrong again', 'It drips where it dripped.']],
    act: 'Put it among what needs a slot',
    sends: 'callBack',
    about: ID,
    says: { workOrder: { ...work, callbackOf: null } },
  },
  {
    what: 'a discount on all',
    page: `/work/${ID}`,
    way: ['Discount…'],
    typed: [[/^Take off all/, '10 %']],
    act: 'Take it off',
    sends: 'discountLines',
    about: ID,
    says: { workOrder: { ...work, lines } },
  },
  {
    what: 'the third line of a work order',
    page: `/work/${ID}`,
    way: [inThirdRow('Change', 'The account')],
    typed: [
      ['Called, here only', 'Foot valve, brass'],
      ['Quantity', '3'],
    ],
    act: 'Keep',
    sends: 'changeLine',
    about: lines[2]!.id,
    body: { version: lines[2]!.version },
    says: { workOrder: { ...work, lines } },
  },
  {
    what: 'minutes that are left out',
    page: `/work/${ID}`,
    way: ['Leave out, say why'],
    typed: [['Why', 'We taught the apprentice.']],
    act: 'Leave them out',
    sends: 'explainTime',
    about: ID,
    body: { seconds: work.time.uncoveredSeconds },
    says: { workOrder: work },
  },
  {
    what: 'work that is closed without a bill',
    page: `/work/${ID}`,
    way: ['Close without a bill…'],
    typed: [['Why', 'Our own mistake.']],
    act: 'Close it',
    sends: 'closeWorkOrder',
    about: ID,
    says: { workOrder: unpriced },
  },
  {
    what: 'the words of a work order',
    page: `/work/${ID}`,
    way: ['Change what it says…'],
    typed: [
      ['Printed on the invoice', 'Order 4711'],
      ['For the office alone', 'Pays late.'],
    ],
    act: 'Keep',
    sends: 'writeWorkOrder',
    about: ID,
    body: { version: work.version, printedNote: 'Order 4711', officeNote: 'Pays late.' },
    says: { workOrder: work },
  },
  {
    what: 'the phases of a work order',
    page: `/work/${ID}`,
    way: ['Change the phases…'],
    typed: [['Phase 1', 'Digging']],
    act: 'Keep',
    sends: 'keepPhases',
    about: ID,
    body: { version: work.version, visits: [], lines: [] },
    says: { workOrder: work },
  },
  {
    what: 'work that is parked',
    page: `/work/${ID}`,
    way: ['+ park it in a list'],
    typed: [
      ['Park it in the list', 'ask in spring'],
      ['Why it is parked', 'they are away'],
    ],
    act: 'Park it',
    sends: 'followUp',
    about: ID,
    body: { version: work.version, on: null },
    says: { workOrder: { ...work, followUp: '', followUpReason: '', followUpOn: null } },
  },
  {
    what: 'something to do about a work order',
    page: `/work/${ID}`,
    way: ['+ something to do'],
    typed: [['What is to be done', 'Order the pump']],
    act: 'Give it',
    sends: 'newTask',
    body: { about: 'work', subjectId: ID, on: null },
    says: { workOrder: work, tasks: { items: [] } },
  },
  {
    what: 'the third task, given on and put off',
    page: `/work/${ID}`,
    way: ['Change Task 2'],
    typed: [['What is to be done', 'Order the second pump']],
    act: 'Keep it',
    sends: 'changeTask',
    about: thirdTask.id,
    body: { version: thirdTask.version },
    says: { workOrder: work, tasks: { items: tasks } },
  },
  {
    what: 'the third technician',
    page: '/schedule/set-up',
    way: [`Change ${thirdTechnician.name}`],
    typed: [['Skills, with commas between', 'pumps']],
    act: 'Keep',
    sends: 'changeTechnician',
    about: thirdTechnician.id,
    body: { version: thirdTechnician.version },
    says: { scheduleSetUp },
  },
  {
    what: 'time off',
    page: '/schedule/set-up',
    chosen: [['Who is off', thirdTechnician.id]],
    typed: [
      ['From', 'Dec 1, 2026'],
      ['Reason', 'a wedding'],
    ],
    act: 'Enter time off',
    sends: 'addTimeOff',
    body: { personId: thirdTechnician.id, from: '2026-12-01', to: '2026-12-01', fromTime: null },
    says: { scheduleSetUp },
  },
  {
    what: 'a meeting',
    page: '/schedule/set-up',
    chosen: [['For whom', thirdTechnician.id]],
    typed: [
      ['Day', 'Dec 2, 2026'],
      ['What it is', 'First aid'],
    ],
    act: 'Enter it',
    sends: 'addEntry',
    body: { personId: thirdTechnician.id, date: '2026-12-02', from: '08:00', to: '09:00' },
    says: { scheduleSetUp },
  },
  {
    what: 'where the yard is',
    page: '/schedule/set-up',
    typed: [['Our yard: a postcode, or latitude and longitude', '42.5, -75.5']],
    act: 'Keep the yard',
    sends: 'keepYard',
    body: { at: '42.5, -75.5', shown: scheduleSetUp.yard },
    says: { scheduleSetUp },
  },
  {
    what: 'a holiday',
    page: '/schedule/set-up',
    typed: [
      ['Day', 'Dec 25, 2026'],
      ['Called', 'Christmas'],
    ],
    act: 'Nobody works then',
    sends: 'keepHoliday',
    body: { date: '2026-12-25' },
    says: { scheduleSetUp },
  },
  {
    what: 'the third territory',
    page: '/schedule/set-up',
    way: [`Change ${scheduleSetUp.territories[2]!.name}`],
    typed: [['Postcodes: single ones, beginnings, ranges', '04101–04105']],
    act: 'Keep the territory',
    sends: 'keepTerritory',
    body: { id: scheduleSetUp.territories[2]!.id, name: scheduleSetUp.territories[2]!.name },
    says: { scheduleSetUp },
  },
  {
    what: 'a further question to callers',
    page: '/set-up',
    way: [async () => goTo('How it is answered')],
    typed: [['A further question', 'Is there a dog?']],
    act: 'Add',
    sends: 'keepQuestion',
    body: { kind: 'yes_no', text: 'Is there a dog?' },
    says: { setUp },
  },
  {
    what: 'what our papers say',
    page: '/set-up',
    typed: [['Name of the firm', 'Reed & Daughters']],
    act: 'Keep what our papers say',
    sends: 'changeFirm',
    body: { name: 'Reed & Daughters' },
    says: { setUp },
  },
  {
    what: 'how long we stand for what we supply',
    page: '/set-up',
    typed: [['Months; 0 for none', '36']],
    act: 'Keep the warranty',
    sends: 'keepWarranty',
    body: { months: 36 },
    says: { setUp },
  },
  {
    what: 'how time is charged',
    page: '/set-up',
    typed: [['At least, minutes', '30']],
    act: 'Keep how time is charged',
    sends: 'keepBilledTime',
    body: {
      ...{ way: 'nearest', stepMinutes: 6, leastMinutes: 30 },
      shown: { way: 'nearest', stepMinutes: 6, leastMinutes: 6 },
    },
    says: { setUp },
  },
  {
    what: 'our words for states',
    page: '/set-up',
    typed: [['to bill', 'to be billed']],
    act: 'Keep these words',
    sends: 'keepStateLabels',
    says: { setUp },
  },
  {
    what: 'a further class of taxes',
    page: '/set-up',
    way: ['A further class'],
    typed: [
      ['What is taxed so', 'Fittings'],
      ['Name of the tax', 'State tax'],
      ['Per cent', '4.5'],
    ],
    act: 'Keep these taxes',
    sends: 'keepTaxClass',
    body: { id: '', name: 'Fittings', rates: [{ name: 'State tax', percent: '4.5' }] },
    says: { setUp },
  },
  {
    what: 'how a paper looks',
    page: '/papers',
    way: [/^Layout 3/],
    typed: [['Words that it opens with', 'Dear {name},']],
    act: 'Keep this layout',
    sends: 'keepLayout',
    body: {
      ...{ id: layouts.items[2]!.id, version: 3, kind: 'quote', name: 'Layout 3' },
      ...{ subject: 'about 3', opening: 'Dear {name},' },
    },
    says: { layouts },
  },
  {
    what: 'a further layout',
    page: '/papers',
    typed: [
      ['Name of this layout', 'Nota'],
      ['Invoice {number}', 'Nota {number}'],
    ],
    act: 'Keep this layout',
    sends: 'keepLayout',
    body: { version: 0, kind: 'invoice', name: 'Nota', words: { title: 'Nota {number}' } },
    says: { layouts },
  },
  {
    what: 'what is written with a paper',
    page: '/set-up',
    way: ['Change the words of with a quote'],
    typed: [['Words', 'Dear {name}, as we said.']],
    act: 'Keep these words',
    sends: 'keepMailWords',
    body: { kind: 'quote', text: 'Dear {name}, as we said.', shown: 'Words with a quote' },
    says: { setUp, mailWords: mails },
  },
  {
    what: 'a kind of work',
    page: '/set-up',
    way: ['Change the kind Kind 3'],
    typed: [
      ['Minutes that it takes', '45'],
      ['Skills that it needs, with commas between', 'pumps'],
    ],
    act: 'Keep this kind',
    sends: 'keepWorkKind',
    body: {
      ...{ code: 'kind_3', name: 'Kind 3', minutes: 45, skills: ['pumps'], retired: false },
      charges: [],
      shown: { name: 'Kind 3', minutes: 30, skills: [], charges: [], retired: false },
    },
    says: { setUp, workKinds },
  },
  {
    what: 'a role of the firm’s own',
    page: '/set-up',
    way: ['Call Foreman 3 otherwise'],
    typed: [['What it is called', 'Master']],
    act: 'Keep this role',
    sends: 'keepRole',
    body: { code: 'r3', name: 'Master', base: 'office', shown: 'Foreman 3' },
    says: { setUp, limits: rights },
  },
  {
    what: 'what is often written',
    page: '/set-up',
    way: ['Change what is proposed: Why something costs less'],
    typed: [['One in each line, what is most frequent first', 'Came late']],
    act: 'Keep these phrases',
    sends: 'keepPhrases',
    body: { name: 'taken_off', phrases: ['Came late'], shown: ['Often in taken_off'] },
    says: { setUp, phrases },
  },
  {
    what: 'a price level',
    page: '/set-up',
    way: ['Change the level Level 3'],
    typed: [['Hours, per cent less', '7.5']],
    act: 'Keep this level',
    sends: 'keepPriceLevel',
    body: {
      ...{ id: thirdLevel!.id, name: 'Level 3', agreement: false },
      shown: { name: 'Level 3', agreement: false, off: thirdLevel!.off },
    },
    says: { setUp, priceLevels: levels },
  },
  {
    what: 'a care plan',
    page: '/set-up',
    way: ['Change the plan Plan 3'],
    typed: [['Price of a year', '99.50']],
    act: 'Keep this plan',
    sends: 'keepPlan',
    body: { id: thirdPlanId, ...thirdPlan, price: '99.50', shown: thirdPlan },
    says: { setUp, plans },
  },
  {
    what: 'a series of numbers',
    page: '/set-up',
    way: ['Change the numbers of work orders'],
    typed: [
      ['Before the figures', 'JOB-'],
      ['The next number', '412'],
    ],
    act: 'Keep these numbers',
    sends: 'keepNumbers',
    // The version and the kind of what it was opened from.
    body: { kind: 'work_order', version: 3 },
    says: { setUp, numbers: series },
  },
  {
    what: 'opening balances',
    page: '/brought-forward',
    typed: [['Cash on hand', '50.25']],
    act: 'Keep these balances',
    sends: 'keepOpening',
    body: { shown: before.accounts },
    says: { broughtForward: before },
  },
  {
    what: 'an export that goes out by itself',
    page: '/in-and-out',
    way: ['Let something go out…'],
    chosen: [
      ['What', 'invoices'],
      ['Where to', 'mail'],
    ],
    typed: [['Mail address', 'books@example.com']],
    act: 'Let it go out',
    sends: 'keepExportSchedule',
    body: { what: 'invoices', every: 'day', way: 'mail' },
    says: { inAndOut: made('inAndOut', { maySchedule: true, folder: '/srv/out' }) },
  },
  {
    what: 'somebody who is added',
    page: '/people',
    way: ['Add somebody'],
    typed: [
      ['Name', 'Nell Farrow'],
      ['Mail address', 'nell@example.com'],
    ],
    act: 'Add and invite',
    sends: 'keepPerson',
    body: { name: 'Nell Farrow', role: 'technician', bookable: true },
  },
  {
    what: 'somebody who is here',
    page: '/people',
    way: [() => press(`Change ${thirdPerson.name}`)],
    typed: [['Telephone', '(607) 555-0199']],
    act: 'Keep',
    sends: 'keepPerson',
    body: { id: thirdPerson.id, version: thirdPerson.version, name: thirdPerson.name },
    says: { staff },
  },
  {
    what: 'a short list of prices to begin with',
    page: '/guide',
    way: ['Begin with a short list'],
    typed: [[/^What you charge/, '95']],
    act: 'Make the list',
    sends: 'startPriceBook',
    body: { hour: '95' },
    says: { guide: newFirm },
  },
  {
    what: 'a password that was forgotten',
    page: '/sign-in',
    way: ['I forgot my password'],
    typed: [['Your mail address', 'nell@example.com']],
    act: 'Send me a link',
    sends: 'forgotPassword',
    says: { session: '' },
  },
  {
    what: 'a token for a program',
    page: '/me',
    typed: [['What it is for', 'the till']],
    act: 'Make a token',
    sends: 'newToken',
  },
]
const server = (trial: Trial, says: Server['says'] = {}): Server => ({
  says: { ...trial.says, ...says },
})
async function opened(trial: Trial, says: Server['says'] = {}) {
  const screen = await open(trial.page, { server: server(trial, says) })
  goTo(null)
  for (const step of trial.way ?? []) {
    await (typeof step === 'function' ? step() : press(step))
    await settle()
  }
  goTo(trial.act)
  for (const [label, value] of trial.chosen ?? []) await choose(screen.page, label, value)
  for (const [label, text] of trial.typed ?? []) await fill(label, text)
  return screen
}
/** What was sent by the act that is tried: the page may keep a draft besides. */
const sentBy = (trial: Trial, { acts }: Screen) => acts().filter(({ name }) => name === trial.sends)

describe.each(TRIALS)('$what', (trial) => {
  it('is sent once, about what it was opened from', async () => {
    const screen = await opened(trial)
    await press(trial.act)
    expect(screen.complaints).toEqual([])
    const [first, ...others] = screen.acts()
    expect([first?.name, others]).toEqual([trial.sends, []])
    if (trial.about) expect(first!.url).toContain(trial.about)
    if (trial.body) expect(first!.body).toMatchObject(trial.body)
    for (const [label, text] of trial.typed ?? [])
      if (!/^\w{3} \d+, \d{4}$/.test(text))
        expect(JSON.stringify(first!.body), String(label)).toContain(
          JSON.stringify(text).slice(1, -1),
        )
  })
  it('is sent once also where it is pressed twice', async () => {
    const screen = await opened(trial)
    const pressed = button(trial.act)
    const form = pressed.attributes('type') === 'submit' && pressed.element.closest('form')
    const twice = form ? new DOMWrapper(form) : pressed
    const event = form ? 'submit' : 'click'
    void twice.trigger(event)
    void twice.trigger(event)
    await settle()
    expect(sentBy(trial, screen)).toHaveLength(1)
  })
  it('that is refused says why, keeps what was typed, and can be sent again', async () => {
    const screen = await opened(trial, { [trial.sends]: NO })
    const stood = (trial.typed ?? []).map(([label]) => typed(label))
    await press(trial.act)
    expect(alerts(new DOMWrapper(document.body)).join()).toContain(NO)
    expect((trial.typed ?? []).map(([label]) => typed(label))).toEqual(stood)
    await press(trial.act)
    const [first, second] = sentBy(trial, screen)
    expect(second!.body).toEqual(first!.body)
  })
})
