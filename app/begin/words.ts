// The words of a firm's first day: its steps, what they are for, and what is chosen when it begins.
import { sayDay } from '~~/core/time/sayDay'
import type { Permission } from '~~/core/access/permissions'
import type { StepCode, Task } from '~~/core/settings/firstSteps'
import type { TaxMode } from '~~/core/tax/taxTotals'

export const TAX_WORDS: readonly { value: TaxMode; label: string }[] = [
  { value: 'added', label: 'before tax' },
  { value: 'included', label: 'with tax inside' },
  { value: 'withheld', label: 'before tax, withheld' },
]
/** A day and a sum by which ways of writing are told apart. */
const SAMPLE = { day: '2026-03-25', sum: 1234.5 }
const OTHERS = ['en-GB', 'en-US', 'de-DE', 'fr-FR', 'es-ES', 'it-IT', 'nl-NL', 'sv-SE', 'pt-PT']
/** How days and sums may be written in a country, by what they look like there. */
export function localesFor({ locale, currency }: { locale: string; currency: string }) {
  return [...new Set([locale, ...OTHERS])].map((value) => ({
    value,
    label: `${sayDay(SAMPLE.day, value, 'withYear')} · ${new Intl.NumberFormat(value, { style: 'currency', currency, currencyDisplay: 'narrowSymbol' }).format(SAMPLE.sum)}`,
  }))
}

interface StepWords {
  says: string
  /** as it is missed */
  lacks: string
  why: string
  to: string
  act: string
  /** who may do it there; whoever may see the guide, where nothing is said */
  needs?: Permission
}
export const STEPS: Readonly<Record<StepCode, StepWords>> = {
  firm: {
    says: 'Our address and telephone',
    lacks: 'address and telephone',
    why: 'They stand on every paper, and customers ring there.',
    to: '/set-up#firm',
    act: 'Write them',
  },
  paid: {
    says: 'How we are paid',
    lacks: 'how we are paid',
    why: 'Each invoice says how, and until when.',
    to: '/set-up#firm',
    act: 'Say it',
  },
  taxes: {
    says: 'Taxes',
    lacks: 'taxes',
    why: 'What is sold is taxed by its class.',
    to: '/set-up#taxes',
    act: 'Set them',
  },
  people: {
    says: 'Who goes to customers',
    lacks: 'somebody who goes there',
    why: 'A call is booked for somebody who can go. They are invited by mail.',
    to: '/people',
    act: 'Add people',
  },
  hours: {
    says: 'When they work',
    lacks: 'when they work',
    why: 'Openings are offered within their hours.',
    to: '/schedule/set-up#technicians',
    act: 'Set hours',
  },
  areas: {
    says: 'Areas, where each goes',
    lacks: 'areas',
    why: 'Without areas everybody goes everywhere.',
    to: '/schedule/set-up#territories',
    act: 'Draw areas',
  },
  book: {
    says: 'The price book',
    lacks: 'prices',
    why: 'What is done is priced from it: from a short list, from a file of yours, or from blank.',
    to: '/price-book',
    act: 'Open the book',
  },
  customers: {
    says: 'Customers, from before',
    lacks: 'customers',
    why: 'Who rings is found at once. New ones are made while they ring.',
    to: '/customers/import',
    act: 'Bring a file',
    needs: 'customers.import',
  },
  brought: {
    says: 'Open invoices and credits, from before',
    lacks: 'what is open from before',
    why: 'Who owes what is known from the first morning. Without any, go on.',
    to: '/brought-forward',
    act: 'Take them over',
    needs: 'ledger.bring',
  },
  numbers: {
    says: 'Our numbers',
    lacks: 'our numbers',
    why: 'They go on where the books before stopped, or begin as they are.',
    to: '/set-up#numbers',
    act: 'Look at them',
  },
  mail: {
    says: 'A mail of ours arrives',
    lacks: 'a mail that arrives',
    why: 'Invoices and reminders go by mail.',
    to: '',
    act: 'Send me one',
  },
  booked: {
    says: 'A first call is booked',
    lacks: 'a call',
    why: 'Who rings, what it is about, who goes when.',
    to: '/calls/new',
    act: 'Take a call',
    needs: 'calls.take',
  },
  billed: {
    says: 'A first invoice is made',
    lacks: 'an invoice',
    why: 'Ticked off on the phone, billed there or in the office.',
    to: '/to-bill',
    act: 'To bill',
  },
  money: {
    says: 'A first payment is in',
    lacks: 'a payment',
    why: 'Cash, cheque, card or transfer: it is on the invoice, and in the books.',
    to: '/unpaid',
    act: 'Unpaid',
    needs: 'collections.work',
  },
}
export const TASK_WORDS: Readonly<Record<Task, string>> = {
  booking: 'Booking calls',
  pricing: 'Pricing work',
  invoicing: 'Making invoices',
  money: 'Taking money',
  chasing: 'Asking for what is unpaid',
}
