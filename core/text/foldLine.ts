/**
 * A content line folded at 75 octets, never inside a sign, as cards and calendars want it.
 * @example foldLine('NOTE:short') // 'NOTE:short'
 * Source: RFC 6350 §3.2, RFC 5545 §3.1.
 */
export function foldLine(line: string): string {
  let out = ''
  let octets = 0
  for (const sign of line) {
    const size =
      sign.codePointAt(0)! > 0xffff
        ? 4
        : sign.codePointAt(0)! > 0x7ff
          ? 3
          : sign.codePointAt(0)! > 0x7f
            ? 2
            : 1
    if (octets + size > 75) {
      out += '\r\n '
      octets = 1
    }
    out += sign
    octets += size
  }
  return out
}
