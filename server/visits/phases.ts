// Phases of long work: named, given their visits and lines, and accounted each for itself.
import { conflict, invalid } from '../../core/errors/LedgerError'
import type { Answer, Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { visibleWorkOrder } from './account'
import { workFacts } from './facts'
import {
  bumpWorkOrder,
  insertPhase,
  phasesOf,
  removePhase,
  setPhase,
  updatePhase,
} from './phases.queries'
import { workOrderPaper } from './views'

type Wanted = Omit<Body<'keepPhases'>, 'version'>
/** Each once, and nothing put into one that is not there. */
function readPhases({ phases, visits, lines }: Wanted): void {
  const ids = phases.map(({ id }) => id)
  phases.forEach(({ id, name }, i) => {
    const said = (other: { name: string }) => other.name.toLowerCase() === name.toLowerCase()
    if (ids.indexOf(id) !== i || phases.findIndex(said) !== i)
      throw invalid(`phases[${i}].name`, 'This phase is there already.')
  })
  for (const { phaseId } of [...visits, ...lines])
    if (phaseId && !ids.includes(phaseId))
      throw invalid('phases', 'Something is put into a phase that is not there.')
}
export async function keepPhases(
  ctx: Ctx,
  workOrderId: string,
  { version, ...wanted }: Body<'keepPhases'>,
): Promise<Answer<'workOrder'>> {
  const work = await visibleWorkOrder(ctx, workOrderId, true)
  readPhases(wanted)
  if (!(await bumpWorkOrder(ctx.tx, workOrderId, version)))
    throw conflict('stale', 'Someone changed this work order in the meantime.', {
      current: await workOrderPaper(ctx, workOrderId),
      yours: wanted,
    })
  const was = await phasesOf(ctx.tx, workOrderId)
  const isIn = (phases: readonly { id: string }[], id: string) =>
    phases.some((phase) => phase.id === id)
  for (const [position, phase] of wanted.phases.entries()) {
    const keep = isIn(was, phase.id) ? updatePhase : insertPhase
    await keep(ctx.tx, { ...phase, workOrderId, position })
  }
  for (const { id } of was) if (!isIn(wanted.phases, id)) await removePhase(ctx.tx, id)
  for (const of of wanted.visits) await setPhase(ctx.tx, 'visits', { workOrderId, ...of })
  for (const of of wanted.lines) await setPhase(ctx.tx, 'work_lines', { workOrderId, ...of })
  const names = (phases: readonly { name: string }[]) => phases.map(({ name }) => name)
  await record(ctx, {
    ...{ subject: 'work', id: workOrderId, workOrderId, customerId: work.customerId },
    fact: workFacts.phased({ phases: names(wanted.phases), was: names(was) }),
  })
  return workOrderPaper(ctx, workOrderId)
}
