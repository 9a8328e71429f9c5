// The price to read out, worked out as booking would: agreed prices, further tasks, the time of day, what an assembly becomes.
import { computed, ref, watch, type Ref } from 'vue'
import { decimalToMinor, minorToDecimal } from '~~/core/money/formatMinor'
import type { Answer } from '~~/shared/api'
import { call } from '~/lib/api'
import type { Draft } from '~/stores/call'
import { useSession } from '~/stores/session'

export type ReadLine = Answer<'searchPriceBook'>['items'][number] & { quantity: string }
export function useReadOut(
  lines: Ref<ReadLine[]>,
  about: () => { customerId: string | null } & Pick<Draft, 'date' | 'start'>,
) {
  const session = useSession()
  const readOut = ref<Answer<'tryLines'> | null>(null)
  const question = () => ({
    customerId: about().customerId,
    date: about().date ?? '',
    start: about().start ?? '',
    lines: lines.value.map((l) => ({ entryId: l.id, quantity: l.quantity })),
  })
  let turn = 0
  watch(
    () => JSON.stringify(question()),
    async () => {
      const mine = ++turn
      const body = question()
      const got = body.lines.length ? await call('tryLines', { body }).catch(() => null) : null
      if (mine === turn) readOut.value = got
    },
    { immediate: true },
  )
  /** What one of the chosen entries comes to; an assembly is several lines of the answer. */
  function costOf(i: number) {
    const own = readOut.value?.lines.filter((l) => l.of === i) ?? []
    const [only, ...others] = own
    if (!only) return { from: '', net: '…' }
    const { currency } = session.me!.company
    const net = own.reduce((n, l) => n + decimalToMinor(l.net.amount, currency), 0)
    return {
      net: session.money({ amount: minorToDecimal(net, currency), currency }, false),
      from: others.length ? `becomes ${own.length} lines` : only.priceFrom,
    }
  }
  /** What an agreement takes off them, theirs or one that they could have. */
  const saving = computed(() =>
    readOut.value && Number(readOut.value.saving.amount)
      ? [
          {
            name: readOut.value.own ? 'With their agreement' : 'With a care agreement',
            from: '',
            net: `−${session.money(readOut.value.saving, false)}`,
            saving: true,
          },
        ]
      : [],
  )
  const rows = computed(() => [
    ...lines.value.map((l, i) => ({ name: l.name, ...costOf(i), saving: false })),
    ...saving.value,
  ])
  const total = computed(() => (readOut.value ? session.money(readOut.value.net) : ''))
  return { rows, total }
}
