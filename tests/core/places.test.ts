// Where places are: written coordinates, and tables of postcodes.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  guessPostcodes,
  postcodeKeys,
  postcodePlaces,
  readPostcodes,
} from '../../core/customers/postcodePlaces'
import { readPoint, sayPoint } from '../../core/dispatch/readPoint'

describe('a place that is written', () => {
  it.each([
    ['42.0987, -76.8049', 42.0987, -76.8049],
    ['42.0987 -76.8049', 42.0987, -76.8049],
    ['  -33.8688;151.2093 ', -33.8688, 151.2093],
    ['48,2010; 16,3695', 48.201, 16.3695],
    ['48,2010, 16,3695', 48.201, 16.3695],
    // RFC 5870, sections 1 and 6.1: the address of a place, with and without its height.
    ['geo:13.4125,103.8667', 13.4125, 103.8667],
    ['geo:48.2010,16.3695,183', 48.201, 16.3695],
    ['geo:48.198634,16.371648;crs=wgs84;u=40', 48.198634, 16.371648],
    // Half a degree is thirty minutes, and 1800 seconds.
    [`42°30'N 76°30'W`, 42.5, -76.5],
    [`42°0'1800"S, 76° 15′ 0″ E`, -42.5, 76.25],
    ['42.5N 76.5W', 42.5, -76.5],
  ])('%s', (text, lat, lon) => {
    const place = readPoint(text)!
    expect(place.lat).toBeCloseTo(lat, 9)
    expect(place.lon).toBeCloseTo(lon, 9)
  })
  it.each([
    '',
    '14850',
    '41032 5',
    '42,5',
    '90.1, 0.0',
    '0.0, 180.5',
    'geo:91,0',
    'Mill Lane 3',
    '42.1',
  ])('is none: %s', (text) => expect(readPoint(text)).toBeNull())
  it('is said so that it is read again, to a metre', () =>
    fc.assert(
      fc.property(
        fc.double({ min: -90, max: 90, noNaN: true }),
        fc.double({ min: -180, max: 180, noNaN: true }),
        (lat, lon) => {
          const again = readPoint(sayPoint({ lat, lon }))!
          expect(Math.abs(again.lat - lat)).toBeLessThanOrEqual(0.000_005_001)
          expect(Math.abs(again.lon - lon)).toBeLessThanOrEqual(0.000_005_001)
        },
      ),
    ))
})
describe('a table of postcodes', () => {
  const COLUMNS = ['postcode', 'town', 'lat', 'lon'] as const
  it('is read by its heading, whatever its columns are called', () => {
    const table = readPostcodes('ZIP;City;Lat;Lng\n04101;Otterfall;42.1;-75.2')
    expect(guessPostcodes(table.head)).toEqual(['postcode', 'town', 'lat', 'lon'])
  })
  it('without a heading is known by its twelve columns, and loses no row', () => {
    const row = (code: string, town: string) =>
      ['XX', code, town, 'A', 'a', 'B', 'b', '', '', '42.5', '-75.25', '4'].join('\t')
    const table = readPostcodes([row('04101', 'Otterfall'), row('04102', 'Fenn')].join('\n'))
    const { places } = postcodePlaces(table.rows, guessPostcodes(table.head))
    expect(places).toEqual([
      { postcode: '04101', town: 'Otterfall', lat: 42.5, lon: -75.25 },
      { postcode: '04102', town: 'Fenn', lat: 42.5, lon: -75.25 },
    ])
  })
  it('has a postcode of several towns once, in their middle', () => {
    const rows = [
      ['sw1a  1aa', 'One', '10', '-20'],
      ['SW1A 1AA', 'Two', '12', '-22'],
    ]
    expect(postcodePlaces(rows, COLUMNS).places).toEqual([
      { postcode: 'SW1A 1AA', town: 'One', lat: 11, lon: -21 },
    ])
  })
  it('counts the rows that name no place, and guesses nothing', () => {
    const rows = [
      ['', 'No code', '1', '1'],
      ['1', '', 'north', '1'],
      ['2', '', '91', '1'],
      ['3', '', '1', '-181'],
      ['4', '', '0', '0'],
    ]
    const { places, wrong } = postcodePlaces(rows, COLUMNS)
    expect([places.map((p) => p.postcode), wrong]).toEqual([['4'], [0, 1, 2, 3]])
    expect(postcodePlaces([['1', '2']], [null, null])).toEqual({ places: [], wrong: [0] })
  })
  it.each([
    ['14850-1234', ['14850-1234', '14850']],
    ['ex1 2ab', ['EX1 2AB', 'EX1']],
    ['04101', ['04101']],
    [' ', []],
  ])('knows %j under %j', (postcode, keys) => expect(postcodeKeys(postcode)).toEqual(keys))
})
