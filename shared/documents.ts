// What the papers that customers get have in common; and a paper as it is read: every text as its reader sees it.
import { definedText, flag, id, list, money, obj, text } from './schema'

const texts = (most = 400) => list(definedText(most))
/** Who wrote it. */
/** What papers from before have not is not there. */
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
  seller: letterhead(),
  facts: list(obj({ text: definedText(400), strong: flag().default(false) })),
  buyer: obj({ as: definedText(), name: definedText(), address: texts() }),
  place: obj({ as: definedText(), text: definedText(4000) }),
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
  conditions: definedText(4000),
})
