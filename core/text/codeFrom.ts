const MOST_SIGNS = 32
/**
 * A code for something that is new, from its name: small letters and figures, and none that is taken.
 * @param instead what it begins with where the name has neither
 * @example codeFrom('Leak search', []) // 'leak_search'
 * @example codeFrom('Leak search', ['leak_search']) // 'leak_search_2'
 */
export function codeFrom(name: string, taken: readonly string[], instead = 'own'): string {
  const plain = name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '_')
    .replace(/^_+|_+$/g, '')
    .slice(0, MOST_SIGNS)
  const begin = plain || instead
  const also = (n: number) => (n === 1 ? begin : `${begin}_${n}`)
  let n = 1
  while (taken.includes(also(n))) n++
  return also(n)
}
