// What people type into a field: days and times of day.
import { describe, expect, it } from 'vitest'
import { fc, test } from '@fast-check/vitest'
import dayjs from 'dayjs'
import { dayPattern } from '../../core/time/dayPattern'
import { monthFirst, readDate } from '../../core/time/readDate'
import { readTime } from '../../core/time/readTime'
import { plusDays, weekday } from '../../core/time/zone'

const TODAY = '2026-11-24' // a Tuesday, by the calendar of ISO 8601
const US = (typed: string) => readDate(typed, TODAY, 'en-US')
const GB = (typed: string) => readDate(typed, TODAY, 'en-GB')
const DE = (typed: string) => readDate(typed, TODAY, 'de-DE')

describe('the pattern of a day', () => {
  // Orders and signs as CLDR has them (from memory), months in English only as words.
  it.each([
    ['en-US', 'MMM D, YYYY'],
    ['en-GB', 'D MMM YYYY'],
    ['en-CA', 'MMM D, YYYY'],
    ['de-DE', 'DD.MM.YYYY'],
    ['fr-FR', 'DD/MM/YYYY'],
    ['sv-SE', 'YYYY-MM-DD'],
    ['ar-EG', 'DD/MM/YYYY'],
  ])('of %s is %s', (locale, pattern) => expect(dayPattern(locale)).toBe(pattern))
})
describe('a day that is typed', () => {
  // The order of a locale's figures is CLDR's: en-US writes the month first, en-GB and de-DE the day.
  it.each([
    ['en-US', true],
    ['en-GB', false],
    ['de-DE', false],
    ['ja-JP', true],
  ])('%s writes the month first: %s', (locale, first) => expect(monthFirst(locale)).toBe(first))

  it.each([
    ['2026-12-04', '2026-12-04'],
    ['today', TODAY],
    ['Tomorrow', '2026-11-25'],
    ['yesterday', '2026-11-23'],
    ['tue', TODAY],
    ['wed', '2026-11-25'],
    ['monday', '2026-11-30'],
    ['+3', '2026-11-27'],
    ['-1', '2026-11-23'],
    ['27', '2026-11-27'],
    ['27 nov', '2026-11-27'],
    ['Fri 27 Nov 2026', '2026-11-27'],
    ['nov 27, 26', '2026-11-27'],
    ['4th December', '2026-12-04'],
    ['  4 dec 2027 ', '2027-12-04'],
  ])('“%s” is %s everywhere', (typed, day) =>
    expect([US(typed), GB(typed), DE(typed)]).toEqual([day, day, day]),
  )
  it.each([
    ['12/4', '2026-12-04', '2026-04-12'],
    ['12/4/27', '2027-12-04', '2027-04-12'],
    ['4.12.', '2026-04-12', '2026-12-04'],
    ['4-12-2026', '2026-04-12', '2026-12-04'],
  ])('“%s” follows the locale', (typed, american, british) =>
    expect([US(typed), GB(typed)]).toEqual([american, british]),
  )
  it.each([
    '',
    'soon',
    '31 feb',
    '2026-02-30',
    '13/13',
    '32',
    'nov',
    '27 nov 2026 3',
    'frost',
    '0',
  ])('“%s” is no day', (typed) => expect([US(typed), GB(typed)]).toEqual([null, null]))
  const days = fc.integer({ min: -4000, max: 4000 }).map((n) => plusDays(TODAY, n))
  test.prop([days])('as it is shown, it is read back', (day) => {
    const [year, month, date] = day.split('-').map(Number) as [number, number, number]
    for (const locale of ['en-US', 'en-GB', 'en-CA', 'de-DE', 'fr-FR', 'sv-SE'])
      expect(readDate(dayjs(day).format(dayPattern(locale)), TODAY, locale), locale).toBe(day)
    expect(GB(`${date}/${month}/${year}`)).toBe(day)
    expect(US(`${month}/${date}/${year}`)).toBe(day)
  })
  test.prop([fc.constantFrom('mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'), days])(
    'a weekday is within a week, never before today',
    (name, today) => {
      const read = readDate(name, today, 'en-US')!
      expect(read >= today && read < plusDays(today, 7)).toBe(true)
      expect(['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'][weekday(read) - 1]).toBe(name)
    },
  )
  test.prop([fc.string({ maxLength: 12 })])('whatever is typed is a day or nothing', (typed) => {
    expect(US(typed) ?? '2026-01-01').toMatch(/^-?\d{4,6}-\d{2}-\d{2}$/)
  })
})

describe('a time that is typed', () => {
  it.each([
    ['8', '08:00'],
    ['08', '08:00'],
    ['830', '08:30'],
    ['0830', '08:30'],
    ['8:30', '08:30'],
    ['8.30', '08:30'],
    ['16h30', '16:30'],
    ['16h', '16:00'],
    ['4pm', '16:00'],
    ['4:15 p.m.', '16:15'],
    ['12am', '00:00'],
    ['12 pm', '12:00'],
    ['23:59', '23:59'],
  ])('“%s” is %s', (typed, time) => expect(readTime(typed)).toBe(time))
  it.each(['', '24:00', '8:60', '13pm', '0am', 'noon', '8:3', '12345'])('“%s” is none', (typed) =>
    expect(readTime(typed)).toBeNull(),
  )
})
