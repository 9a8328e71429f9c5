// What each phase of a work order comes to, as its page shows it.
import { phaseAccounts } from '../../core/costing/phaseAccounts'
import { toMoney } from '../../core/money/formatMinor'
import type { Answer } from '../../shared/api'
import { signedIn } from '../http/context'
import { accountFrom } from './account'
import { materialMinor, type WorkRead } from './workOrderParts'

/** What each phase comes to; nothing where the work has none. */
export function phasesPart({
  ctx,
  parties,
  lines,
  around,
}: WorkRead): Answer<'workOrder'>['phases'] {
  const { currency } = parties.work
  const { seesCost } = signedIn(ctx)
  const { phases, visits, clock, billed } = around
  if (!phases.length) return []
  const ofVisit = new Map(visits.map(({ id, phaseId }) => [id, phaseId]))
  const account = accountFrom(lines, billed)
  const accounts = phaseAccounts(
    phases.map(({ id }) => id),
    {
      lines: lines.map((line, i) => ({
        ...account.lines[i]!,
        done: line.done,
        materialMinor: materialMinor(line, currency),
        phaseId: line.phaseId ?? ofVisit.get(line.visitId ?? '') ?? null,
      })),
      clock: clock.map((time) => ({ ...time, phaseId: ofVisit.get(time.visitId ?? '') ?? null })),
    },
    { now: ctx.now, currency },
  )
  const money = (minor: number) => toMoney(minor, currency)
  return accounts.map(({ phaseId, account: own, costMinor, ...counted }) => ({
    id: phaseId,
    name: phases.find(({ id }) => id === phaseId)?.name ?? '',
    promised: money(own.promisedMinor),
    done: money(own.doneMinor),
    billed: money(own.billedMinor),
    paid: money(own.paidMinor),
    toBill: money(own.toBillMinor),
    cost: seesCost ? money(costMinor) : null,
    ...counted,
  }))
}
