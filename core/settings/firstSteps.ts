/** What a firm does with Open Ledger, in the order of its work. */
export const TASKS = ['booking', 'pricing', 'invoicing', 'money', 'chasing'] as const
export type Task = (typeof TASKS)[number]

/** What is known of a firm that sets itself up. */
export interface FirmFacts {
  hasAddress: boolean
  saysHowPaid: boolean
  hasTaxes: boolean
  bookable: number
  /** of those, who has hours */
  working: number
  areas: number
  entries: number
  customers: number
  /** a mail of ours arrived somewhere */
  hasMailed: boolean
  /** numbers go on as somebody said */
  hasNumbers: boolean
  /** invoices and credits from the books before */
  brought: number
  booked: number
  billed: number
  paid: number
}
export const STEP_CODES = [
  ...(['firm', 'paid', 'taxes', 'people', 'hours', 'areas'] as const),
  ...(['book', 'customers', 'brought', 'numbers', 'mail', 'booked', 'billed', 'money'] as const),
]
export type StepCode = (typeof STEP_CODES)[number]
export interface Step {
  code: StepCode
  done: boolean
  /** what cannot be done well before it is; nothing for what only helps */
  unlocks: readonly Task[]
}

/**
 * The steps of a firm that sets itself up, in the order in which they are easiest, each with what it unlocks.
 * @example firstSteps(facts).find(({ done }) => !done)?.code // 'firm', for a firm of which only the name is known
 * Source: common practice of the trade: whom customers can reach, who goes, when, at which price, how it is paid.
 */
export const firstSteps = (f: FirmFacts): Step[] => [
  { code: 'firm', done: f.hasAddress, unlocks: ['invoicing'] },
  { code: 'paid', done: f.saysHowPaid, unlocks: ['invoicing', 'money'] },
  { code: 'taxes', done: f.hasTaxes, unlocks: ['pricing', 'invoicing'] },
  { code: 'people', done: f.bookable > 0, unlocks: ['booking'] },
  { code: 'hours', done: f.bookable > 0 && f.working === f.bookable, unlocks: ['booking'] },
  { code: 'areas', done: f.areas > 0, unlocks: [] },
  { code: 'book', done: f.entries > 0, unlocks: ['pricing'] },
  { code: 'customers', done: f.customers > 0, unlocks: [] },
  // Who begins without either has said so with the first invoice.
  { code: 'brought', done: f.brought > 0 || f.billed > 0, unlocks: [] },
  { code: 'numbers', done: f.hasNumbers || f.billed > 0, unlocks: [] },
  { code: 'mail', done: f.hasMailed, unlocks: ['invoicing', 'chasing'] },
  { code: 'booked', done: f.booked > 0, unlocks: [] },
  { code: 'billed', done: f.billed > 0, unlocks: [] },
  { code: 'money', done: f.paid > 0, unlocks: [] },
]

/**
 * What is still missing for each task; nothing where it can begin.
 * @example missingFor(steps, 'booking') // ['hours']
 */
export const missingFor = (steps: readonly Step[], task: Task): StepCode[] =>
  steps.filter(({ done, unlocks }) => !done && unlocks.includes(task)).map(({ code }) => code)
