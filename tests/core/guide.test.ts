// The guide: each screen has its page, which says what it is for and what can be done there, in the words that stand on it.
import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { join, relative } from 'node:path'
import { describe, expect, it } from 'vitest'
import { searchGuide } from '../../core/text/guidePages'
import { guidePages } from '../../modules/help'

const filesIn = (folder: string, ending: RegExp) =>
  readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && ending.test(entry.name))
    .map(({ parentPath, name }) => join(parentPath, name))
const pages = guidePages('.')
const source = filesIn('app', /\.(vue|ts)$/)
  .map((file) => readFileSync(file, 'utf8').replace(/\s+/g, ' '))
  .join('\n')

describe('the guide', () => {
  it.each(filesIn('app/pages', /\.vue$/).map((file) => relative('app/pages', file)))(
    'has a page for the screen %s',
    (file) => {
      expect(
        existsSync(join('docs/guide', file.replace(/\[|\]/g, '').replace(/vue$/, 'md'))) ||
          existsSync(join('docs/guide', file.replace(/\/index\.vue$/, '.md'))),
      ).toBe(true)
    },
  )
  it('has no page of a screen that is not there', () => {
    const screens = new Set(
      filesIn('app/pages', /\.vue$/).map((file) =>
        relative('app/pages', file)
          .replace(/\[|\]|\.vue$/g, '')
          .replace(/\/index$/, '')
          .replaceAll('/', '-'),
      ),
    )
    expect(pages.map(({ name }) => name).filter((name) => !screens.has(name))).toEqual([])
  })
  it.each(pages.map((page) => [page.name, page] as const))(
    'says of %s what it is for, and what can be done there, by the words on it',
    (_, { title, html }) => {
      expect(title).not.toBe('')
      expect(html).toMatch(/^<p>[^<]{20,}/)
      expect(html.match(/<li>/g)?.length ?? 0).toBeGreaterThan(1)
      const said = [...html.matchAll(/<strong>(.+?)<\/strong>/g)].map(([, words]) => words!)
      expect(said.filter((words) => !source.includes(words.replaceAll('&quot;', '"')))).toEqual([])
    },
  )
  it('leads from page to page, nowhere else', () => {
    const names = new Set(pages.map(({ name }) => name))
    const links = pages.flatMap(({ html }) => [...html.matchAll(/href="#?([^"]*)"/g)])
    expect(links.length).toBeGreaterThan(0)
    expect(links.map(([, to]) => to!).filter((to) => !names.has(to))).toEqual([])
  })
  it('is found by words that are only begun, or misspelt a little; the title counts most', () => {
    const find = searchGuide(pages)
    expect(find('archiv').map(({ name }) => name)).toContain('in-and-out')
    expect(find('unpayd')[0]?.name).toBe('unpaid')
    expect(find('bounced cheque').map(({ name }) => name)).toContain('invoices-id')
    expect(find('zebra crossing')).toEqual([])
  })
})
