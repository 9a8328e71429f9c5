/** How many octets a sign takes in UTF-8. Source: RFC 3629 §3. */
function octetsOf(point: number): number {
  if (point > 0xffff) return 4
  if (point > 0x7ff) return 3
  return point > 0x7f ? 2 : 1
}
/**
 * A content line folded at 75 octets, never inside a sign, as cards and calendars want it.
 * @example foldLine('NOTE:short') // 'NOTE:short'
 * Source: RFC 6350 §3.2, RFC 5545 §3.1.
 */
export function foldLine(line: string): string {
  let out = ''
  let octets = 0
  for (const sign of line) {
    const size = octetsOf(sign.codePointAt(0)!)
    if (octets + size > 75) {
      out += '\r\n '
      octets = 1
    }
    out += sign
    octets += size
  }
  return out
}
