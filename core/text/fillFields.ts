// Texts of the firm with fields in braces, which are filled with what a paper or message is about.

const FIELD = /\{(\w+)\}/g

/**
 * A text with its fields filled; a field of which nothing is known stays as it was written.
 * @example fillFields('Dear {name}, {what}', { name: 'Ida' }) // 'Dear Ida, {what}'
 */
export const fillFields = (text: string, facts: Readonly<Record<string, string>>): string =>
  text.replace(FIELD, (whole, name: string) => facts[name] ?? whole)
/**
 * The first field of a text that is not one of those known; null where it has none such.
 * @example strangeField('Dear {nmae}', ['name']) // 'nmae'
 */
export function strangeField(text: string, known: readonly string[]): string | null {
  for (const [, name] of text.matchAll(FIELD)) if (!known.includes(name!)) return name!
  return null
}
/** The fields of a text, in their order. @example fieldsOf('{a} and {b}') // ['a', 'b'] */
export const fieldsOf = (text: string): string[] =>
  [...text.matchAll(FIELD)].map(([, name]) => name!)
