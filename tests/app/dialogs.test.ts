// Every dialog of the office, tried in one way: it is about what it was opened from, sends once what it shows, and keeps what was typed where
// it is refused.
import { DOMWrapper } from '@vue/test-utils'
import { beforeAll, describe, expect, it } from 'vitest'
import { invoiceLifecycle } from '~~/core/invoices/invoiceLifecycle'
import { quoteLifecycle } from '~~/core/quotes/quoteLifecycle'
import { routeOf, type Answer, type RouteName } from '~~/shared/api'
import { catalogueOfRoutes } from '~/lib/api'
import { alerts, button, dialog, fill, press, typed } from './hands'
import { sampleOf, type Wanted } from './sample'
import { open, settle, type Server } from './screen'

const ID = '0192d4e0-0000-7000-8000-00000000002a'
const NO = 'Somebody else has it open. Try again in a minute.'
beforeAll(() => catalogueOfRoutes())

interface Trial {
  what: string
  page: string
  /** what is pressed until the dialog is there */
  way: (string | RegExp)[]
  /** what is typed in it */
  typed: [label: string | RegExp, text: string][]
  act: string | RegExp
  /** what is sent: its route, and what of it follows from what it was opened from */
  sends: RouteName
  about?: string
  says?: Server['says']
  wanted?: Wanted
}
const made = <N extends RouteName>(name: N, over: Partial<Answer<N>> = {}, wanted?: Wanted) =>
  ({
    ...(sampleOf(routeOf(name).answer!, wanted) as object),
    ...over,
  }) as Answer<N>
const invoice = made('invoice', {
  id: ID,
  state: 'sent' as never,
  acts: [...(Object.keys(invoiceLifecycle.acts) as Answer<'invoice'>['acts'])],
})
const quote = made('quote', {
  id: ID,
  state: 'sent',
  acts: [...(Object.keys(quoteLifecycle.acts) as Answer<'quote'>['acts'])],
})
const customer = made('customer', { id: ID, erased: false, mergedInto: null })
const work = made('workOrder', { id: ID }, { fields: { state: 'to_bill' } })

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
    typed: [],
    act: 'It was handed over',
    sends: 'sendInvoice',
    about: ID,
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
    says: { invoice },
  },
  {
    what: 'a quote that is sent',
    page: `/quotes/${ID}`,
    way: [/^Send/],
    typed: [['Send to', 'else@example.com']],
    act: 'Send it',
    sends: 'sendQuote',
    about: ID,
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
    says: { customer },
  },
  {
    what: 'a work order that is billed',
    page: `/work/${ID}`,
    way: [/^Bill/],
    typed: [['Send to', 'else@example.com']],
    act: /^Make and send/,
    sends: 'makeInvoice',
    about: ID,
    says: { workOrder: work },
  },
]
const server = (trial: Trial, says: Server['says'] = {}): Server => ({
  wanted: trial.wanted ? { '*': trial.wanted } : {},
  says: { ...trial.says, ...says },
})
async function opened(trial: Trial, says: Server['says'] = {}) {
  const screen = await open(trial.page, { server: server(trial, says) })
  for (const name of trial.way) await press(name)
  if (!dialog()) throw new Error(`no dialog after ${trial.way.join(', ')}`)
  for (const [label, text] of trial.typed) await fill(label, text)
  return screen
}
describe.each(TRIALS)('$what', (trial) => {
  it('is sent once, about what it was opened from', async () => {
    const { acts, complaints } = await opened(trial)
    await press(trial.act)
    expect(complaints).toEqual([])
    expect(acts().map(({ name }) => name)).toEqual([trial.sends])
    if (trial.about) expect(acts()[0]!.url).toContain(trial.about)
    for (const [, text] of trial.typed)
      expect(JSON.stringify(acts()[0]!.body)).toContain(JSON.stringify(text).slice(1, -1))
  })
  it('is sent once also where it is pressed twice', async () => {
    const { acts } = await opened(trial)
    const pressed = button(trial.act)
    const form = pressed.attributes('type') === 'submit' && pressed.element.closest('form')
    const twice = form ? new DOMWrapper(form) : pressed
    const event = form ? 'submit' : 'click'
    void twice.trigger(event)
    void twice.trigger(event)
    await settle()
    expect(acts()).toHaveLength(1)
  })
  it('that is refused says why, keeps what was typed, and can be sent again', async () => {
    const says: Server['says'] = { [trial.sends]: NO }
    const { acts } = await opened(trial, says)
    await press(trial.act)
    expect(alerts().join()).toContain(NO)
    for (const [label, text] of trial.typed) expect(typed(label)).toBe(text)
    await press(trial.act)
    expect(acts()).toHaveLength(2)
    expect(acts()[1]!.body).toEqual(acts()[0]!.body)
  })
})
