// What forms make of what is typed, and back: terms, weeks, own fields, entries of the book.
import { describe, expect, it } from 'vitest'
import { readTerms, termsOptions, typedTerms } from '~/customers/terms'
import { hoursInWords } from '~/dispatch/setUp/hoursInWords'
import { hoursOf, weekForm } from '~/dispatch/setUp/weekForm'
import { halfOf, lengthsFor, type Visit } from '~/dispatch/visit/visit'
import { fullness, shareTaken } from '~/lib/capacity'
import { blankEntry, bodyOf, holdsParts, mayFollowRule } from '~/pricebook/entry/entryForm'
import { titleOf } from '~/pricebook/reprice/priceRules'
import { choicesIn, sayChoices, sayKind } from '~/settings/setUp'
import { textOf, tableOf } from '~/lib/readTable'

describe('terms of payment', () => {
  it.each([
    ['receipt', { kind: 'receipt' }],
    ['days:30', { kind: 'days', days: 30 }],
    ['month_end:0', { kind: 'month_end', days: 0 }],
    ['month_end:15', { kind: 'month_end', days: 15 }],
    ['next_month_day:10', { kind: 'next_month_day', day: 10 }],
  ] as const)('%s are kept as chosen, and stand there again', (typed, terms) => {
    expect(readTerms(typed)).toEqual(terms)
    expect(typedTerms(terms)).toBe(typed)
  })
  it('that are none mean the company’s', () => {
    expect([readTerms(''), typedTerms(null)]).toEqual([null, ''])
  })
  it('that are unusual stand among the others in their own words', () => {
    expect(termsOptions('days:8', '8 days').at(-1)).toEqual({ value: 'days:8', label: '8 days' })
    expect(termsOptions('days:30', '30 days')).toHaveLength(23)
  })
})
describe('a week', () => {
  const hours = { from: '08:00', to: '16:00', morning: 2, afternoon: 2, breakFrom: '', breakTo: '' }
  it('is typed day by day, and days off are left out of what is kept', () => {
    const week = [
      { weekday: 1, ...hours },
      { weekday: 3, ...hours, to: '12:00' },
    ]
    const typed = weekForm(week)
    expect(typed.map((day) => day.on)).toEqual([true, false, true, false, false, false, false])
    expect(hoursOf(typed)).toEqual(week)
  })
  it('is said once for days with the same hours', () => {
    const days = [1, 2, 3, 4, 5].map((weekday) => ({ weekday, ...hours }))
    expect(hoursInWords(days)).toEqual(['Mon–Fri 08:00–16:00, 2 + 2'])
    const some = [
      { weekday: 1, ...hours },
      { weekday: 3, ...hours, breakFrom: '12:00', breakTo: '12:30' },
      { weekday: 5, ...hours },
    ]
    expect(hoursInWords(some)).toEqual([
      'Mon, Fri 08:00–16:00, 2 + 2',
      'Wed 08:00–16:00, 2 + 2, break 12:00–12:30',
    ])
  })
})
describe('how long a visit may be', () => {
  const visit = (durationSeconds: number) => ({ durationSeconds }) as Visit
  it('is chosen by quarters of an hour, with what it has among them in its place', () => {
    const lengths = lengthsFor(visit(2000))
    expect(lengths.slice(0, 4)).toEqual([900, 1800, 2000, 2700])
    expect(lengthsFor(visit(3600))).toHaveLength(40)
  })
  it.each([
    [3600, 1800],
    [5400, 2700],
    [1000, 900],
  ])('is split in half, by whole quarters: %i s after %i s', (seconds, half) => {
    expect(halfOf(visit(seconds))).toBe(half)
  })
})
describe('how full a day is', () => {
  it.each([
    [2, 4, '50%', ''],
    [4, 4, '100%', 'full'],
    [5, 4, '100%', 'over'],
    [1, 0, '100%', 'over'],
    [0, 0, '0%', ''],
  ] as const)('%i of %i', (taken, capacity, share, said) => {
    expect([shareTaken(taken, capacity), fullness(taken, capacity)]).toEqual([share, said])
  })
})
describe('an entry as it is typed', () => {
  it('sends what its kind has: a part neither hours nor what is inside', () => {
    const form = { ...blankEntry(), code: 'P-1', hours: '1.5', skills: ' lab , ' }
    expect(bodyOf(form, 3)).toMatchObject({
      version: 3,
      seconds: 5400,
      furtherSeconds: 5400,
      labourId: null,
      parts: [],
      skills: ['lab'],
      activeFrom: null,
      pricing: 'rule',
    })
  })
  it('of a rate or a charge has the price that is written; an assembly has none of its own', () => {
    expect(bodyOf({ ...blankEntry(), kind: 'charge' }, 0).pricing).toBe('fixed')
    expect(bodyOf({ ...blankEntry(), kind: 'assembly', pricing: 'fixed' }, 0).pricing).toBe('rule')
    expect([holdsParts('task'), holdsParts('part')]).toEqual([true, false])
    expect([mayFollowRule('part'), mayFollowRule('labour')]).toEqual([true, false])
  })
})
describe('a change of prices', () => {
  const wish = { category: '', supplier: '', percent: '4', price: '' }
  it('is called by what it does where nobody names it', () => {
    const percent = { ...wish, kind: 'part', rule: 'price_percent', category: 'Pumps' } as const
    expect(titleOf(percent)).toBe('parts, Pumps: move the price by per cent 4')
    expect(titleOf({ ...wish, kind: undefined, rule: 'by_rule', percent: '' })).toBe(
      'all: price by the rules again',
    )
  })
})
describe('own fields and questions', () => {
  it('take choices with commas between, and say what they are', () => {
    expect(choicesIn(' own well, spring ,, ')).toEqual(['own well', 'spring'])
    expect([sayKind('yes_no'), sayKind('work_order'), sayKind('text')]).toEqual([
      'yes or no',
      'work order',
      'text',
    ])
    expect(sayChoices('choice', ['a', 'b'])).toBe('choice: a, b')
    expect(sayChoices('number', [])).toBe('number')
  })
})
describe('a file with rows', () => {
  const file = (bytes: Uint8Array<ArrayBuffer> | string) => new File([bytes], 'list.csv')
  it('is read in the code page that it was written in', async () => {
    expect(await textOf(file('Ventil für Öl'), 1000)).toBe('Ventil für Öl')
    const western = new Uint8Array([0x46, 0xfc, 0x72])
    expect(await textOf(file(western), 1000)).toBe('Für')
  })
  it('that is too large, has no row, or too many, is refused with a sentence', async () => {
    await expect(textOf(file('x'.repeat(11)), 10)).rejects.toThrow(/too many/)
    expect(() => tableOf('name;price', 10)).toThrow(/no row beneath/)
    expect(() => tableOf('name\na\nb\nc', 2)).toThrow(/3 rows; 2 are taken/)
  })
})
