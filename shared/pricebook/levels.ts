// The price levels: what some customers pay less.
import { LINE_KINDS } from '../../core/pricebook/kinds'
import { definedText, flag, id, list, obj, oneOf, requiredText, route, text } from '../schema'

const off = () =>
  list(
    obj({
      kind: oneOf(LINE_KINDS).required(),
      percent: text(6)
        .matches(/^(\d{1,2}(\.\d{1,2})?|100)$/, 'Write per cent, for example 10 or 7.5.')
        .required('Write per cent.'),
    }),
  ).max(LINE_KINDS.length)
const level = obj({
  id: id().required(),
  name: definedText(),
  /** whoever has a care agreement has it; what it would save is said on quotes to others */
  agreement: flag().required(),
  off: off(),
})
const levels = obj({ items: list(level) })
export const levelRoutes = {
  priceLevels: route({
    method: 'GET',
    path: '/price-levels',
    may: 'pricebook.see',
    summary: 'The price levels, with what each takes off',
    answer: levels,
  }),
  keepPriceLevel: route({
    method: 'POST',
    path: '/price-levels',
    may: 'pricebook.change',
    summary: 'Make a price level, or change one, for what is priced from then on',
    body: obj({
      id: id().required(),
      name: requiredText('Name the level.', 80),
      agreement: flag().default(false),
      off: off(),
      /** what stood there when it was changed */
      shown: obj({ name: definedText(), agreement: flag().required(), off: off() })
        .nullable()
        .default(null),
    }),
    answer: levels,
  }),
}
