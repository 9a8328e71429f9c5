// The lines of a work order: added, changed, discounted, priced at its own rates; minutes that none covers, and what was promised and not done.
import { LINE_KINDS } from '../../core/pricebook/kinds'
import {
  amount,
  decimal,
  flag,
  id,
  int,
  list,
  requiredText,
  obj,
  oneOf,
  route,
  text,
  version,
  quantity,
} from '../schema'
import { workOrder } from './workOrder'

export const lineRoutes = {
  keepWorkRates: route({
    method: 'POST',
    path: '/work-orders/{id}/rates',
    may: 'visits.rates',
    summary: 'Rates of labour and charges for this work order alone',
    body: obj({
      version: version(),
      rates: list(
        obj({ entryId: id().required(), price: amount().required('Write the price.') }),
      ).max(50),
    }),
    answer: workOrder,
  }),
  addLines: route({
    method: 'POST',
    path: '/work-orders/{id}/lines',
    may: 'visits.write',
    summary: 'Add lines, from the price book or one-off',
    body: obj({
      visitId: id().nullable().default(null),
      lines: list(
        obj({
          id: id().required(),
          entryId: id().nullable().default(null),
          kind: oneOf(LINE_KINDS),
          name: text(160),
          quantity: quantity(6).required('Write the quantity.'),
          unitPrice: decimal('Write the price as a number, for example 48.60.'),
          cost: decimal('Write the cost as a number, for example 21.40.'),
          done: flag().default(true),
        }),
      ),
    }),
    answer: workOrder,
  }),
  changeLine: route({
    method: 'PATCH',
    path: '/work-lines/{id}',
    may: 'visits.write',
    summary: 'Change a line of this work order only',
    body: obj({
      version: version(),
      name: text(160).min(1, 'Write what it is.'),
      quantity: quantity(6),
      unitPrice: decimal('Write the price as a number, for example 48.60.'),
      discount: text(16),
      /** what it is for, besides the price level; it stands on the paper */
      discountWords: text(120),
      done: flag(),
      removed: flag(),
    }),
    answer: workOrder,
  }),
  discountLines: route({
    method: 'POST',
    path: '/work-orders/{id}/discount',
    may: 'visits.rates',
    summary:
      'Take an amount or a percentage off all lines that are not billed, shared by what they cost',
    body: obj({
      discount: text(16)
        .min(1, 'Write an amount or a percentage, for example 25.00 or 10 %.')
        .required(),
      /** what it is for; it stands on the paper */
      words: text(120).default(''),
    }),
    answer: workOrder,
  }),
  explainTime: route({
    method: 'POST',
    path: '/work-orders/{id}/explanations',
    may: 'visits.sign',
    summary: 'Leave minutes out of the bill, and say why',
    body: obj({
      seconds: int(60, 86_400).required(),
      reason: requiredText('Say why these minutes are not charged.', 200),
    }),
    answer: workOrder,
  }),
  leaveUndone: route({
    method: 'POST',
    path: '/work-orders/{id}/not-done',
    may: 'visits.close',
    summary: 'Say why what was promised is not done, and will not be',
    body: obj({
      /** those that were shown */
      lineIds: list(id().required()).min(1).max(200).required(),
      reason: requiredText('Say why it is not done.', 200),
    }),
    answer: workOrder,
  }),
  chargeTime: route({
    method: 'POST',
    path: '/work-orders/{id}/time-charges',
    may: 'visits.sign',
    summary: 'Charge the minutes that no line covers',
    body: obj({ lineId: id().required() }),
    answer: workOrder,
  }),
}
