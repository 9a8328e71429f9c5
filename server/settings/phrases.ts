// What the firm writes often: proposed where it is written, in its own words.
import { invalid } from '../../core/errors/LedgerError'
import {
  phraseLists,
  phrasesOf,
  readPhrases,
  type PhraseListName,
  type Phrases,
} from '../../core/settings/phrases'
import type { Answer, Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { alike, refuseOther } from './asShown'
import { settingFacts } from './facts'
import { lockFirm } from './firm.queries'
import { getCompany, putPhrases } from './queries'

export const listPhrases = ({ company }: Pick<Ctx, 'company'>): Answer<'phrases'> => ({
  items: phraseLists(company.phrases),
})
export const phrasesNow = async (ctx: Ctx): Promise<Phrases> => {
  await lockFirm(ctx.tx)
  return (await getCompany(ctx.tx))!.phrases
}
/** One list otherwise; whoever read it before somebody changed it is told. */
export async function keepPhrases(
  ctx: Ctx,
  { name, phrases, shown }: Body<'keepPhrases'>,
): Promise<Answer<'phrases'>> {
  const own = await phrasesNow(ctx)
  const from = phrasesOf(name, own)
  refuseOther('these phrases', { now: from, shown, current: { name, phrases: from } })
  const to = readPhrases(phrases.join('\n'))
  if (to.length !== phrases.length) throw invalid('phrases', 'Each phrase stands once, in a line.')
  return alike(from, to) ? { items: phraseLists(own) } : changePhrases(ctx, own, { name, from, to })
}
export async function changePhrases(
  ctx: Ctx,
  own: Phrases,
  { name, from, to }: { name: PhraseListName; from: readonly string[]; to: readonly string[] },
): Promise<Answer<'phrases'>> {
  const now = { ...own, [name]: to }
  await putPhrases(ctx.tx, now)
  const fact = settingFacts.phrasesKept({ list: name, phrases: { from, to } })
  await record(ctx, { subject: 'settings', id: ctx.id(), fact })
  return { items: phraseLists(now) }
}
