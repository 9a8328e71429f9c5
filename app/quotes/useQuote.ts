// One quote: loaded, kept live, and changed one act after the other, each on what the one before left.
import { computed } from 'vue'
import type { QuoteAct } from '~~/core/quotes/quoteLifecycle'
import type { Answer, Body } from '~~/shared/api'
import { call, newId } from '~/lib/api'
import type { Found } from '~/lib/book'
import { useAct } from '~/lib/useAct'
import { useAnswer } from '~/lib/useAnswer'

export type Quote = Answer<'quote'>
export type QuoteLine = Quote['lines'][number]
type Changes = Omit<Body<'changeQuote'>, 'version'>
type WantedLine = NonNullable<Changes['lines']>[number]

/** A line as it would be asked for again. */
const asWanted = (line: QuoteLine): WantedLine => ({
  id: line.id,
  entryId: line.entryId,
  kind: line.kind,
  name: line.name,
  quantity: line.quantity,
  unitPrice: line.unitPrice,
})
const fromBook = (entry: Found): WantedLine => ({
  id: newId(),
  entryId: entry.id,
  kind: 'other',
  quantity: '1',
})

export function useQuote(id: string) {
  const params = { id }
  const subjects = ['quote', 'message', 'customer', 'settings'] as const
  const { data: quote, problem } = useAnswer('quote', () => ({ params }), {
    subjects: [...subjects],
  })
  const { busy, problem: failed, act } = useAct()
  const may = (wanted: QuoteAct) => quote.value?.acts.includes(wanted) ?? false
  const draft = computed(() => may('change'))

  const change = (what: () => Partial<Changes>) =>
    act(async () => {
      const body = { version: quote.value!.version, ...what() }
      quote.value = await call('changeQuote', { params, body })
      return true
    }, 'wait')
  const changeLines = (what: (lines: QuoteLine[]) => WantedLine[]) =>
    change(() => ({ lines: what(quote.value!.lines) }))
  const setLine = (line: QuoteLine, values: Partial<Pick<QuoteLine, 'quantity' | 'unitPrice'>>) =>
    changeLines((lines) =>
      lines.map((l) => (l.id === line.id ? { ...asWanted(l), ...values } : asWanted(l))),
    )
  const takeOut = (line: QuoteLine) =>
    changeLines((lines) => lines.filter((l) => l.id !== line.id).map(asWanted))
  const addWanted = (added: WantedLine[]) =>
    changeLines((lines) => [...lines.map(asWanted), ...added])
  const addOwn = (line: WantedLine) => addWanted([line])
  const addEntries = (entries: Found[]) => addWanted(entries.map(fromBook))
  const addBasket = (items: Body<'addQuoteBasket'>['items']) =>
    act(async () => {
      const body = { version: quote.value!.version, items }
      quote.value = await call('addQuoteBasket', { params, body })
      return true
    }, 'wait')
  const reopen = () =>
    act(async () => {
      const body = { version: quote.value!.version }
      quote.value = await call('reopenQuote', { params, body })
    })

  return {
    quote,
    problem,
    busy,
    failed,
    draft,
    change,
    setLine,
    takeOut,
    addOwn,
    addEntries,
    addBasket,
    reopen,
  }
}
