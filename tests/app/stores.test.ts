// What is kept in the browser while it is typed: prices with their undo, an entry of the book as a form, terms, weeks, files with rows.
import { beforeEach, describe, expect, it } from 'vitest'
import { routeOf } from '~~/shared/api'
import { readTerms, termsOptions, typedTerms } from '~/customers/terms'
import { hoursOf, weekForm } from '~/dispatch/setUp/weekForm'
import { hoursInWords } from '~/dispatch/setUp/hoursInWords'
import { given } from '~/lib/given'
import { tableOf, textOf } from '~/lib/readTable'
import {
  blankEntry,
  bodyOf,
  formOf,
  holdsParts,
  mayFollowRule,
  pricedOf,
} from '~/pricebook/entry/entryForm'
import { usePriceEdits } from '~/stores/priceEdits'
import { ENTRY_KINDS } from '~~/core/pricebook/kinds'
import { sampleOf } from './sample'

beforeEach(() => sessionStorage.clear())

describe('prices that are typed into the book', () => {
  const row = (id: string, price = '10.00') => ({ id, cost: '4.00', price })
  const typed = (id: string, text: string, column: 'price' | 'cost' = 'price') => ({
    row: row(id),
    column,
    text,
  })
  it('are what is sent, each with what it is', () => {
    const edits = usePriceEdits()
    edits.write([typed('a', '12.5'), typed('b', '3', 'cost')])
    expect(edits.each()).toEqual([
      { id: 'a', cost: undefined, price: '12.5', byRule: undefined },
      { id: 'b', cost: '3', price: undefined, byRule: undefined },
    ])
  })
  it('that say what stands there already are none', () => {
    const edits = usePriceEdits()
    edits.write([typed('a', '10')])
    expect(edits.ids).toEqual([])
  })
  it('that are emptied are taken back', () => {
    const edits = usePriceEdits()
    edits.write([typed('a', '12')])
    edits.write([typed('a', '')])
    expect(edits.ids).toEqual([])
  })
  it('that are no figures stay as they were typed, and are named', () => {
    const edits = usePriceEdits()
    edits.write([typed('a', 'dear'), typed('b', '5')])
    expect(edits.wrong).toEqual([{ id: 'a', column: 'price', text: 'dear' }])
  })
  it('are undone and done again, several cells as one step', () => {
    const edits = usePriceEdits()
    edits.write([typed('a', '12'), typed('b', '13')])
    edits.write([typed('a', '14')])
    edits.undo()
    expect(edits.edits.a!.price).toBe('12')
    edits.undo()
    expect(edits.ids).toEqual([])
    edits.undo()
    edits.redo()
    edits.redo()
    edits.redo()
    expect([edits.edits.a!.price, edits.edits.b!.price]).toEqual(['14', '13'])
  })
  it('typed after an undo leave nothing to be done again', () => {
    const edits = usePriceEdits()
    edits.write([typed('a', '12')])
    edits.undo()
    edits.write([typed('b', '13')])
    edits.redo()
    expect(edits.ids).toEqual(['b'])
  })
  it('stay through a reload, for the person who typed them', () => {
    const edits = usePriceEdits()
    edits.open('olive')
    edits.write([typed('a', '12')])
    edits.open('piet')
    expect(edits.ids).toEqual([])
    edits.open('olive')
    expect(edits.ids).toEqual(['a'])
  })
  it('are none where what was kept cannot be read', () => {
    sessionStorage.setItem('prices olive', '{broken')
    const edits = usePriceEdits()
    edits.open('olive')
    expect(edits.ids).toEqual([])
  })
  it('follow the rule where that is wanted, of those that were typed', () => {
    const edits = usePriceEdits()
    edits.write([typed('a', '5', 'cost'), typed('a', '12')])
    edits.follow(['a', 'never typed'])
    expect(edits.each()).toEqual([{ id: 'a', cost: '5', price: undefined, byRule: true }])
  })
})

describe('an entry of the book as a form', () => {
  const entry = (over: object = {}) => ({
    ...(sampleOf(routeOf('priceEntry').answer!) as Parameters<typeof formOf>[0]),
    kind: 'task' as const,
    seconds: 5400,
    furtherSeconds: 3600,
    pricing: 'rule' as const,
    ...over,
  })
  it('says hours as hours, and sends seconds', () => {
    const form = formOf(entry())
    expect([form.hours, form.furtherHours]).toEqual(['1.5', '1'])
    expect(bodyOf(form, 3)).toMatchObject({ seconds: 5400, furtherSeconds: 3600, version: 3 })
  })
  it('without further hours takes the first ones', () =>
    expect(pricedOf({ ...formOf(entry()), furtherHours: '' }).furtherSeconds).toBe(5400))
  it('with hours that are none sends none', () =>
    expect(pricedOf({ ...formOf(entry()), hours: 'long', furtherHours: '' }).seconds).toBe(0))
  it('sends its skills one by one, without blanks', () =>
    expect(bodyOf({ ...formOf(entry()), skills: ' pumps, ,wells ' }, 1).skills).toEqual([
      'pumps',
      'wells',
    ]))
  it('that was opened and not touched is what it was', () => {
    const was = entry({ skills: ['pumps'], activeFrom: null })
    const sent = bodyOf(formOf(was), was.version)
    expect(sent).toMatchObject({
      code: was.code,
      name: was.name,
      category: was.category,
      skills: ['pumps'],
      activeFrom: null,
      price: was.price,
    })
  })
  it.each(ENTRY_KINDS)('“%s” has the pricing that its kind can have', (kind) => {
    const { pricing, parts } = pricedOf({
      ...blankEntry(),
      kind,
      pricing: 'rule',
      parts: [{ partId: 'p', quantity: '1' } as never],
    })
    const expected = kind === 'assembly' || mayFollowRule(kind) ? 'rule' : 'fixed'
    expect([pricing, parts!.length]).toEqual([expected, holdsParts(kind) ? 1 : 0])
  })
  it('that is new shares its parts with no other', () => {
    blankEntry().parts.push({} as never)
    expect(blankEntry().parts).toEqual([])
  })
})

describe('terms of payment', () => {
  it.each([
    [null, ''],
    [{ kind: 'receipt' }, 'receipt'],
    [{ kind: 'days', days: 30 }, 'days:30'],
    [{ kind: 'days', days: 0 }, 'days:0'],
    [{ kind: 'month_end', days: 15 }, 'month_end:15'],
    [{ kind: 'next_month_day', day: 10 }, 'next_month_day:10'],
  ] as const)('%j are chosen as “%s”, and read back', (terms, text) => {
    expect(typedTerms(terms as never)).toBe(text)
    expect(readTerms(text)).toEqual(terms)
  })
  it('that are none of the usual ones stand there in their own words', () => {
    expect(termsOptions('days:77', '77 days').at(-1)).toEqual({
      value: 'days:77',
      label: '77 days',
    })
    expect(
      termsOptions('days:30', '30 days').filter(({ value }) => value === 'days:30'),
    ).toHaveLength(1)
  })
})

describe('a week of hours', () => {
  const day = (weekday: number, from: string, to: string) => ({
    weekday,
    from,
    to,
    morning: 2,
    afternoon: 3,
    breakFrom: '12:00',
    breakTo: '12:30',
  })
  it('is read back as it was, whatever days are free', () => {
    const hours = [day(1, '07:30', '16:30'), day(4, '08:00', '12:00')]
    expect(hoursOf(weekForm(hours))).toEqual(hours)
  })
  it('of somebody without hours is proposed: five days, two of them free', () => {
    expect(hoursOf(weekForm([])).map(({ weekday }) => weekday)).toEqual([1, 2, 3, 4, 5])
    expect(weekForm([])).toHaveLength(7)
  })
  it('is said shortly where days are alike', () => {
    const week = [1, 2, 3, 4, 5].map((weekday) => day(weekday, '08:00', '17:00'))
    const words = hoursInWords(week)
    expect(words).toHaveLength(1)
    expect(words[0]).toContain('08:00')
    expect(hoursInWords([...week.slice(0, 4), day(5, '08:00', '12:00')])).toHaveLength(2)
    expect(hoursInWords([])).toEqual([])
  })
})

describe('a file with rows', () => {
  it('is read in the western code page where it is not in the newer one', async () => {
    const bytes = new Uint8Array([0x4d, 0xfc, 0x6c, 0x6c, 0x65, 0x72])
    expect(await textOf(new File([bytes], 'old.csv'), 100)).toBe('Müller')
    expect(await textOf(new File(['Müller'], 'new.csv'), 100)).toBe('Müller')
  })
  it('that is too large is refused before it is read, with both sizes', async () => {
    const file = new File(['x'.repeat(2_000_000)], 'large.csv')
    await expect(textOf(file, 1_000_000)).rejects.toThrow('2 MB are too many; 1 MB are taken here.')
  })
  it.each([
    ['Code,Name', 'There is a heading and no row beneath it.'],
    [['a', ...Array(4).fill('1')].join('\n'), 'There are 4 rows; 3 are taken at a time.'],
    [
      `${Array(61).fill('c').join(',')}\n${Array(61).fill('1').join(',')}`,
      'There are more than 60 columns.',
    ],
  ])('is refused with a sentence: %#', (text, sentence) =>
    expect(() => tableOf(text, 3)).toThrow(sentence),
  )
})

it('an empty field that is needed is left out, so that its schema speaks of it', () => {
  expect(given('')).toBeUndefined()
  expect(given(null)).toBeUndefined()
  expect(given('x')).toBe('x')
})
