import type { Place } from '../dispatch/greatCircle'
import { guessMeanings } from '../formats/columns'
import { readCsv, type Table } from '../formats/readCsv'

/** What a row of a table of postcodes says. */
export const POSTCODE_FIELDS = ['postcode', 'town', 'lat', 'lon'] as const
export type PostcodeField = (typeof POSTCODE_FIELDS)[number]
export type PostcodePlace = Place & { postcode: string; town: string }

const HEADINGS: Readonly<Record<PostcodeField, readonly string[]>> = {
  postcode: ['postcode', 'postal code', 'postcodes', 'zip', 'zip code', 'zipcode', 'code'],
  town: ['town', 'place name', 'place', 'city', 'name', 'locality'],
  lat: ['latitude', 'lat', 'y'],
  lon: ['longitude', 'lon', 'lng', 'long', 'x'],
}
/** Proposes what each column means. @example guessPostcodes(['ZIP', 'lat', 'lng']) // ['postcode', 'lat', 'lon'] */
export const guessPostcodes = (head: readonly string[]): (PostcodeField | null)[] =>
  guessMeanings(head, HEADINGS)

/** The columns of the free tables of postcodes that come without a heading: country, code and place first, the place on the earth last. */
const UNNAMED = [
  ...['country', 'postal code', 'place name', 'part 1', 'part 1 code', 'part 2', 'part 2 code'],
  ...['part 3', 'part 3 code', 'latitude', 'longitude', 'accuracy'],
]
const isUnnamed = (cells: readonly string[]) =>
  cells.length === UNNAMED.length && /^[A-Z]{2}$/.test(cells[0]!) && isNumber(cells[9]!)
const isNumber = (cell: string) => /^[+-]?\d+(\.\d+)?$/.test(cell)
/**
 * A file of postcodes as a table. One without a heading, with twelve columns divided by tabs, is given one; that layout is
 * common among open tables of postcodes (from memory).
 * @throws InvalidValue as `readCsv` does
 * @example readPostcodes('US\t14850\tIthaca\tNew York\tNY\tTompkins\t109\t\t\t42.4356\t-76.5\t4').head[1] // 'postal code'
 */
export function readPostcodes(text: string): Table {
  const { head, rows } = readCsv(text)
  return isUnnamed(head) ? { head: UNNAMED, rows: [head, ...rows] } : { head, rows }
}

/** One way of writing for a postcode. @example tidyPostcode(' sw1a  1aa ') // 'SW1A 1AA' */
export const tidyPostcode = (postcode: string): string =>
  postcode.trim().replace(/\s+/g, ' ').toUpperCase()
/**
 * Under which codes a table may know a postcode: as a whole, or by the part before its first blank or hyphen, the
 * more exact one first.
 * @example postcodeKeys('14850-1234') // ['14850-1234', '14850']
 */
export function postcodeKeys(postcode: string): string[] {
  const whole = tidyPostcode(postcode)
  return [...new Set([whole, whole.split(/[ -]/)[0]!])].filter(Boolean)
}

interface Sum extends PostcodePlace {
  rows: number
}
const degrees = (cell: string, most: number): number | null =>
  isNumber(cell) && Math.abs(Number(cell)) <= most ? Number(cell) : null
/**
 * Where the postcodes of a table are: each once, in the middle of its rows, where it has several (towns of one postcode
 * stand in rows of their own). A row that names no place is counted, not guessed.
 * @example postcodePlaces([['1', '10', '20'], ['1', '12', '20']], ['postcode', 'lat', 'lon']).places
 *   // [{ postcode: '1', town: '', lat: 11, lon: 20 }]
 */
export function postcodePlaces(
  rows: readonly (readonly string[])[],
  columns: readonly (PostcodeField | null)[],
): { places: PostcodePlace[]; wrong: number[] } {
  const sums = new Map<string, Sum>()
  const wrong: number[] = []
  for (const [i, row] of rows.entries()) {
    const cell = (field: PostcodeField) => row[columns.indexOf(field)] ?? ''
    const postcode = tidyPostcode(cell('postcode'))
    const [lat, lon] = [degrees(cell('lat'), 90), degrees(cell('lon'), 180)]
    if (!postcode || lat === null || lon === null) {
      wrong.push(i)
      continue
    }
    const sum = sums.get(postcode) ?? { postcode, town: cell('town'), lat: 0, lon: 0, rows: 0 }
    sums.set(postcode, { ...sum, lat: sum.lat + lat, lon: sum.lon + lon, rows: sum.rows + 1 })
  }
  const places = [...sums.values()].map(({ rows: n, lat, lon, ...of }) => ({
    ...{ ...of, lat: lat / n, lon: lon / n },
  }))
  return { places, wrong }
}
