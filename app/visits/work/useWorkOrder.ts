// A work order on its page: its account, and every act that changes it.
import { computed } from 'vue'
import type { Answer } from '~~/shared/api'
import type { OwnLine } from '~/components/pricebook/OwnLine.vue'
import type { BasketLine } from '~/components/pricebook/SupplierSheet.vue'
import { call, newId } from '~/lib/api'
import type { Found } from '~/lib/book'
import { useAct } from '~/lib/useAct'
import { useAnswer } from '~/lib/useAnswer'
import type { LineChange } from './WorkAccount.vue'

export type Work = Answer<'workOrder'>
/** Nothing of it is left. */
export const isZero = (money: { amount: string }) => Number(money.amount) === 0

export function useWorkOrder(id: string) {
  const params = { id }
  const {
    data: work,
    problem,
    refresh,
  } = useAnswer('workOrder', () => ({ params }), { about: () => [id] })
  const { busy, problem: failed, act } = useAct()
  /** Acts answer with the work order as it is then. */
  const take = (now: Work) => {
    work.value = now
  }
  const change = (line: Pick<Work['lines'][number], 'id' | 'version'>, values: LineChange) =>
    act(async () => {
      const body = { version: line.version, ...values }
      take(await call('changeLine', { params: { id: line.id }, body }))
    })
  const mails = computed(() => {
    const { email, email2 } = work.value?.customer ?? {}
    return [email, email2].filter((mail): mail is string => Boolean(mail))
  })
  const charge = () =>
    act(async () => take(await call('chargeTime', { params, body: { lineId: newId() } })))
  const beginQuote = () =>
    act(async () => {
      const made = await call('beginQuote', { body: { id: newId(), workOrderId: id } })
      await navigateTo(`/quotes/${made.id}`)
    })
  return {
    work,
    problem,
    refresh,
    busy,
    failed,
    take,
    change,
    mails,
    charge,
    beginQuote,
    ...addingTo(id, act, take),
  }
}
/** Lines from the book, from a supplier, or written; one after the other where several are added. */
function addingTo(id: string, act: ReturnType<typeof useAct>['act'], take: (now: Work) => void) {
  const params = { id }
  const fromBook = (entry: Found) => ({
    id: newId(),
    entryId: entry.id,
    quantity: '1',
    kind: 'other' as const,
    done: true,
    name: undefined,
    unitPrice: undefined,
  })
  const addEntries = (entries: Found[]) =>
    act(async () => {
      const body = { lines: entries.map(fromBook) }
      take(await call('addLines', { params, body }))
      return true
    }, 'wait')
  const addOwn = (line: OwnLine) =>
    act(async () => {
      take(await call('addLines', { params, body: { lines: [{ ...line, done: true }] } }))
      return true
    }, 'wait')
  const addBasket = (items: BasketLine[]) =>
    act(async () => {
      take(await call('addBasket', { params, body: { items } }))
      return true
    })
  return { addEntries, addOwn, addBasket }
}
