// What the papers that customers get have in common; and a paper as it is read: every text as its reader sees it.
import * as yup from 'yup'
import { PAPER_COLUMNS, PAPER_SIZES } from '../core/documents/paperLayout'
import { date, definedText, flag, id, list, money, obj, oneOf, text } from './schema'

const texts = (most = 400) => list(definedText(most))
/** Who wrote it. What papers from before have not is not there. */
export const letterhead = () =>
  obj({
    name: definedText(),
    legalName: text().optional(),
    address: list(definedText()),
    phone: definedText(),
    email: definedText(),
    taxNumber: definedText(),
    registration: text().optional(),
    logoId: id().nullable().optional(),
  })
const MOST_WORDS = 8000
export const layoutShape = () => ({
  /** by word of the paper, what is said otherwise than usual */
  words: yup
    .object()
    .default({})
    .test('texts', 'The words of a paper are texts.', (v) =>
      Object.values(v ?? {}).every((x) => typeof x === 'string' && x.isWellFormed()),
    )
    .test(
      'small',
      'These are too many words for a paper.',
      (v) => JSON.stringify(v ?? {}).length < MOST_WORDS,
    )
    .meta({ free: true }),
  subject: text(200).default(''),
  opening: text(2000).default(''),
  conditions: text(4000).default(''),
  colour: text(7).default(''),
  columns: list(oneOf(PAPER_COLUMNS).required()).max(PAPER_COLUMNS.length),
  itemised: flag().required(),
  discounts: flag().required(),
  size: oneOf(['', ...PAPER_SIZES] as const).default(''),
})
/** How a paper looks and what it says. */
export const layout = () => obj(layoutShape())
export const paperLine = () =>
  obj({
    name: definedText(),
    quantity: definedText(),
    unit: definedText(),
    unitPrice: definedText(),
    discount: money().required(),
    off: list(obj({ why: definedText(), amount: money().required() })).optional(),
    net: money().required(),
  })
export const paperDocument = obj({
  title: definedText(),
  number: definedText(),
  locale: definedText(),
  size: oneOf(PAPER_SIZES).required(),
  colour: definedText(),
  seller: letterhead(),
  head: texts(),
  facts: list(obj({ text: definedText(400), strong: flag().default(false) })),
  buyer: obj({ as: definedText(), name: definedText(), address: texts() }),
  place: obj({ as: definedText(), text: definedText(4000) }),
  subject: definedText(4000),
  opening: definedText(8000),
  columns: list(
    obj({ key: oneOf(['name', ...PAPER_COLUMNS] as const).required(), label: definedText() }),
  ),
  lines: list(
    obj({
      name: definedText(),
      beneath: definedText(400),
      quantity: definedText(),
      each: definedText(),
      amount: definedText(),
    }),
  ),
  remark: definedText(400),
  sums: list(obj({ label: definedText(), amount: definedText(), strong: flag().default(false) })),
  notes: texts(2000),
  conditions: definedText(8000),
  foot: definedText(),
})
/** A quote as its customer has it. */
export const quotePaper = obj({
  number: definedText(),
  locale: definedText(),
  currency: definedText(),
  seller: letterhead(),
  lines: list(paperLine()),
  issuedOn: date().required(),
  expiresOn: date().required(),
  title: definedText(),
  scope: definedText(2000),
  orderNumber: definedText(),
  buyer: obj({ name: definedText(), address: list(definedText()) }),
  site: definedText(400),
  contact: definedText(400),
  net: money().required(),
  taxes: list(obj({ name: definedText(), rate: definedText(), tax: money().required() })),
  total: money().required(),
  saving: obj({ level: definedText(), amount: money().required() }).nullable().default(undefined),
  exempt: definedText(),
  layout: layout().optional().default(undefined),
})
