// Prices that are typed into the book and not kept yet: with their undo, through a reload, for the person who typed them.
import { defineStore } from 'pinia'
import { readAmount } from '~~/core/money/readAmount'

export type Column = 'cost' | 'price'
/** What is typed for an entry, and what stood there when it was typed. */
export interface Edit {
  cost?: string
  price?: string
  byRule?: true
  was: { cost: string | null; price: string }
}
type Edits = Record<string, Edit>
interface Row {
  id: string
  cost: string | null
  price: string
}
const MOST_STEPS = 100

export const usePriceEdits = defineStore('priceEdits', {
  state: () => ({ key: '', edits: {} as Edits, past: [] as Edits[], future: [] as Edits[] }),
  getters: {
    ids: (s) => Object.keys(s.edits),
    wrong: (s) =>
      Object.entries(s.edits).flatMap(([id, e]) =>
        (['cost', 'price'] as const)
          .filter((c) => e[c] !== undefined && readAmount(e[c]!) === null)
          .map((column) => ({ id, column, text: e[column]! })),
      ),
  },
  actions: {
    open(personId: string) {
      this.key = `prices ${personId}`
      try {
        this.edits = JSON.parse(sessionStorage.getItem(this.key) ?? '{}') as Edits
      } catch {
        this.edits = {}
      }
    },
    step(next: Edits) {
      this.past = [...this.past.slice(1 - MOST_STEPS), this.edits]
      this.future = []
      this.keep(next)
    },
    keep(next: Edits) {
      this.edits = next
      sessionStorage.setItem(this.key, JSON.stringify(next))
    },
    /** Several cells in one step; an empty text takes back what was typed. */
    write(cells: readonly { row: Row; column: Column; text: string }[]) {
      const next = { ...this.edits }
      for (const { row, column, text } of cells) {
        const edit: Edit = { ...(next[row.id] ?? { was: { cost: row.cost, price: row.price } }) }
        const read = readAmount(text)
        const same = read !== null && Number(read) === Number(row[column])
        if (text === '' || same) Reflect.deleteProperty(edit, column)
        else edit[column] = read ?? text
        // A price that is typed is meant, whatever was said of the rule before.
        if (column === 'price' && edit.price !== undefined) Reflect.deleteProperty(edit, 'byRule')
        if (edit.cost === undefined && edit.price === undefined)
          Reflect.deleteProperty(next, row.id)
        else next[row.id] = edit
      }
      this.step(next)
    },
    follow(ids: readonly string[]) {
      this.step({
        ...this.edits,
        ...Object.fromEntries(
          ids.flatMap((id) =>
            this.edits[id]
              ? [[id, { ...this.edits[id], price: undefined, byRule: true as const }]]
              : [],
          ),
        ),
      })
    },
    undo() {
      const last = this.past.at(-1)
      if (!last) return
      this.future = [this.edits, ...this.future]
      this.past = this.past.slice(0, -1)
      this.keep(last)
    },
    redo() {
      const [next, ...rest] = this.future
      if (!next) return
      this.past = [...this.past, this.edits]
      this.future = rest
      this.keep(next)
    },
    clear() {
      this.past = []
      this.future = []
      this.keep({})
    },
    /** as the server takes it */
    each() {
      return Object.entries(this.edits).map(([id, e]) => ({
        id,
        cost: e.cost === undefined ? undefined : readAmount(e.cost)!,
        price: e.price === undefined ? undefined : readAmount(e.price)!,
        byRule: e.byRule,
      }))
    },
  },
})
