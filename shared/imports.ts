// Reading customers from a file: piece by piece, first dry, then for good; an import can be taken back.
import { IMPORT_FIELDS } from '../core/customers/importRows'
import {
  flag,
  id,
  instant,
  int,
  list,
  requiredText,
  obj,
  oneOf,
  route,
  text,
  definedText,
} from './schema'

export const PIECE_ROWS = 500
/** What was taken in from a file before. */
export const earlierImport = obj({
  id: id().required(),
  fileName: definedText(),
  added: int().required(),
  skipped: int().required(),
  by: definedText(),
  at: instant().required(),
  undone: flag().required(),
})
export const importRoutes = {
  importPiece: route({
    method: 'POST',
    path: '/imports/{id}',
    may: 'customers.import',
    summary: 'A piece of an import: at most 500 rows, checked only or taken in',
    maxBytes: 3_000_000,
    body: obj({
      fileName: requiredText('Say which file it is.', 160),
      dry: flag().default(true),
      skipDuplicates: flag().default(true),
      columns: list(oneOf(IMPORT_FIELDS).nullable().defined()).max(60, 'Not more than 60 columns.'),
      rows: list(list(text(2000).default('')))
        .min(1, 'There is no row.')
        .max(PIECE_ROWS, 'Not more than 500 rows at a time.'),
      first: int(1, 1_000_000).default(1),
    }),
    answer: obj({
      rows: list(
        obj({
          row: int().required(),
          state: oneOf(['new', 'more', 'duplicate', 'wrong'] as const).required(),
          name: definedText(),
          of: definedText(300),
          problems: list(obj({ field: definedText(), message: definedText(300) })),
        }),
      ),
      added: int().required(),
      skipped: int().required(),
    }),
  }),
  imports: route({
    method: 'GET',
    path: '/imports',
    may: 'customers.import',
    summary: 'Imports, the latest first',
    answer: obj({
      items: list(earlierImport),
    }),
  }),
  undoImport: route({
    method: 'POST',
    path: '/imports/{id}/undo',
    may: 'customers.import',
    summary: 'Take an import back; what has been used since stays',
    answer: obj({ removed: int().required(), kept: int().required() }),
  }),
}
