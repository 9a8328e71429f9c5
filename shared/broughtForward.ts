// What is taken over from the books before: open invoices and credits from a file, and what stood in the accounts.
import { OPEN_ITEM_FIELDS } from '../core/broughtForward/openItem'
import { OPENING_ACCOUNTS } from '../core/ledger/accounts'
import { earlierImport, PIECE_ROWS } from './imports'
import {
  date,
  definedText,
  flag,
  int,
  list,
  money,
  obj,
  oneOf,
  requiredText,
  route,
  text,
} from './schema'

const sums = obj({ count: int().required(), sum: money().required() })
const amounts = () =>
  list(obj({ account: oneOf(OPENING_ACCOUNTS).required(), amount: text(20).default('') })).max(
    OPENING_ACCOUNTS.length,
  )
const broughtForward = obj({
  /** the day of the balances; null before there are any */
  on: date().nullable().default(null),
  accounts: amounts(),
  /** what the owners have in it, by all that was brought */
  opening: money().required(),
  invoices: sums,
  credits: sums,
  imports: list(earlierImport),
})
export const broughtRoutes = {
  broughtForward: route({
    method: 'GET',
    path: '/brought-forward',
    may: 'ledger.bring',
    summary: 'What was taken over from the books before',
    answer: broughtForward,
  }),
  keepOpening: route({
    method: 'POST',
    path: '/brought-forward/balances',
    may: 'ledger.bring',
    summary: 'What stood in the accounts on the day on which the firm begins here',
    body: obj({
      on: date().required('Say on which day they stood so.'),
      amounts: amounts(),
      shown: amounts(),
    }),
    answer: broughtForward,
  }),
  bringOpenItems: route({
    method: 'POST',
    path: '/brought-forward/{id}',
    may: 'ledger.bring',
    summary: 'A piece of a list of open invoices and credits: checked only, or taken over',
    maxBytes: 3_000_000,
    body: obj({
      fileName: requiredText('Say which file it is.', 160),
      dry: flag().default(true),
      /** from this day on they stand in our books */
      on: date().required('Say from which day they count here.'),
      makeCustomers: flag().default(true),
      columns: list(oneOf(OPEN_ITEM_FIELDS).nullable().defined()).max(
        60,
        'Not more than 60 columns.',
      ),
      rows: list(
        obj({
          /** its place in the file */
          at: int(1, 1_000_000).required(),
          cells: list(text(2000).default('')).max(60, 'Not more than 60 columns.'),
        }),
      )
        .min(1, 'There is no row.')
        .max(PIECE_ROWS, `Not more than ${PIECE_ROWS} rows at a time.`),
    }),
    answer: obj({
      rows: list(
        obj({
          row: int().required(),
          state: oneOf(['new', 'credit', 'settled', 'double', 'wrong'] as const).required(),
          number: definedText(),
          customer: definedText(),
          newCustomer: flag().required(),
          /** whose it becomes, where the name is another */
          of: definedText(),
          open: money().required(),
          problems: list(obj({ field: definedText(), message: definedText(300) })),
        }),
      ),
      added: int().required(),
      skipped: int().required(),
      open: money().required(),
      credits: money().required(),
    }),
  }),
  undoOpenItems: route({
    method: 'POST',
    path: '/brought-forward/{id}/undo',
    may: 'ledger.bring',
    summary: 'Take a list back; what was paid, or used since, stays',
    answer: obj({ removed: int().required(), kept: int().required() }),
  }),
}
