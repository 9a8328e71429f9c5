// What holds for every page, opened with answers that its schemas made up, with nothing, and with a server that is away: none may break, show
// what is not a value, call a failure "nothing", or lead from its third row to what another row is.
import Papa from 'papaparse'
import { describe, expect, it, vi } from 'vitest'
import type { Answer } from '~~/shared/api'
import { routes } from '~~/shared/api'
import { press } from '../hands'
import { sampleOf } from '../sample'
import { open, PAGES, settle, type Server } from '../screen'

const ID = '0192d4e0-0000-7000-8000-00000000002a'
const NO_VALUE = /\bundefined\b|\bNaN\b|\bnull\b|\[object |Invalid Date/
const NOTHING =
  /There is no (customer|site|quote|work)|Nothing (was|fits|is planned|is late)|yet\.$/
const AWAY = 'The books are being put right. Try again in a minute.'
/** What these show is typed or read from a file first: they ask the server nothing when they open. */
const ASKS_NOTHING = ['/customers/import', '/sign-in', '/help']
/** What only leads somewhere else is not missed. */
const LEADS = ['beginning']
/** Why something is not there: at its place, or at the window's edge. */
const SAID = new RegExp(`${AWAY}|A part of this page could not be had`)

/** Whose rows are pressed to open what they are. */
const LISTS = [
  '/customers',
  '/sites',
  '/quotes',
  '/invoices',
  '/work',
  '/on-site',
  '/to-bill',
  '/price-book/usage',
]

/** Some days have a cell for each technician and day, whatever else is made up. */
function days(): Answer<'scheduleRange'> {
  const range = sampleOf(routes.scheduleRange.answer) as Answer<'scheduleRange'>
  const [cell] = range.cells
  return {
    ...range,
    cells: range.technicians.flatMap(({ id }) =>
      range.days.map(({ date }) => ({ ...cell!, technicianId: id, date })),
    ),
  }
}
const answering = (wanted: Server['wanted'] = {}): Server => ({
  wanted,
  says: wanted['*']?.rows === 0 ? {} : { scheduleRange: days() },
})
export function tryPages(among: (path: string) => boolean): void {
  const pages = PAGES.filter(({ path }) => among(path))
  describe.each(pages)('$path', ({ path }) => {
    const address = path.replace(/:\w+/, ID)
    it.each([1, 2])('shows what the server says (%i)', async (seed) => {
      const { page, complaints } = await open(address, { server: answering({ '*': { seed } }) })
      expect(complaints).toEqual([])
      expect(page.text().length).toBeGreaterThan(10)
      expect(NO_VALUE.exec(page.text())).toBeNull()
      // The window is called by it.
      expect(page.get('h1').text()).not.toBe('')
    })
    it('stands with nothing to show', async () => {
      const { page, complaints } = await open(address, { server: answering({ '*': { rows: 0 } }) })
      expect(complaints).toEqual([])
      expect(page.text().length).toBeGreaterThan(10)
      expect(NO_VALUE.exec(page.text())).toBeNull()
    })
    it('says it when the server is away, and nothing else instead', async () => {
      const { page, complaints } = await open(address, { server: { says: { '*': AWAY } } })
      expect(complaints).toEqual([])
      if (!ASKS_NOTHING.includes(path)) expect(page.text()).toMatch(SAID)
      expect(NOTHING.exec(page.text())).toBeNull()
    })
    it.runIf(LISTS.includes(path))('keeps every column that has a name as a file', async () => {
      const kept: Blob[] = []
      vi.spyOn(URL, 'createObjectURL').mockImplementation((blob) => (kept.push(blob as Blob), ''))
      vi.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(() => {})
      const { page } = await open(address, { server: answering() })
      const [table] = page.findAll('table').filter((one) => one.find('tr.pick').exists())
      const heads = table!.findAll('th').map((head) => head.text())
      await press('Keep as CSV')
      const [first] = Papa.parse<string[]>((await kept[0]!.text()).replace('\ufeff', '')).data
      expect(first).toEqual(heads.filter(Boolean))
    })
    it('says it when one of its questions has no answer', async () => {
      const { sent } = await open(address, { server: answering() })
      const asked = [...new Set(sent.flatMap(({ name, method }) => (method === 'GET' ? name : [])))]
      const silent: (string | null)[] = []
      for (const name of asked) {
        const { page, complaints } = await open(address, {
          server: { says: { ...answering().says, [name!]: AWAY } },
        })
        expect(complaints).toEqual([])
        if (!SAID.test(page.text()) && !LEADS.includes(name!)) silent.push(name)
        page.unmount()
      }
      expect(silent).toEqual([])
    })
    it.each(['books', 'technician'] as const)('stands for %s', async (role) => {
      const { page, complaints } = await open(address, { role, server: answering() })
      expect(complaints).toEqual([])
      expect(NO_VALUE.exec(page.text())).toBeNull()
    })
    it.runIf(LISTS.includes(path))('leads from its third row to what that row is', async () => {
      const { page, went, complaints } = await open(address, { server: answering() })
      const rows = page.findAll('tr.pick').filter((row) => row.find('a[href]').exists())
      const third = rows[2]!
      const meant = third.get('a[href]').attributes('href')
      await third.trigger('click')
      await settle()
      expect(complaints).toEqual([])
      expect(went).toEqual([meant])
      const all = rows.map((row) => row.get('a[href]').attributes('href'))
      expect(all.filter((href) => href === meant)).toHaveLength(1)
    })
  })
}
