// Rows of a list that come page by page: shown as far as somebody asked for them, and all of them live.
import { ref, shallowRef, type Ref } from 'vue'
import { keepEqual } from './keepEqual'

export interface Page<T> {
  items: T[]
  next: string | null
  total: number
}
/** Asks for the page after another one, or for the first. */
export type LoadPage<T> = (after?: string) => Promise<Page<T>>

export function usePages<T>(load: LoadPage<T>) {
  const items = shallowRef<T[]>([]) as Ref<T[]>
  const next = ref<string | null>(null)
  const total = ref<number | null>(null)
  const problem = ref('')
  /** how many rows somebody asked to see, at least */
  let wanted = 0
  let turn = 0
  let reading = 0
  /** Asks from `after` on until as many rows are there as are wanted. */
  async function gather(rows: T[], after: string | undefined): Promise<void> {
    const mine = ++turn
    reading++
    try {
      let page: Page<T>
      do {
        page = await load(after)
        // Something else was asked for meanwhile.
        if (mine !== turn) return
        rows.push(...page.items)
        // A page that leads to itself leads nowhere.
        after = page.next === after ? undefined : (page.next ?? undefined)
      } while (after && rows.length < wanted)
      items.value = keepEqual(items.value, rows)
      next.value = after ?? null
      total.value = page.total
      problem.value = ''
    } catch (error) {
      if (mine === turn) problem.value = (error as Error).message
    } finally {
      reading--
    }
  }
  /** From its top, as far as it is shown. */
  const refresh = () => gather([], undefined)
  /** Asks for something else: its first page. */
  function begin() {
    wanted = 0
    return refresh()
  }
  /** One page more; where the shown ones are asked for anew just now, with them. */
  function more() {
    wanted = items.value.length + 1
    return reading ? refresh() : gather([...items.value], next.value ?? undefined)
  }
  /** As many rows as were shown before. */
  function upTo(rows: number) {
    wanted = rows
    return refresh()
  }
  return { items, next, total, problem, refresh, begin, more, upTo }
}
