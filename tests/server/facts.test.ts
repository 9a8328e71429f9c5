// The history: each entry is a code with its data, and its sentence is made when it is read.
import type { Connection, RowDataPacket } from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { agreementFacts } from '../../server/agreements/facts'
import { archiveFacts } from '../../server/archive/facts'
import { accessFacts } from '../../server/access/facts'
import { broughtFacts } from '../../server/broughtForward/facts'
import { callFacts } from '../../server/calls/facts'
import { collectionFacts } from '../../server/collections/facts'
import { customerFacts, importFacts } from '../../server/customers/facts'
import { personFacts, planFacts, scheduleFacts } from '../../server/dispatch/facts'
import { inSpiteOf, sentenceOf, type Fact, type Words } from '../../server/http/facts'
import { invoiceFacts } from '../../server/invoices/facts'
import { messageFacts } from '../../server/messages/facts'
import { paymentFacts } from '../../server/payments/facts'
import { priceFacts } from '../../server/pricebook/facts'
import { quoteFacts } from '../../server/quotes/facts'
import { taskFacts } from '../../server/tasks/facts'
import { settingFacts } from '../../server/settings/facts'
import { visitFacts, workFacts } from '../../server/visits/facts'
import { database, id, signedIn } from './client'

/** Words that show where a day, a time or a sum is said. */
const words: Words = {
  day: (date) => `day(${date})`,
  at: (instant) => `at(${instant})`,
  money: (amount, currency) => `${amount} ${currency}`,
}
const said = (fact: Fact) => sentenceOf({ code: fact.code, text: '', data: fact.data }, words)
const noChange = { from: null, to: null }

describe('what happened, in words', () => {
  it.each<[Fact, string]>([
    [
      workFacts.booked({
        title: 'Pump hums',
        number: 'W-1',
        startAt: '2026-11-24T13:00:00Z',
        against: { what: 'credit_limit', reason: 'pays today' },
        warnings: ['Ines is off then', 'it runs late'],
      }),
      'Call taken: Pump hums. Booked as W-1, at(2026-11-24T13:00:00Z), in spite of the credit limit: pays today in spite of: Ines is off then; it runs late',
    ],
    [
      broughtFacts.taken({ file: 'open.csv', invoices: 40, credits: 1 }),
      '40 open invoices and 1 credit taken over from open.csv',
    ],
    [
      broughtFacts.balancesKept({ on: '2026-11-01', changes: {} }),
      'What stood in the accounts on day(2026-11-01) was entered',
    ],
    [
      accessFacts.refused({ from: '192.0.2.7', why: 'wrong code' }),
      'Did not come in from 192.0.2.7: wrong code',
    ],
    [
      workFacts.booked({ title: 'T', number: 'W-1', startAt: null, against: null, warnings: [] }),
      'Call taken: T. Booked as W-1, no time yet',
    ],
    [
      workFacts.madeForAgreement({ number: 'W-2', plan: 'Care', dueOn: '2026-12-01' }),
      'W-2 made for the visit of the Care agreement that was due by day(2026-12-01)',
    ],
    [
      workFacts.calledBack({ kind: 'warranty', of: 'W-1', problem: 'drips' }),
      'Warranty visit of W-1, without charge: drips',
    ],
    [
      workFacts.lookedAtAgain({ number: 'W-3', kind: 'call_back' }),
      'Has to be looked at again (call-back): W-3',
    ],
    [workFacts.changed({ parts: [], changes: {} }), 'Changed nothing'],
    [
      workFacts.changed({ parts: ['title', 'printedNote'], changes: {} }),
      'Changed the title, the note on papers',
    ],
    [
      workFacts.carriedOver({ details: ['billingTown'], changes: {} }),
      'Carried over from the customer: billing town',
    ],
    [workFacts.parked({ list: 'Spring', on: null }), 'Parked in “Spring”'],
    [
      archiveFacts.scheduled({ what: 'journal', every: 'week', to: 'into the folder' }),
      'Goes out by itself each week: journal into the folder',
    ],
    [taskFacts.given({ what: 'Ring', owner: 'Ines', on: null }), 'To do by Ines: Ring'],
    [
      taskFacts.changed({ what: 'Ring', owner: 'Ines', on: '2026-12-01', changes: {} }),
      'To do now by Ines, by day(2026-12-01): Ring',
    ],
    [taskFacts.undone({ what: 'Ring', owner: 'Ines', on: null }), 'Not done after all: Ring'],
    [
      workFacts.parked({ list: 'Spring', reason: 'they are away', on: '2027-03-01' }),
      'Parked in “Spring” until day(2027-03-01): they are away',
    ],
    [workFacts.unparked({ list: 'Spring' }), 'Taken out of “Spring”'],
    [workFacts.ratesKept({ rates: [], was: {} }), 'Rates of this work order: as everywhere'],
    [workFacts.lineAdded({ name: 'Pipe', quantity: '2.500', unitPrice: '3' }), 'Added 2.5 × Pipe'],
    [
      workFacts.lineDone({ name: 'Pipe', done: false, net: noChange, unitPrice: noChange }),
      'Pipe: not done',
    ],
    [
      workFacts.lineChanged({ name: 'Pipe', now: 'Hose', net: noChange, unitPrice: noChange }),
      'Changed Pipe to Hose',
    ],
    [
      workFacts.lineChanged({ name: 'Pipe', now: 'Pipe', net: noChange, unitPrice: noChange }),
      'Changed Pipe',
    ],
    [
      workFacts.discounted({ amount: '5.00', currency: 'USD', as: '5 %', was: '0.00' }),
      'Took 5.00 USD off what is not billed (5 %)',
    ],
    [workFacts.timeExplained({ seconds: 1830, reason: 'lunch' }), '31 minutes not charged: lunch'],
    [workFacts.fieldFilled({ field: 'Gate', value: '' }), 'Gate: –'],
    [workFacts.photoAdded(), 'Photo added'],
    [
      visitFacts.placed({
        people: ['Ines Calloway', 'Piet'],
        warnings: [],
        startAt: { from: null, to: '2026-11-24T13:00:00Z' },
        technicianId: noChange,
        crewIds: noChange,
        durationSeconds: noChange,
      }),
      'Visit: at(2026-11-24T13:00:00Z), Ines Calloway with Piet',
    ],
    [
      visitFacts.placed({
        people: [],
        warnings: [],
        startAt: noChange,
        technicianId: noChange,
        crewIds: noChange,
        durationSeconds: noChange,
      }),
      'Visit: taken off the schedule',
    ],
    [visitFacts.clocked({ act: 'no_access', state: noChange }), 'Nobody let us in'],
    [visitFacts.cancelled({ reason: '' }), 'Visit cancelled: taken back'],
    [visitFacts.further({ note: 'a part' }), 'A further visit: a part'],
    [
      visitFacts.told({ by: 'text', what: 'late', to: ['1'] }),
      'Told by text that the visit will be late',
    ],
    [
      { code: 'visit.told', data: { by: 'mail', late: true, to: ['1'] } },
      'Told by mail that the visit will be late',
    ],
    [
      visitFacts.promised({
        promise: { from: null, to: { date: '2026-12-04', from: '13:00', to: '15:00' } },
        known: true,
      }),
      'Visit: promised day(2026-12-04), between 13:00 and 15:00; they know',
    ],
    [
      personFacts.off({ person: 'Rosa', reason: 'ill', from: 'A', to: 'B' }),
      'Rosa is off from at(A) to at(B): ill',
    ],
    [planFacts.asked({ days: ['2026-11-24'] }), 'Plan asked for: day(2026-11-24)'],
    [scheduleFacts.holidayTakenBack({ on: '2026-12-25' }), 'day(2026-12-25) is no holiday'],
    [
      agreementFacts.renewed({ plan: 'Care', until: '2027-11-24' }),
      'Care agreement Care renewed until day(2027-11-24)',
    ],
    [
      callFacts.putOff({ until: '2026-11-27', reason: 'asks her sister' }),
      'Call back on day(2026-11-27): asks her sister',
    ],
    [
      collectionFacts.noted({
        kind: 'promise',
        text: 'the rest later',
        amount: '50.00',
        currency: 'USD',
        onDate: '2026-12-01',
      }),
      'Promised 50.00 USD for day(2026-12-01): the rest later',
    ],
    [
      collectionFacts.noted({ kind: 'promise', text: '', amount: '50.00', onDate: '2026-12-01' }),
      'Promised 50.00 for day(2026-12-01)',
    ],
    [
      customerFacts.changed({ changes: { phone2: noChange, name: noChange } }),
      'Changed the second number, name',
    ],
    [
      customerFacts.contactChanged({ name: 'Hilde', came: 'is back', change: noChange }),
      'Contact Hilde is back',
    ],
    [
      importFacts.taken({ file: 'a.csv', added: 2, more: 1 }),
      '2 customers taken in from a.csv, 1 sites and contacts added to known ones',
    ],
    [
      invoiceFacts.made({ number: 'I-1', total: '9.00', currency: 'USD', dueOn: '2026-12-01' }),
      'Invoice I-1 made, 9.00 USD, due day(2026-12-01)',
    ],
    [
      messageFacts.refused({ channel: 'mail', subject: 'Hello' }),
      'Mail “Hello” was not taken by the mail server',
    ],
    [
      messageFacts.delivered({ channel: 'text', subject: '' }),
      'Text delivered to the text service',
    ],
    [
      paymentFacts.applied({ amount: '5.00', method: 'cash', reference: '', receipt: 'R-1' }),
      '5.00 paid by cash, receipt R-1',
    ],
    [
      priceFacts.repriced({ title: 'Spring', count: 1, from: '2027-03-01' }),
      'Spring: 1 price, from day(2027-03-01)',
    ],
    [priceFacts.repriced({ title: 'Spring', count: 2, from: null }), 'Spring: 2 prices'],
    [
      quoteFacts.sent({ number: 'Q-1', addresses: 2, total: '9.00', currency: 'USD' }),
      'Quote Q-1 sent to 2 addresses, 9.00 USD',
    ],
    [quoteFacts.opened({ number: 'Q-1' }), 'Quote Q-1 opened by the customer'],
    [
      settingFacts.firmChanged({ parts: ['name', 'payTo'], changes: {} }),
      'What our papers say was changed: the name, how we are paid',
    ],
    [settingFacts.fieldRetired({ name: 'Gate', of: 'site' }), 'Field “Gate” of sites retired'],
    [accessFacts.othersSignedOut({ count: 3 }), '3 other browsers were signed out'],
  ])('%j: %s', (fact, sentence) => {
    expect(said(fact)).toBe(sentence)
  })

  it('an entry from before it had a code, and one whose data was taken out, say their text', () => {
    expect(sentenceOf({ code: null, text: 'Visit moved', data: null }, words)).toBe('Visit moved')
    const taken = { code: 'customer.entered', text: 'taken out', data: null }
    expect(sentenceOf(taken, words)).toBe('taken out')
  })
  it('nothing said against it is not said', () => expect(inSpiteOf([])).toBe(''))
})

describe('the history of the demo, and of what is done in it', () => {
  let db: Connection
  beforeAll(async () => {
    db = await database()
  })
  afterAll(() => db.end())

  it('says each of its entries, and nothing of how they are kept', async () => {
    const [rows] = await db.query<RowDataPacket[]>(
      'SELECT id, code, text, data FROM trail ORDER BY id DESC LIMIT 5000',
    )
    expect(rows.length).toBeGreaterThan(100)
    for (const row of rows) {
      const entry = row as unknown as { code: string | null; text: string; data: unknown }
      const sentence = sentenceOf(entry, words)
      expect(sentence, entry.code ?? 'without a code').toMatch(/\S/)
      expect(sentence, entry.code ?? '').not.toMatch(/undefined|null|NaN|\[object/)
    }
  })

  it('says days and times in the company’s locale and zone', async () => {
    const office = await signedIn('office')
    const customer = (await office.ok('customers', { query: { limit: '1' } })).items[0]!
    const plan = (await office.ok('plans')).items[0]!
    const { sites } = await office.ok('customer', { params: { id: customer.id } })
    await office.ok('newAgreement', {
      body: {
        id: id(),
        customerId: customer.id,
        siteId: sites[0]!.id,
        planId: plan.id,
        startsOn: '2026-11-24',
      },
    })
    const { history } = await office.ok('customer', { params: { id: customer.id } })
    expect(history[0]!.text).toBe(
      `Care agreement ${plan.name} from Tue, Nov 24, 2026 to Tue, Nov 23, 2027`,
    )
  })
})
