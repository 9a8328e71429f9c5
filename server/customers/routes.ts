// The routes of customers and imports, bound to their services.
import type { customerRoutes } from '../../shared/customers'
import type { importRoutes } from '../../shared/imports'
import { listOf } from '../db/queries'
import { historyOf } from '../http/queries'
import { outside, type Handlers } from '../http/route'
import { importPiece, listImports, undoImport } from './imports'
import { mergesIn, type MergeShort } from './merge.queries'
import { mergeCustomers, undoMerge } from './merge'
import { mergePreview } from './mergePreview'
import { notTheSame, sweepDuplicates } from './duplicates'
import { erasePerson, personData } from './privacy'
import { addCustomer, changeCustomer } from './commands'
import { alikeTo, callerOf, findMatches } from './callers'
import { customerPaper, listCustomers } from './views'
import {
  addContact,
  addEquipment,
  addFile,
  addSite,
  changeContact,
  changeEquipment,
  changeSite,
  listSites,
  readFile,
} from './sites'

import { forgetPostcodes, keepPostcodes, postcodesNow } from './postcodes'

export const customerHandlers: Handlers<typeof customerRoutes & typeof importRoutes> = {
  matches: (ctx, { query }) => findMatches(ctx, query.q),
  caller: (ctx, { params }) => callerOf(ctx, params.id!),
  alike: (ctx, { body }) => alikeTo(ctx, body),
  customers: (ctx, { query }) => listCustomers(ctx, query),
  customer: (ctx, { params }) => customerPaper(ctx, params.id!),
  async customerEarlier(ctx, { params, query }) {
    const merged = await listOf<MergeShort>(ctx.tx, mergesIn(params.id!))
    const ids = [params.id!, ...merged.map(({ mergedId }) => mergedId)]
    return { items: await historyOf(ctx, 'customer_id', ids, query.before) }
  },
  newCustomer: (ctx, { body }) => addCustomer(ctx, body),
  changeCustomer: (ctx, { params, body }) => changeCustomer(ctx, params.id!, body),
  sites: (ctx, { query }) => listSites(ctx, query),
  postcodes: (ctx) => postcodesNow(ctx),
  keepPostcodes: (ctx, { body }) => keepPostcodes(ctx, body),
  forgetPostcodes: (ctx) => forgetPostcodes(ctx),
  newSite: (ctx, { body }) => addSite(ctx, body),
  changeSite: (ctx, { params, body }) => changeSite(ctx, params.id!, body),
  newContact: (ctx, { body }) => addContact(ctx, body),
  changeContact: (ctx, { params, body }) => changeContact(ctx, params.id!, body),
  newEquipment: (ctx, { body }) => addEquipment(ctx, body),
  changeEquipment: (ctx, { params, body }) => changeEquipment(ctx, params.id!, body),
  addFile: outside((call, { body }) => addFile(call, body)),
  file: (ctx, { params }) => readFile(ctx, params.id!),
  duplicates: (ctx) => sweepDuplicates(ctx),
  notDuplicates: (ctx, { params, body }) => notTheSame(ctx, params.id!, body.otherId),
  mergePreview: (ctx, { params, query }) => mergePreview(ctx, params.id!, query.other),
  merge: (ctx, { params, body }) => mergeCustomers(ctx, params.id!, body),
  undoMerge: (ctx, { params }) => undoMerge(ctx, params.id!),
  personData: (ctx, { params }) => personData(ctx, params.id!),
  erase: (ctx, { params, body }) => erasePerson(ctx, params.id!, body),
  importPiece: (ctx, { params, body }) => importPiece(ctx, params.id!, body),
  imports: (ctx) => listImports(ctx),
  undoImport: (ctx, { params }) => undoImport(ctx, params.id!),
}
