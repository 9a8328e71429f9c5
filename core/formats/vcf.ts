import { foldLine } from '../text/foldLine'
import { InvalidValue } from '../errors/InvalidValue'

/** A person or firm as an address book keeps it. */
export interface Card {
  uid?: string
  name: string
  organisation?: string
  role?: string
  phones: string[]
  mails: string[]
  addresses: { line1: string; town: string; postcode: string }[]
  note?: string
}

const escape = (text: string): string =>
  text
    .replace(/\\/g, '\\\\')
    .replace(/\r\n?|\n/g, '\\n')
    .replace(/,/g, '\\,')
/** A part of a value that semicolons divide. */
const part = (text: string): string => escape(text).replace(/;/g, '\\;')
const unescape = (text: string): string =>
  text.replace(/\\(n|N|,|;|\\)/g, (_, sign: string) => (sign.toLowerCase() === 'n' ? '\n' : sign))
/**
 * Writes cards as RFC 6350 (vCard 4.0).
 * @example writeVcf([{ name: 'Ada Birchall', phones: ['(607) 555-0119'], mails: [], addresses: [] }])
 */
export function writeVcf(cards: readonly Card[]): string {
  return cards
    .map((c) => {
      const words = c.name.split(' ')
      const lines = [
        'BEGIN:VCARD',
        'VERSION:4.0',
        ...(c.uid ? [`UID:urn:uuid:${c.uid}`] : []),
        `FN:${escape(c.name)}`,
        `N:${part(words.length > 1 ? words.at(-1)! : c.name)};${part(words.slice(0, -1).join(' '))};;;`,
        ...(c.organisation ? [`ORG:${part(c.organisation)}`] : []),
        ...(c.role ? [`ROLE:${escape(c.role)}`] : []),
        ...c.phones.map((p) => `TEL;VALUE=text:${escape(p)}`),
        ...c.mails.map((m) => `EMAIL:${escape(m)}`),
        ...c.addresses.map((a) => `ADR:;;${part(a.line1)};${part(a.town)};;${part(a.postcode)};`),
        ...(c.note ? [`NOTE:${escape(c.note)}`] : []),
        'END:VCARD',
      ]
      return `${lines.map(foldLine).join('\r\n')}\r\n`
    })
    .join('')
}

/** A value's parts at semicolons that are not escaped. */
const parts = (value: string): string[] => value.split(/(?<!\\);/).map((p) => unescape(p).trim())

/**
 * Reads cards of version 2.1 (plain), 3.0 and 4.0: what an address book or a telephone exports. Properties that a firm
 * has no use for (pictures, birthdays) are passed over.
 * @throws InvalidValue when there is no card in it
 */
export function readVcf(text: string): Card[] {
  const lines = text
    .replace(/^\uFEFF/, '')
    .replace(/\r\n?/g, '\n')
    .replace(/\n[ \t]/g, '')
    .split('\n')
  const cards: Card[] = []
  let card: Card | null = null
  for (const line of lines) {
    const [, property, value = ''] =
      /^(?:[\w-]+\.)?([\w-]+)(?:;[^:"]*(?:"[^"]*"[^:"]*)*)?:(.*)$/s.exec(line) ?? []
    const name = property?.toUpperCase()
    if (name === 'BEGIN' && value.trim().toUpperCase() === 'VCARD')
      card = { name: '', phones: [], mails: [], addresses: [] }
    else if (!card || !name) continue
    else if (name === 'END') {
      card.name ||= card.organisation ?? ''
      if (card.name) cards.push(card)
      card = null
    } else if (name === 'FN') card.name = unescape(value).trim()
    else if (name === 'N' && !card.name) {
      const [last, first] = parts(value)
      card.name = [first, last].filter(Boolean).join(' ')
    } else if (name === 'ORG') card.organisation = parts(value)[0] ?? ''
    else if (name === 'ROLE' || name === 'TITLE') card.role ??= unescape(value).trim()
    else if (name === 'TEL') card.phones.push(unescape(value).replace(/^tel:/i, '').trim())
    else if (name === 'EMAIL') card.mails.push(unescape(value).trim())
    else if (name === 'NOTE') card.note = unescape(value).trim()
    else if (name === 'UID') card.uid = value.trim().replace(/^urn:uuid:/i, '')
    else if (name === 'ADR') {
      const [, , line1 = '', town = '', , postcode = ''] = parts(value)
      card.addresses.push({ line1, town, postcode })
    }
  }
  if (cards.length === 0) throw new InvalidValue('There is no contact card in this file.')
  return cards
}
