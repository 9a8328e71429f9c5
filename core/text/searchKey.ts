/**
 * Text as it is searched: without accents and signs, lower case, single spaces.
 * @example searchKey('Żółw & Sons, 12-A') // 'zolw sons 12 a'
 */
export function searchKey(text: string): string {
  return text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replace(/ł/g, 'l')
    .replace(/Ł/g, 'L')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()
}
/** Only the digits. @example digits('(607) 555-0142') // '6075550142' */
export const digits = (text: string): string => text.replace(/\D+/g, '')
