// What every part of the schedule's set-up does alike: it sends one change, and gets the whole set-up back.
import type { Answer } from '~~/shared/api'
import { useAct } from '~/lib/useAct'

export type SetUp = Answer<'scheduleSetUp'>
export type Person = SetUp['technicians'][number]
export const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const

/** One part's acts: busy and refused for itself, so that no part shows the problem of another. */
export function useKeep(kept: (setUp: SetUp) => void) {
  const { busy, problem, act } = useAct()
  const keep = (ask: () => Promise<SetUp>, then: () => void = () => {}) =>
    act(async () => {
      kept(await ask())
      then()
    })
  /** The sentence for the first of some fields that is wrong. */
  const wrong = (...paths: string[]) =>
    paths.map((path) => problem.value?.at(path)).find(Boolean) ?? ''
  return { busy, problem, act, keep, wrong }
}
/** People to choose from, with nobody chosen yet. */
export const peopleOf = (setUp: SetUp) => [
  { value: '', label: 'choose' },
  ...setUp.technicians.map((p) => ({ value: p.id, label: p.name })),
]
