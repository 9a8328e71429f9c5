import { LedgerError } from '../errors/LedgerError'

/** A range that names more is a slip of the pen. */
const MOST = 2000
/**
 * Postcodes from a list as people write it: single ones, and ranges of whole numbers of the same length, divided by commas, spaces or
 * lines. Sorted, each once. Other postcodes ("SW1A") stand as they are.
 * @throws LedgerError `bad_postcodes` with a sentence: a range that runs backwards, or names too many
 * @example postcodeRange('04101–04103, 04110') // ['04101', '04102', '04103', '04110']
 */
export function postcodeRange(text: string): string[] {
  const out = new Set<string>()
  for (const word of text
    .replace(/\s*[–—-]\s*/g, '-')
    .split(/[\s,;]+/)
    .filter(Boolean)) {
    const range = /^(\d+)-(\d+)$/.exec(word)
    if (!range) {
      out.add(word.toUpperCase())
      continue
    }
    const [from, to] = [range[1]!, range[2]!]
    if (from.length !== to.length || Number(to) < Number(from))
      throw new LedgerError('bad_postcodes', `The range ${word} runs backwards.`, {
        errors: [{ path: 'postcodes', message: `The range ${word} runs backwards.` }],
      })
    if (Number(to) - Number(from) >= MOST)
      throw new LedgerError(
        'bad_postcodes',
        `The range ${word} names more than ${MOST} postcodes. Name a beginning instead, for example ${from.slice(0, 2)}.`,
        {
          errors: [
            { path: 'postcodes', message: `The range ${word} names more than ${MOST} postcodes.` },
          ],
        },
      )
    for (let n = Number(from); n <= Number(to); n++) out.add(String(n).padStart(from.length, '0'))
  }
  return [...out].sort()
}
