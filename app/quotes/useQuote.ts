// One quote: loaded, kept live, and changed one act after the other, each on what the one before left.
import { computed } from 'vue'
import type { QuoteAct } from '~~/core/quotes/quoteLifecycle'
import type { Answer, Body } from '~~/shared/api'
import { call, newId, type Problem } from '~/lib/api'
import type { Found } from '~/lib/book'
import { useAct, type WhenBusy } from '~/lib/useAct'
import { useAnswer } from '~/lib/useAnswer'

export type Quote = Answer<'quote'>
export type QuoteLine = Quote['lines'][number]
type Changes = Omit<Body<'changeQuote'>, 'version'>
type WantedLine = NonNullable<Changes['lines']>[number]

export type QuoteWords = Pick<Quote, 'title' | 'scope' | 'orderNumber' | 'expiresOn'>
export type LineFigures = Pick<QuoteLine, 'quantity' | 'unitPrice'>
/** Whether what somebody is about to change still is what they saw. */
const isAsRead = <T extends object>(now: T, read: T, values: Partial<T>): boolean =>
  (Object.keys(values) as (keyof T)[]).every((key) => now[key] === read[key])
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

type Change = (
  what: (now: Quote) => Partial<Changes> | null,
  whenBusy?: WhenBusy,
) => Promise<boolean | undefined>
/** What is changed of its words and lines. */
function changesOf(change: Change) {
  /** Changes words of it, kept when their field is left. */
  const write = (read: Quote, values: Partial<QuoteWords>) =>
    change((now) => (isAsRead(now, read, values) ? values : null), 'aside')
  const changeLines = (what: (lines: QuoteLine[]) => WantedLine[]) =>
    change((now) => ({ lines: what(now.lines) }))
  const setLine = (read: QuoteLine, values: Partial<LineFigures>) =>
    change((now) => {
      const line = now.lines.find(({ id }) => id === read.id)
      if (!line || !isAsRead(line, read, values)) return null
      const set = (l: QuoteLine) => ({ ...asWanted(l), ...(l === line && values) })
      return { lines: now.lines.map(set) }
    }, 'aside')
  const takeOut = (line: QuoteLine) =>
    changeLines((lines) => lines.filter((l) => l.id !== line.id).map(asWanted))
  const addWanted = (added: WantedLine[]) =>
    changeLines((lines) => [...lines.map(asWanted), ...added])
  const addOwn = (line: WantedLine) => addWanted([line])
  const addEntries = (entries: Found[]) => addWanted(entries.map(fromBook))
  return { write, setLine, takeOut, addOwn, addEntries }
}

export function useQuote(id: string) {
  const params = { id }
  const subjects = ['quote', 'message', 'customer', 'settings'] as const
  const {
    data: quote,
    problem,
    refresh,
  } = useAnswer('quote', () => ({ params }), {
    subjects: [...subjects],
  })
  const { busy, problem: failed, act } = useAct()
  const may = (wanted: QuoteAct) => quote.value?.acts.includes(wanted) ?? false
  const draft = computed(() => may('change'))

  /**
   * Each change on the quote as it is then, and once more on it where somebody else was faster. Where they changed the very same, `what` says
   * null: nothing is sent, and the screen shows both.
   */
  const change: Change = (what, whenBusy = 'wait') =>
    act(async () => {
      try {
        return await send(what)
      } catch (error) {
        if ((error as Problem).code !== 'stale') throw error
        await refresh()
        return send(what)
      }
    }, whenBusy)
  async function send(what: (now: Quote) => Partial<Changes> | null): Promise<boolean> {
    const values = what(quote.value!)
    if (!values) return false
    const body = { version: quote.value!.version, ...values }
    quote.value = await call('changeQuote', { params, body })
    return true
  }
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
    ...{ quote, problem, refresh, busy, failed, draft, act, change, addBasket, reopen },
    ...changesOf(change),
  }
}
