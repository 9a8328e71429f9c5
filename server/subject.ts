// What a subject tells the rest of the server about itself: whatever goes through all subjects reads it from here.
import type { Value } from './db/pool'
import type { At, Kind, Place, Standing } from '../core/waiting/whereItStands'
import type { Ctx } from './http/context'
import type { MessageRow } from './messages/queries'

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

/** What a message carries besides its words: read in a transaction, drawn in none. */
export interface Enclosure {
  paper?: { filename: string; draw(): Promise<Buffer> }
  /** an entry for the calendar of whoever reads it */
  event?: { method: 'REQUEST' | 'CANCEL'; content: string }
}
/** What a message of a kind encloses; null where there is nothing to enclose. */
export type Encloses = (ctx: Ctx, message: MessageRow) => Promise<Enclosure | null>

/** What the conditions of places compare with: the firm's date, and the instant by which what was to be over was missed. */
export interface WaitsAt {
  today: string
  missedBefore: string
}
/** A condition, and what stands for its `?`. */
export type Condition = readonly [sql: string, ...values: Value[]]
/** What every thing that can wait says of itself, beside the facts that its place follows from. */
export interface Waiting {
  id: string
  /** what it is called */
  label: string
  whose: string
  sum: number | null
  /** what carries on in its stead is there */
  carried: number
}
/** How a kind of things waits: where each stands by core's rule, and how its places are asked for. */
export interface Waits<Facts extends Waiting = Waiting> {
  kind: Kind
  /** what a count reads from, and what must be joined to it to say more */
  from: string
  joins: string
  id: string
  columns: string
  /** the column that is summed, in minor units */
  sum?: string
  booleans?: readonly string[]
  places: (at: WaitsAt) => Partial<Record<Place, Condition>>
  stands: (thing: Facts, at: At) => Standing
  /** where somebody acts on it */
  to: (thing: Facts, at: At) => string
}
/** Of whatever facts: what is read by its own columns is judged by its own rule. */
export const waits = <Facts extends Waiting>(of: Waits<Facts>) => of as unknown as Waits

/** A paper as it was made: where it stands among the papers, and how it is drawn. */
export interface KeptPaper {
  path: string
  draw(): Promise<Buffer>
}

export interface Subject {
  name: string
  /** tables that hang on a customer, by name */
  moves?: Readonly<Record<string, Moved>>
  erases?: readonly Erasure[]
  waits?: readonly Waits[]
  finds?: readonly Finding[]
  exports?: Readonly<Record<string, Export>>
  /** what its messages enclose, by what they call it */
  encloses?: Partial<Record<MessageRow['attach'], Encloses>>
  /** the private page of what a message is about, for `{link}` in its text; empty where there is none */
  linkFor?: (ctx: Ctx, message: MessageRow) => Promise<string>
  /** the papers that it made, for the archive of everything */
  papers?: (ctx: Ctx) => Promise<KeptPaper[]>
}
