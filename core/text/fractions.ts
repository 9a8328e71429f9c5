/**
 * Fractions as one word each, so that "½ in" is not found by a 1 and a 2: the sign and the way it is typed come out alike.
 * @example wholeFractions('1½ in') // '1 1f2 in'
 * @example wholeFractions('1 1/2 in') // '1 1f2 in'
 * @example wholeFractions('switch 20/40') // 'switch 20/40': two pressures, no fraction
 */
export function wholeFractions(text: string): string {
  return text
    .replace(/[¼-¾⅐-⅞]/g, (sign) => ` ${sign.normalize('NFKD').replace('⁄', '/')}`)
    .replace(/\b(\d{1,2})\/(2|3|4|5|6|7|8|10|16|32|64)\b/g, (as, n: string, of: string) =>
      Number(n) < Number(of) ? `${n}f${of}` : as,
    )
}
