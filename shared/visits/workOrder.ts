// A work order as screens show it.
import { eachWorkWord, WORK_WORDS } from '../../core/visits/workWords'
import { WORK_ORDER_STATES } from '../../core/visits/workOrderState'
import { suppliedShape } from '../customers/shapes'
import { asks } from '../asks'
import { visitLifecycle } from '../../core/visits/visitLifecycle'
import { invoiceLifecycle } from '../../core/invoices/invoiceLifecycle'
import { quoteLifecycle } from '../../core/quotes/quoteLifecycle'
import { CLOCK_KIND_NAMES } from '../../core/hours/mendTime'
import { SIGN_PURPOSE_NAMES } from '../../core/visits/signedPaper'
import { DETAIL_NAMES, type Detail } from '../../core/customers/changedDetails'
import {
  date,
  definedText,
  flag,
  history,
  id,
  instant,
  int,
  list,
  money,
  obj,
  oneOf,
  text,
} from '../schema'

const MISSING_NAMES = ['no_price', 'undone', 'no_mail'] as const
const DETAILS = Object.keys(DETAIL_NAMES) as Detail[]
/** whom to speak to, and as what */
export const contact = obj({
  name: text(120).default(''),
  phone: text(40).default(''),
  role: text(60).default(''),
})
const line = obj({
  id: id().required(),
  version: int().required(),
  kind: definedText(),
  name: definedText(),
  unit: definedText(),
  quantity: definedText(),
  unitPrice: definedText(),
  bookPrice: definedText().nullable(),
  unitCost: definedText().nullable(),
  priceFrom: definedText(),
  supplier: definedText(),
  partNumber: definedText(),
  discount: money().required(),
  discountWords: definedText(),
  /** what is taken off is for, part by part */
  off: list(obj({ why: definedText(), amount: money().required() })),
  done: flag().required(),
  net: money().required(),
  saving: money().required(),
  taxClass: definedText(),
  coversSeconds: int().required(),
  visitId: id().nullable().defined(),
  /** its own; without one it is of its visit's */
  phaseId: id().nullable().defined(),
  promised: money().required(),
  doneAmount: money().required(),
  billed: money().required(),
  paid: money().required(),
  toBill: money().required(),
  unpaid: money().required(),
  /** beyond what the customer agreed to */
  notAgreed: money().required(),
})
export const workOrder = obj({
  followUp: definedText(),
  followUpReason: definedText(),
  followUpOn: date().nullable().defined(),
  callbackOf: obj({ id: id().required(), number: definedText() }).nullable().default(undefined),
  callBacks: list(
    obj({
      id: id().required(),
      number: definedText(),
      kind: definedText(),
      state: oneOf(WORK_ORDER_STATES).required(),
      siteSeconds: int().required(),
      cost: money().nullable().default(undefined),
    }),
  ),
  id: id().required(),
  version: int().required(),
  number: definedText(),
  ...eachWorkWord((word) => definedText(WORK_WORDS[word].most)),
  kind: definedText(),
  state: oneOf(WORK_ORDER_STATES).required(),
  /** closed or cancelled by somebody's word */
  ended: flag().required(),
  currency: definedText(),
  createdAt: instant().required(),
  customer: obj({
    id: id().required(),
    name: definedText(),
    phone: definedText(),
    email: definedText(),
    email2: definedText(),
    exempt: flag().required(),
    level: definedText(),
    terms: definedText(),
    stopWork: definedText(),
    officeNote: definedText(2000),
    address: definedText(400),
    tags: list(definedText()),
  }),
  site: obj({
    id: id().required(),
    name: definedText(),
    line1: definedText(),
    town: definedText(),
    accessNote: definedText(400),
  }),
  contact: contact.required(),
  otherContacts: list(contact),
  equipment: definedText(300),
  /** what was supplied before, that it is about */
  supplied: suppliedShape.nullable().default(undefined),
  changedDetails: list(
    obj({ detail: oneOf(DETAILS).required(), was: definedText(2000), is: definedText(2000) }),
  ),
  answers: list(obj({ question: definedText(), answer: definedText(400) })),
  fields: list(
    obj({
      id: id().required(),
      name: definedText(),
      kind: definedText(),
      choices: list(definedText()),
      value: definedText(400),
    }),
  ),
  visits: list(
    obj({
      id: id().required(),
      version: int().required(),
      technicianId: id().nullable().defined(),
      technician: definedText(),
      startAt: instant().nullable().defined(),
      state: oneOf(visitLifecycle.states).required(),
      driveSeconds: int().required(),
      siteSeconds: int().required(),
      along: list(obj({ name: definedText(), seconds: int().required() })),
      startedAt: instant().nullable().defined(),
      finishedAt: instant().nullable().defined(),
      promise: definedText(),
      phaseId: id().nullable().defined(),
      findings: definedText(4000),
      /** who was clocked at it from when to when */
      times: list(
        obj({
          id: id().required(),
          personId: id().required(),
          person: definedText(),
          kind: oneOf(CLOCK_KIND_NAMES).required(),
          from: instant().required(),
          to: instant().nullable().defined(),
        }),
      ),
    }),
  ),
  lines: list(line),
  /** in their order, each with its own account; last, without a name, what is of none */
  phases: list(
    obj({
      id: id().nullable().defined(),
      name: definedText(),
      promised: money().required(),
      done: money().required(),
      billed: money().required(),
      paid: money().required(),
      toBill: money().required(),
      cost: money().nullable().defined(),
      lines: int().required(),
      linesDone: int().required(),
      siteSeconds: int().required(),
    }),
  ),
  /** what may be put back */
  takenOut: list(
    obj({
      id: id().required(),
      version: int().required(),
      name: definedText(),
      net: money().required(),
    }),
  ),
  totals: obj({
    promised: money().required(),
    done: money().required(),
    billed: money().required(),
    paid: money().required(),
    beyondPromise: money().required(),
    notAgreed: money().required(),
    toBill: money().required(),
    unpaid: money().required(),
  }),
  price: obj({
    net: money().required(),
    taxes: list(obj({ name: definedText(), rate: definedText(), tax: money().required() })),
    tax: money().required(),
    total: money().required(),
    saving: money().required(),
    savingLevel: definedText(),
    /** material with what it cost to come again, the hours that were clocked, and both */
    material: money().nullable().defined(),
    labour: money().nullable().defined(),
    cost: money().nullable().defined(),
    margin: int().nullable().defined(),
  }),
  bill: obj({
    net: money().required(),
    tax: money().required(),
    total: money().required(),
    dueOn: date().required(),
    issueOn: date().required(),
    /** what the firm writes with an invoice */
    mail: definedText(8000),
    /** what of it the customer did not agree to */
    beyond: money().required(),
    /** what speaks against billing it as it stands: of a line, mended where it is said */
    missing: list(
      obj({
        why: oneOf(MISSING_NAMES).required(),
        text: definedText(300),
        lineId: id().nullable().defined(),
        version: int().nullable().defined(),
      }),
    ),
  }),
  time: obj({
    siteSeconds: int().required(),
    coveredSeconds: int().required(),
    explainedSeconds: int().required(),
    uncoveredSeconds: int().required(),
    charge: money().required(),
  }),
  /** labour and charges, with who says what they cost here: the strongest is the last that says something */
  rates: list(
    obj({
      entryId: id().required(),
      name: definedText(),
      book: definedText(),
      customer: definedText().nullable(),
      workOrder: definedText().nullable(),
    }),
  ),
  invoices: list(
    obj({
      id: id().required(),
      number: definedText(),
      issueOn: date().required(),
      dueOn: date().required(),
      total: money().required(),
      open: money().required(),
      state: oneOf(invoiceLifecycle.states).required(),
    }),
  ),
  quotes: list(
    obj({
      id: id().required(),
      number: definedText(),
      state: oneOf(quoteLifecycle.states).required(),
      total: money().required(),
    }),
  ),
  source: definedText(),
  signatures: list(
    obj({
      id: id().required(),
      name: definedText(),
      signedAt: instant().required(),
      takenBy: definedText(),
      total: money().required(),
      purpose: oneOf(SIGN_PURPOSE_NAMES).required(),
      /** there is its paper as it was signed; not of those from before papers were kept */
      kept: flag().required(),
    }),
  ),
  /** what waits for another person's yes */
  asks: asks(),
  photos: list(obj({ id: id().required(), takenAt: instant().required() })),
  history: history(),
})
