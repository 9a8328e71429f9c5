/**
 * Rows as CSV with CRLF, quoted where needed. A cell that a spreadsheet would run as a formula gets a leading apostrophe.
 * @example writeCsv([['a', 'b"c']]) // 'a,"b""c"\r\n'
 * Source: RFC 4180 §2.
 */
export function writeCsv(rows: readonly (readonly (string | number | null)[])[]): string {
  return rows.map((row) => row.map(cell).join(',') + '\r\n').join('')
}
function cell(value: string | number | null): string {
  if (value === null) return ''
  const text =
    typeof value === 'string' &&
    /^[=+\-@＝＋－＠\t\r]/.test(value) &&
    !/^-?\d+(\.\d+)?$/.test(value)
      ? `'${value}`
      : String(value)
  return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text
}
