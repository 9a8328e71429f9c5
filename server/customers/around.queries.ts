// SQL of all that is around a customer, as their page shows it.
import { agreementsIn, type AgreementShort } from '../agreements/queries'
import { placeholders, type Tx } from '../db/pool'
import { listsIn } from '../db/queries'
import { paymentsOfIn, type PaymentOfCustomer } from '../payments/queries'
import { quotesOfCustomerIn, type ShortQuote } from '../quotes/queries'
import { territoriesIn, type TerritoryRow } from '../settings/queries'
import {
  billedSumsIn,
  comingOfIn,
  workOfCustomerIn,
  workSumsIn,
  type BilledSum,
  type ComingVisit,
  type WorkOfCustomer,
} from '../visits/list.queries'
import { mergesIn, type MergeShort } from './merge.queries'
import {
  contactsIn,
  equipmentOfIn,
  sitesOfIn,
  type ContactRow,
  type EquipmentRow,
  type SiteRow,
} from './places.queries'
import {
  filesIn,
  papersIn,
  suppliedIn,
  type FileRow,
  type PaperRow,
  type Supplied,
} from './history.queries'
import { levelsIn, type LevelRow } from './queries'
import { owedIn, type Owed } from './owed.queries'

interface OwnPriced {
  id: string
  name: string
  price: string
}
/** What belongs to a customer and what was done for them, in one question. */
export async function aroundCustomer(tx: Tx, id: string, pricedIds: string[], today: string) {
  const got = await listsIn<{
    sites: SiteRow
    contacts: ContactRow
    equipment: EquipmentRow
    agreements: AgreementShort
    files: FileRow
    merges: MergeShort
    levels: LevelRow
    territories: TerritoryRow
    priced: OwnPriced
    supplied: Supplied
    work: WorkOfCustomer
    coming: ComingVisit
    sums: { promised: number; done: number }
    billed: BilledSum
    owed: Owed
    papers: PaperRow
    payments: PaymentOfCustomer
    quotes: ShortQuote
  }>(tx, {
    sites: sitesOfIn([id]),
    contacts: contactsIn([id]),
    equipment: equipmentOfIn([id]),
    agreements: agreementsIn(id),
    files: filesIn('customer_id', [id]),
    merges: mergesIn(id),
    levels: levelsIn,
    territories: territoriesIn,
    priced: {
      columns: 'id, name, price',
      from: `price_entries WHERE id IN (${placeholders(pricedIds)})`,
      values: pricedIds,
      order: 'name, id',
      decimals: ['price'],
    },
    supplied: suppliedIn(id),
    work: workOfCustomerIn(id),
    coming: comingOfIn(id),
    sums: workSumsIn(id),
    billed: billedSumsIn(id),
    owed: owedIn([id], today),
    papers: papersIn(id),
    payments: paymentsOfIn(id),
    quotes: quotesOfCustomerIn(id),
  })
  return got
}
