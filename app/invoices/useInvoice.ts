// One invoice: loaded, kept live, with the mail addresses of who pays it.
import { computed } from 'vue'
import type { InvoiceAct } from '~~/core/invoices/invoiceLifecycle'
import type { Answer } from '~~/shared/api'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useAnswer } from '~/lib/useAnswer'

export type Invoice = Answer<'invoice'>

export function useInvoice(id: string) {
  const params = { id }
  const {
    data: invoice,
    problem,
    refresh,
  } = useAnswer('invoice', () => ({ params }), {
    subjects: ['invoice', 'payment', 'message', 'settings'],
  })
  const { data: customer } = useAnswer('customer', () =>
    invoice.value ? { params: { id: invoice.value.customerId } } : null,
  )
  const { busy, problem: failed, act } = useAct()
  const mails = computed(() =>
    [customer.value?.email, customer.value?.email2].filter((m): m is string => Boolean(m)),
  )
  const tags = computed(() => customer.value?.tags ?? [])
  const may = (wanted: InvoiceAct) => invoice.value?.acts.includes(wanted) ?? false
  const changeLink = (renew: boolean) =>
    act(async () => {
      invoice.value = await call(renew ? 'renewLink' : 'withdrawLink', { params })
    })
  return { invoice, problem, refresh, busy, failed, mails, tags, may, changeLink, act }
}
