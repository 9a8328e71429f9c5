// What every part of the schedule's set-up does alike: it sends one change, and gets the whole set-up back.
import type { Answer } from '~~/shared/api'
import { useForm } from '~/base/useForm'
import { useAct } from '~/lib/useAct'

export type SetUp = Answer<'scheduleSetUp'>
export type Person = SetUp['technicians'][number]
export const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const

/** One part's acts: busy and refused for itself, so that no part shows the problem of another. */
export function useKeep(kept: (setUp: SetUp) => void) {
  const { busy, problem, act } = useAct()
  return {
    busy,
    problem,
    act,
    keep: (ask: () => Promise<SetUp>) => act(async () => kept(await ask())),
  }
}
/** One part's form; after it was kept it begins as it says. */
export function useSetUpForm<Values extends object>(
  begins: Values,
  kept: (setUp: SetUp) => void,
  after: (values: Values) => Partial<Values> = () => begins,
) {
  const form = useForm(begins)
  const keep = (ask: () => Promise<SetUp>) => form.send(async () => kept(await ask()), after)
  return { form, keep }
}
/** People to choose from, with nobody chosen yet. */
export const peopleOf = (setUp: SetUp) => [
  { value: '', label: 'choose' },
  ...setUp.technicians.map((p) => ({ value: p.id, label: p.name })),
]
