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

/** Page after page, from `after` on, to the end. One that leads to itself leads nowhere. */
async function* pagesFrom<T>(load: LoadPage<T>, after?: string): AsyncGenerator<Page<T>> {
  for (;;) {
    const page = await load(after)
    const isLast = page.next === null || page.next === after
    yield isLast ? { ...page, next: null } : page
    if (isLast) return
    after = page.next!
  }
}

/** All rows to the end, page after page; null where `goesOn`, told how many there are so far, gives it up. */
async function allAfter<T>(
  load: LoadPage<T>,
  { rows, next }: { rows: T[]; next: string | null },
  goesOn: (count: number) => boolean,
): Promise<T[] | null> {
  if (next === null) return rows
  for await (const page of pagesFrom(load, next)) {
    rows.push(...page.items)
    if (!goesOn(rows.length)) return null
  }
  return rows
}

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
      for await (const page of pagesFrom(load, after)) {
        // Something else was asked for meanwhile.
        if (mine !== turn) return
        rows.push(...page.items)
        next.value = page.next
        total.value = page.total
        if (rows.length >= wanted) break
      }
      items.value = keepEqual(items.value, rows)
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
  /** All that there are, beside what is shown; null where a page did not come, or it is given up. */
  const everything = (goesOn: (count: number) => boolean) =>
    allAfter(load, { rows: [...items.value], next: next.value }, goesOn).catch((error: Error) => {
      problem.value = error.message
      return null
    })
  /** Shows all of them. */
  function show(rows: readonly T[]) {
    turn++
    wanted = rows.length
    items.value = [...rows]
    next.value = null
  }
  return { items, next, total, problem, refresh, begin, more, upTo, everything, show }
}
