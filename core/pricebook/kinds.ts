/** What an entry of the price book can be. */
export const ENTRY_KINDS = ['task', 'part', 'labour', 'charge', 'assembly'] as const
export type EntryKind = (typeof ENTRY_KINDS)[number]

/** What a line of work or of a quote can be: an assembly has become its lines by then. */
export const LINE_KINDS = ['task', 'part', 'labour', 'charge', 'other'] as const
export type LineKind = (typeof LINE_KINDS)[number]
