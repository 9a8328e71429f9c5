// Codes of what a firm names itself.
import { expect, it } from 'vitest'
import { codeFrom } from '../../core/text/codeFrom'

it.each([
  ['Leak search', [], 'leak_search'],
  ['Leak  search!', ['leak_search'], 'leak_search_2'],
  ['Störung', [], 'storung'],
  ['漏水', [], 'kind'],
  ['漏水', ['kind', 'kind_2'], 'kind_3'],
  ['x'.repeat(60), [], 'x'.repeat(32)],
])('%s beside %j has the code %s', (name, taken, code) =>
  expect(codeFrom(name, taken, 'kind')).toBe(code),
)
it('begins with a word of ours where nothing else is said', () => {
  expect(codeFrom('水', [])).toBe('own')
})
