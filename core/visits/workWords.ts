/**
 * The words of a work order that people write: in which column each is kept, how many signs it may have, and what the
 * history calls it. Whatever is named here is read, written, sent, told to screens and named in the history.
 */
export const WORK_WORDS = {
  title: { column: 'title', most: 160, said: 'the title' },
  problem: { column: 'problem', most: 2000, said: 'what is wrong' },
  orderNumber: { column: 'order_number', most: 40, said: 'their order number' },
  printedNote: { column: 'printed_note', most: 400, said: 'the note on papers' },
  officeNote: { column: 'office_note', most: 2000, said: 'the office note' },
} as const satisfies Record<string, { column: string; most: number; said: string }>
export type WorkWord = keyof typeof WORK_WORDS
export type WorkWords = Record<WorkWord, string>
export const WORK_WORD_NAMES = Object.keys(WORK_WORDS) as readonly WorkWord[]

/**
 * Something for each of them.
 * @example eachWorkWord((word) => WORK_WORDS[word].most).orderNumber // 40
 */
export const eachWorkWord = <T>(of: (word: WorkWord) => T): Record<WorkWord, T> =>
  Object.fromEntries(WORK_WORD_NAMES.map((word) => [word, of(word)])) as Record<WorkWord, T>
