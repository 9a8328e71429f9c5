// One customer who owes: their papers, never those of the one before while the answer is on its way.
import type { Ref } from 'vue'
import type { Answer } from '~~/shared/api'
import { call } from '~/lib/api'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'

export type Unpaid = Answer<'unpaid'>
export type Owing = Answer<'owing'>
export const askOwing = (customerId: string, on: string) =>
  call('owing', { params: { id: customerId }, query: { on } })

export function useOwing(customerId: Ref<string>, on: Ref<string>) {
  const {
    data: owing,
    problem,
    refresh,
  } = useAnswer(
    'owing',
    () => (customerId.value ? { params: { id: customerId.value }, query: { on: on.value } } : null),
    SHOWS.money,
  )
  return { owing, problem, refresh }
}
