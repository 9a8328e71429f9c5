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

/** A line's property, without its group and its parameters, and its value. */
const PROPERTY = /^(?:[\w-]+\.)?([\w-]+)(?:;[^:"]*(?:"[^"]*"[^:"]*)*)?:(.*)$/s
/** Names and values, with folded lines put together. */
const propertiesIn = (text: string): [name: string, value: string][] =>
  text
    .replace(/^\uFEFF/, '')
    .replace(/\r\n?/g, '\n')
    .replace(/\n[ \t]/g, '')
    .split('\n')
    .flatMap((line) => {
      const [, name, value] = PROPERTY.exec(line) ?? []
      return name === undefined ? [] : [[name.toUpperCase(), value!]]
    })
const plain = (value: string): string => unescape(value).trim()
function putRole(card: Card, value: string): void {
  card.role ??= plain(value)
}
/** What each property says of its card. */
const PUT: Partial<Record<string, (card: Card, value: string) => void>> = {
  FN: (card, value) => (card.name = plain(value)),
  N: (card, value) => {
    const [last, first] = parts(value)
    card.name ||= [first, last].filter(Boolean).join(' ')
  },
  ORG: (card, value) => (card.organisation = parts(value)[0] ?? ''),
  ROLE: putRole,
  TITLE: putRole,
  TEL: (card, value) => card.phones.push(plain(value.replace(/^tel:/i, ''))),
  EMAIL: (card, value) => card.mails.push(plain(value)),
  NOTE: (card, value) => (card.note = plain(value)),
  UID: (card, value) => (card.uid = value.trim().replace(/^urn:uuid:/i, '')),
  ADR: (card, value) => {
    const [, , line1 = '', town = '', , postcode = ''] = parts(value)
    card.addresses.push({ line1, town, postcode })
  },
}

/**
 * Reads cards of version 2.1 (plain), 3.0 and 4.0: what an address book or a telephone exports. Properties that a firm
 * has no use for (pictures, birthdays) are passed over.
 * @throws InvalidValue when there is no card in it
 */
export function readVcf(text: string): Card[] {
  const cards: Card[] = []
  let card: Card | null = null
  for (const [name, value] of propertiesIn(text)) {
    if (name === 'BEGIN' && value.trim().toUpperCase() === 'VCARD')
      card = { name: '', phones: [], mails: [], addresses: [] }
    else if (card && name === 'END') {
      card.name ||= card.organisation ?? ''
      if (card.name) cards.push(card)
      card = null
    } else if (card) PUT[name]?.(card, value)
  }
  if (cards.length === 0) throw new InvalidValue('There is no contact card in this file.')
  return cards
}
