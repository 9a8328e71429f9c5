// Set-up is found in plain words; each place that is offered is there.
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { placesFor, SET_UP_PLACES } from '../../app/settings/places'

const titles = (words: string) => placesFor(words).map(({ title }) => title)
describe('places of the set-up', () => {
  it.each([
    ['vat', 'Taxes'],
    ['invoice number', 'Numbers'],
    ['two factor', 'A second step when signing in'],
    ['Holiday', 'Working hours, breaks, time off'],
    ['who works', 'Who works here'],
  ])('are found by “%s”', (words, title) => expect(titles(words)).toContain(title))
  it('are none where a word fits none, or where nothing is asked', () => {
    expect([titles('invoice zebra'), titles(' ')]).toEqual([[], []])
  })
  it.each(SET_UP_PLACES.filter(({ to }) => to.includes('#')))('are there: $to', ({ to }) => {
    const [, anchor] = to.split('#')
    const sources = ['app/settings', 'app/access', 'app/pages'].flatMap((folder) =>
      readdirSync(folder)
        .filter((name) => name.endsWith('.vue'))
        .map((name) => readFileSync(join(folder, name), 'utf8')),
    )
    expect(sources.filter((source) => source.includes(`id="${anchor}"`))).toHaveLength(1)
  })
})
