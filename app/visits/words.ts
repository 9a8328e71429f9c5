// How work orders and visits are spoken of. A state or an act that is missing here does not compile.
import type { Answer } from '~~/shared/api'
import type { ClockAct, VisitState } from '~~/core/visits/visitLifecycle'
import type { WorkOrderState } from '~~/core/visits/workOrderState'

/** What the button of an act says, by where the visit stands. */
export function clockWords(act: ClockAct, state: VisitState): string {
  const arrive = state === 'no_access' ? 'They let us in after all' : 'I have arrived'
  const words: Readonly<Record<ClockAct, string>> = {
    set_off: 'Set off',
    arrive: state === 'planned' ? 'Already there' : arrive,
    resume: state === 'finished' ? 'Not finished: go on' : 'Go on',
    finish: 'Finish',
    pause: 'Pause',
    no_access: 'No access',
  }
  return words[act]
}

/** Where a visit stands, as a technician's day says it; one that is only planned needs no word. */
export const CLOCK_SAYS: Readonly<Record<VisitState, string>> = {
  planned: '',
  driving: 'driving',
  on_site: 'on site',
  paused: 'paused',
  finished: '✓ finished',
  no_access: 'no access',
  cancelled: 'cancelled',
}

export const WORK_ORDER_TONES: Readonly<Record<WorkOrderState, '' | 'good' | 'late'>> = {
  needs_slot: '',
  scheduled: '',
  on_site: 'good',
  paused: '',
  to_bill: 'late',
  billed: '',
  closed: 'good',
  cancelled: '',
}

type Price = Answer<'workOrder'>['price']
/** What the margin is over, as whoever sees costs reads it. */
export const marginSaid = (
  { material, labour }: Price,
  say: (money: NonNullable<Price['material']>) => string,
): string =>
  material && labour ? `Margin over material ${say(material)} and hours worked ${say(labour)}` : ''
