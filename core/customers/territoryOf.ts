/**
 * The territory that a postcode belongs to: the one with the longest beginning of it, so that 041 may be split by a
 * more exact 04107. None where no territory names it.
 * @example territoryOf('04107', [{ id: 'a', postcodes: ['041'] }, { id: 'b', postcodes: ['04107'] }])?.id // 'b'
 */
export function territoryOf<T extends { postcodes: readonly string[] }>(
  postcode: string,
  territories: readonly T[],
): T | null {
  const key = postcode.replace(/\s/g, '').toUpperCase()
  if (!key) return null
  let best: T | null = null
  let length = 0
  for (const territory of territories) {
    for (const begin of territory.postcodes) {
      const start = begin.replace(/\s/g, '').toUpperCase()
      if (start.length > length && key.startsWith(start)) [best, length] = [territory, start.length]
    }
  }
  return best
}
