// What happened, as a code with its data. The sentence in the history is made when it is read, so that it can follow who reads it.
type Say = (data: never, words: Words) => string
/** How days and sums are said where the history is read. */
export interface Words {
  /** of YYYY-MM-DD */
  day: (date: string) => string
  /** of an instant, with its day */
  at: (instant: string) => string
  /** of major units, as they are on the wire */
  money: (amount: string, currency: string) => string
}
const sentences = new Map<string, Say>()

/** One thing that happened: its code, its data, and how it is said. */
export interface Fact {
  code: string
  data: object
}

type Made<S extends Say> = Parameters<S> extends [] ? () => Fact : (data: Parameters<S>[0]) => Fact
/** What something was, and became. */
export interface Change {
  from?: unknown
  to?: unknown
}
/** What was said against it, and done all the same. @example inSpiteOf(['Ines is off then']) // ' in spite of: Ines is off then' */
export const inSpiteOf = (warnings: readonly string[]): string =>
  warnings.length ? ` in spite of: ${warnings.join('; ')}` : ''

/**
 * The facts of a subject, each with the sentence that its data makes. A code is stored for ever: what
 * it is called here is never changed, only how it is said.
 */
export function facts<Words extends Record<string, Say>>(
  subject: string,
  words: Words,
): { [Name in keyof Words]: Made<Words[Name]> } {
  const made = Object.entries(words).map(([name, say]) => {
    const code = `${subject}.${name}`
    sentences.set(code, say)
    return [name, (data: object = {}): Fact => ({ code, data })]
  })
  return Object.fromEntries(made) as { [Name in keyof Words]: Made<Words[Name]> }
}

/** The sentence of an entry of the trail; entries from before facts had codes hold theirs. */
export function sentenceOf(
  entry: { code: string | null; text: string; data: unknown },
  words: Words,
): string {
  const say = entry.code ? sentences.get(entry.code) : undefined
  return say && entry.data ? say(entry.data as never, words) : entry.text
}
