// The columns of a table, as data.

/** One column: what stands above it, and how its cells look. What a cell holds is the slot of its key, or its text. */
export interface Column<Row> {
  key: string
  label?: string
  /** figures that are compared: in their own type, to the right */
  figures?: boolean
  right?: boolean
  width?: number | string
  /** classes of every cell: quiet, small, nowrap, clip */
  look?: string
  /** classes that follow from the row, such as late */
  tone?: (row: Row, index: number) => unknown
  /** what a cell says where no slot draws it */
  text?: (row: Row, index: number) => string | number | null | undefined
  /** what a file says in its place: a sum without its sign, what only a slot draws */
  file?: (row: Row) => string | number | null | undefined
  /** what the column is sorted by when its head is pressed */
  sort?: (row: Row) => string | number
}
