import type { Place } from './greatCircle'

const DEGREES =
  /(\d+(?:\.\d+)?)\s*°?\s*(?:(\d+(?:\.\d+)?)\s*['′])?\s*(?:(\d+(?:\.\d+)?)\s*(?:"|″|''))?/
/** A number of degrees with the letter of its half of the earth behind it. */
const LETTERED = new RegExp(`^${DEGREES.source}\\s*([NS])[\\s,;]*${DEGREES.source}\\s*([EW])$`, 'i')
/** Whole degrees are no place that somebody means, and too like a postcode. */
const SIGNED = /^([+-]?\d{1,3}\.\d+)(?:\s*[,;]\s*|\s+)([+-]?\d{1,3}\.\d+)$/
/** As spreadsheets of half the world write it: a comma within each number, and something else between them. */
const COMMAS = /^([+-]?\d{1,3}),(\d+)(?:\s*;\s*|,?\s+)([+-]?\d{1,3}),(\d+)$/
const GEO = /^geo:([+-]?\d+(?:\.\d+)?),([+-]?\d+(?:\.\d+)?)(?:[,;?].*)?$/i

const inDegrees = (degrees: string, minutes = '0', seconds = '0') =>
  Number(degrees) + Number(minutes) / 60 + Number(seconds) / 3600
const onEarth = (lat: number, lon: number): Place | null =>
  Math.abs(lat) <= 90 && Math.abs(lon) <= 180 ? { lat, lon } : null

/**
 * A place as somebody writes or copies it, latitude first, WGS 84: decimal degrees, degrees with minutes and seconds and
 * the letters of their halves, or a `geo:` address. Null where it is none, or not on the earth.
 * @example readPoint('42.0987, -76.8049') // { lat: 42.0987, lon: -76.8049 }
 * @example readPoint('geo:48.2010,16.3695,183') // { lat: 48.201, lon: 16.3695 }
 * Source of the last: RFC 5870, section 6.1.
 */
export function readPoint(text: string): Place | null {
  const plain = text.trim()
  const lettered = LETTERED.exec(plain)
  if (lettered) {
    const [, d, m, s, half, d2, m2, s2, half2] = lettered
    const south = half!.toUpperCase() === 'S' ? -1 : 1
    const west = half2!.toUpperCase() === 'W' ? -1 : 1
    return onEarth(south * inDegrees(d!, m, s), west * inDegrees(d2!, m2, s2))
  }
  const commas = COMMAS.exec(plain)
  if (commas)
    return onEarth(Number(`${commas[1]}.${commas[2]}`), Number(`${commas[3]}.${commas[4]}`))
  const pair = GEO.exec(plain) ?? SIGNED.exec(plain)
  return pair && onEarth(Number(pair[1]), Number(pair[2]))
}
/**
 * A place as it is read again, to a metre.
 * @example sayPoint({ lat: 42.0987, lon: -76.80491 }) // '42.09870, -76.80491'
 */
export const sayPoint = ({ lat, lon }: Place): string => `${lat.toFixed(5)}, ${lon.toFixed(5)}`
