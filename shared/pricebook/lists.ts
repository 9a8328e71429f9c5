// Price lists from files: understood, looked at, taken in, taken back.
import { BOOK_FIELDS } from '../../core/pricebook/bookTable'
import {
  flag,
  id,
  instant,
  int,
  list,
  requiredText,
  obj,
  ok,
  oneOf,
  route,
  text,
  definedText,
} from '../schema'
import { preview } from './pricing'
import { source } from './suppliers'

/** A price list: rows as they came from the file, what its columns mean, and what is done with what is not plain. */
const cell = text(4000).defined()
const columns = list(oneOf(BOOK_FIELDS).nullable().defined()).max(60)
const listOptions = {
  category: text(120).default(''),
  taxClass: requiredText('Choose how new entries are taxed.', 20),
  fixed: oneOf(['keep', 'by_rule'] as const).default('keep'),
  vanished: oneOf(['keep', 'retire'] as const).default('keep'),
}
const listCounts = obj({
  new: int().required(),
  changed: int().required(),
  same: int().required(),
  wrong: int().required(),
  vanished: int().required(),
})
const priceList = obj({
  id: id().required(),
  fileName: definedText(),
  supplier: definedText(),
  state: definedText(),
  counts: listCounts,
  madeBy: definedText(),
  madeAt: instant().required(),
})
const listRow = obj({
  row: int().required(),
  state: definedText(),
  code: definedText(),
  name: definedText(),
  what: definedText(500),
})

export const priceListRoutes = {
  columnMeaning: route({
    method: 'POST',
    path: '/price-imports/columns',
    may: 'pricebook.change',
    summary: 'What the columns of such a list meant the last time',
    body: obj(source),
    answer: obj({ known: flag().required(), columns: list(definedText().nullable()) }),
  }),
  stagePrices: route({
    method: 'POST',
    path: '/price-imports/{id}/rows',
    may: 'pricebook.change',
    summary: 'Rows of a price list, a piece at a time; nothing is changed by them',
    maxBytes: 8_000_000,
    body: obj({
      ...source,
      fileName: requiredText('Say what the file is called.', 160),
      columns,
      rows: list(obj({ row: int(1).required(), cells: list(cell).max(60) }))
        .min(1)
        .max(2000),
    }),
    answer: ok,
  }),
  lookAtPrices: route({
    method: 'POST',
    path: '/price-imports/{id}/look',
    may: 'pricebook.change',
    summary: 'What taking a list in would do, row by row; nothing is changed',
    body: obj(listOptions),
    answer: obj({
      stamp: definedText(),
      counts: listCounts,
      wrong: list(listRow),
      new: list(listRow),
      changed: list(listRow),
      vanished: list(obj({ id: id().required(), code: definedText(), name: definedText() })),
      prices: preview.omit(['stamp', 'count']),
    }),
  }),
  takePrices: route({
    method: 'POST',
    path: '/price-imports/{id}/take',
    may: 'pricebook.change',
    summary: 'Takes in every row that is right, in one act',
    body: obj({ stamp: requiredText('Look at it first.', 80), ...listOptions }),
    answer: priceList,
  }),
  importProgress: route({
    method: 'GET',
    path: '/price-imports/{id}/progress',
    may: 'pricebook.change',
    summary: 'How far a list is that is being looked at or taken in',
    answer: obj({ what: definedText(), done: int().required(), of: int().required() }),
  }),
  priceImports: route({
    method: 'GET',
    path: '/price-imports',
    may: 'pricebook.change',
    summary: 'Lists that were taken in, the newest first',
    answer: obj({ items: list(priceList) }),
  }),
  undoPriceImport: route({
    method: 'POST',
    path: '/price-imports/{id}/undo',
    may: 'pricebook.change',
    summary: 'Takes a list back in one act; what was changed again since stays',
    answer: obj({ list: priceList, left: int().required() }),
  }),
}
