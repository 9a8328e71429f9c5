// What a subject tells the rest of the server about itself: whatever goes through all subjects reads it from here.
import type { Value } from './db/pool'

/** Takes a person's words out of a table: SQL that names the customer as often as it has `?`. */
export type Erasure = string

/** What the one search finds of a subject: SQL of kind, id, title and detail, and where a find leads. */
export interface Finding {
  kind: string
  sql: string
  values(asked: { words: string; number: string }): Value[]
  to(id: string): string
}

/** A table that can be taken along as CSV. */
export interface Export {
  /** the headings, in the order of the columns; `custom` holds the firm's own fields */
  columns: readonly string[]
  sql: string
  /** columns that hold money */
  money: ReadonlySet<string>
  /** whose own fields stand in `custom` */
  fieldsOf: string | null
}

/** What a merge moves to the customer who stays: a table with `customer_id`, called as one and as several. */
export interface Moved {
  one: string
  several: string
}

export interface Subject {
  name: string
  /** tables that hang on a customer, by name */
  moves?: Readonly<Record<string, Moved>>
  erases?: readonly Erasure[]
  finds?: readonly Finding[]
  exports?: Readonly<Record<string, Export>>
}
