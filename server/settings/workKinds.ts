// The kinds of work that the firm does: what each is called, how long it takes, who can do it.
import { invalid, notFound } from '../../core/errors/LedgerError'
import { FIRST_KIND, isFreeKind, workKinds, type WorkKind } from '../../core/visits/workKinds'
import { codeFrom } from '../../core/text/codeFrom'
import type { Answer, Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { partsOf, refuseOther } from './asShown'
import { settingFacts } from './facts'
import { lockFirm } from './firm.queries'
import { getCompany, putWorkKinds } from './queries'
import { entriesOnSale } from '../pricebook/queries'

export const kindsOf = ({ company }: Pick<Ctx, 'company'>): WorkKind[] =>
  workKinds(company.workKinds)
/** Work may be of a kind that the firm has; what it was is always allowed to stay. */
export function checkWorkKind(ctx: Ctx, kind: string, before?: string): void {
  if (kind === before) return
  if (isFreeKind(kind) || !kindsOf(ctx).some(({ code }) => code === kind))
    throw invalid('kind', 'This kind of work is not among yours. Choose another.')
}
/** Each with how many of its charges are gone from the book: nobody would notice that they are charged no more. */
export async function listWorkKinds(
  ctx: Ctx,
  kinds: readonly WorkKind[] = kindsOf(ctx),
): Promise<Answer<'workKinds'>> {
  const charges = [...new Set(kinds.flatMap((kind) => kind.charges))]
  const sold = new Set((await entriesOnSale(ctx.tx, charges, ctx.today)).map(({ id }) => id))
  const gone = (kind: WorkKind) => kind.charges.filter((id) => !sold.has(id)).length
  return { items: kinds.map((kind) => ({ ...kind, gone: gone(kind) })) }
}

const MOST_KINDS = 40
const said = (kind: WorkKind) => partsOf(kind, ['name', 'minutes', 'skills', 'charges', 'retired'])
/** One more, or one otherwise; whoever read it before somebody changed it is told. */
export async function keepWorkKind(
  ctx: Ctx,
  { code, shown, ...kind }: Body<'keepWorkKind'>,
): Promise<Answer<'workKinds'>> {
  await lockFirm(ctx.tx)
  const from = workKinds((await getCompany(ctx.tx))!.workKinds)
  const old = from.find((one) => one.code === code)
  if (code && !old) throw notFound('kind of work')
  if (old) refuseOther('this kind', { now: said(old), shown, current: old })
  checkKind(kind, old, from)
  await checkCharges(ctx, kind.charges, old)
  const codes = from.map((one) => one.code)
  const now = {
    ...kind,
    ...{ skills: [...new Set(kind.skills)], charges: [...new Set(kind.charges)] },
    code: old?.code ?? codeFrom(kind.name, codes, 'kind'),
  }
  const to = old ? from.map((one) => (one === old ? now : one)) : [...from, now]
  return changeWorkKinds(ctx, { from, to })
}
function checkKind(
  { name, retired }: Pick<WorkKind, 'name' | 'retired'>,
  old: WorkKind | undefined,
  all: readonly WorkKind[],
): void {
  if (all.some((one) => one !== old && one.name.toLowerCase() === name.toLowerCase()))
    throw invalid('name', 'Another kind is called so.')
  if (!old && all.length >= MOST_KINDS)
    throw invalid('name', `There may be ${MOST_KINDS} kinds at most.`)
  if (retired && old?.code === FIRST_KIND)
    throw invalid('retired', 'A call begins with this one. Call it otherwise instead.')
}
/** Charges are in the book; one that was retired since may stay, and charges nothing. */
async function checkCharges(
  ctx: Ctx,
  charges: readonly string[],
  old: WorkKind | undefined,
): Promise<void> {
  const added = charges.filter((id) => !old?.charges.includes(id))
  const sold = await entriesOnSale(ctx.tx, added, ctx.today)
  if (added.some((id) => !sold.some((entry) => entry.id === id)))
    throw invalid('charges', 'This is not in the price book any more. Choose another.')
}
export async function changeWorkKinds(
  ctx: Ctx,
  kinds: { from: WorkKind[]; to: WorkKind[] },
): Promise<Answer<'workKinds'>> {
  await putWorkKinds(ctx.tx, kinds.to)
  const fact = settingFacts.workKindsChanged({ kinds })
  await record(ctx, { subject: 'settings', id: ctx.id(), fact })
  return listWorkKinds(ctx, workKinds(kinds.to))
}
