// Phrases that are proposed where something is written often: the firm's own, or the usual ones.
import { describe, expect, it } from 'vitest'
import {
  PHRASE_LIST_NAMES,
  PHRASE_LISTS,
  phraseLists,
  phrasesOf,
  readPhrases,
  hasWord,
  withPhrase,
  withWord,
} from '../../core/settings/phrases'

describe('phrases', () => {
  it('are the usual ones until the firm says its own; none where it wants none', () => {
    expect(phrasesOf('parked', {})).toBe(PHRASE_LISTS.parked.usual)
    expect(phrasesOf('parked', { parked: ['Waits for a pump'], beyond: [] })).toEqual([
      'Waits for a pump',
    ])
    expect(phrasesOf('beyond', { beyond: [] })).toEqual([])
  })
  it('are listed place by place', () =>
    expect(phraseLists({ beyond: [] }).find(({ name }) => name === 'beyond')).toEqual({
      ...{ name: 'beyond', phrases: [] },
    }))
  it.each(PHRASE_LIST_NAMES)('%s: what is usual is read back as it was written', (name) => {
    const { usual } = PHRASE_LISTS[name]
    expect(readPhrases(usual.join('\n'))).toEqual(usual)
  })
  it('are typed one in a line; an empty line and one said twice are none', () => {
    expect(readPhrases(' Too dear \r\n\n  too   DEAR\nLater\n')).toEqual(['Too dear', 'Later'])
    expect(readPhrases(' \n ')).toEqual([])
  })
  it('are words with commas between where they are tags: each once, out again with a second press', () => {
    expect(withWord('', 'Landlord')).toBe('Landlord')
    expect(withWord(' Key with us ,, Trade', 'Landlord')).toBe('Key with us, Trade, Landlord')
    expect(withWord('landlord, Trade', 'Landlord')).toBe('Trade')
    expect(withWord('Landlord', 'Landlord')).toBe('')
    expect(['Landlord', 'Land', ''].map((word) => hasWord(' landlord,Trade', word))).toEqual([
      ...[true, false, false],
    ])
  })
  it('become a sentence of their own behind what was written', () => {
    expect(withPhrase('', 'Came late')).toBe('Came late')
    expect(withPhrase('  ', 'Came late')).toBe('Came late')
    expect(withPhrase('Pump is loud', 'Replaced')).toBe('Pump is loud. Replaced')
    expect(withPhrase('Pump is loud.\n', 'Replaced')).toBe('Pump is loud. Replaced')
    expect(withPhrase('Is it loud?', 'No')).toBe('Is it loud? No')
    const all = ['Too dear', 'Later']
    expect(withPhrase(' Too dear ', 'Later', all)).toBe('Later')
    expect(withPhrase('Too dear, and slow', 'Later', all)).toBe('Too dear, and slow. Later')
  })
})
