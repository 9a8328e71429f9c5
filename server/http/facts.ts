// What happened, as a code with its data. The sentence in the history is made when it is read, so that it can follow who reads it.
type Say = (data: never) => string
const sentences = new Map<string, Say>()

/** One thing that happened: its code, its data, and how it is said. */
export interface Fact {
  code: string
  data: object
}

/**
 * The facts of a subject, each with the sentence that its data makes. A code is stored for ever: what
 * it is called here is never changed, only how it is said.
 */
export function facts<Words extends Record<string, Say>>(
  subject: string,
  words: Words,
): { [Name in keyof Words]: (data: Parameters<Words[Name]>[0] & object) => Fact } {
  const made = Object.entries(words).map(([name, say]) => {
    const code = `${subject}.${name}`
    sentences.set(code, say)
    return [name, (data: object): Fact => ({ code, data })]
  })
  return Object.fromEntries(made)
}

/** The sentence of an entry of the trail; entries from before facts had codes hold theirs. */
export function sentenceOf(entry: { code: string | null; text: string; data: unknown }): string {
  const say = entry.code ? sentences.get(entry.code) : undefined
  return say && entry.data ? say(entry.data as never) : entry.text
}
