// What holds after every act, on whatever screen: nothing complains, the focus is somewhere, nothing runs off to the side, what was typed is still
// somewhere, and what a dialog names is what its request names.
import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import type { Typed } from './monkey'
import type { Desk, Write } from './desk'

const SETTLED_MS = 80
const PATIENCE_MS = 4_000
/** Until everything that was asked for is answered, and drawn. */
export async function settle({ page, pending }: Desk): Promise<void> {
  const until = Date.now() + PATIENCE_MS
  do await page.waitForTimeout(SETTLED_MS).catch(() => {})
  while (pending.size && Date.now() < until)
}
interface Seen {
  wide: number
  focus: string
  over: string
}
/** The window as a person meets it. */
const look = (page: Page): Promise<Seen | null> =>
  page
    .evaluate(() => {
      const visible = (e: Element) =>
        (e as HTMLElement).offsetParent !== null || e === document.body
      const dialogs = [...document.querySelectorAll('.el-overlay')].filter(
        (o) => getComputedStyle(o).display !== 'none' && o.querySelector('.el-dialog'),
      )
      const top = dialogs.at(-1)
      const at = document.activeElement
      const within = !top || top.contains(at) || Boolean(at?.closest('.el-popper'))
      return {
        wide: document.documentElement.scrollWidth - window.innerWidth,
        focus: at && !visible(at) ? `on what is not shown: ${at.outerHTML.slice(0, 80)}` : '',
        over: within ? '' : `outside of “${top?.querySelector('.el-dialog__title')?.textContent}”`,
      }
    })
    .catch(() => null)

/** Everything of a text that a window, its browser or the server has. */
async function isKept(typed: Typed): Promise<boolean> {
  const { page, writes } = typed.window
  if (writes.some((w) => w.body.includes(typed.text) && w.status < 300)) return true
  return page
    .evaluate((text) => {
      const fields = [...document.querySelectorAll('input, textarea')] as HTMLInputElement[]
      return (
        fields.some((field) => field.value.includes(text)) ||
        [localStorage, sessionStorage].some((store) =>
          Object.values(store).some((value) => String(value).includes(text)),
        )
      )
    }, typed.text)
    .catch(() => true)
}
/** Names of customers by their identifiers, as answers told them. */
export class Names {
  private readonly known = new Map<string, string>()
  read(value: unknown): void {
    if (Array.isArray(value)) return value.forEach((one) => this.read(one))
    if (typeof value !== 'object' || value === null) return
    const row = value as Record<string, unknown>
    const id = row.customerId ?? (row.id as unknown)
    const name = row.customerId ? (row.customer ?? row.name) : row.name
    if (typeof id === 'string' && typeof name === 'string' && name.length > 4)
      this.known.set(id, name)
    Object.values(row).forEach((one) => this.read(one))
  }
  /** Whom a request is about, where the dialog that it came from names somebody else. */
  wrongAbout({ path, title }: Write): string {
    const id = /\/customers\/([0-9a-f-]{36})/.exec(path)?.[1]
    const name = id && this.known.get(id)
    if (!name || !title || title.includes(name)) return ''
    const named = [...this.known.values()].find((other) => title.includes(other))
    return named && named !== name ? `“${title}” asked for ${name}` : ''
  }
}
/** What of it is wrong, in words. */
const saidOf = (seen: Seen | null): string[] =>
  seen
    ? [
        ...(seen.wide > 1 ? [`runs ${seen.wide} px off to the side`] : []),
        ...[seen.focus, seen.over].filter(Boolean).map((where) => `the focus is ${where}`),
      ]
    : []
/** Every fault of a window since it was looked at last. */
export async function faultsOf(
  window: Desk,
  typed: Typed[],
  names: Names,
  from: number,
): Promise<string[]> {
  const faults = [...window.complaints.splice(0), ...saidOf(await look(window.page))]
  for (const write of window.writes.slice(from)) {
    const wrong = names.wrongAbout(write)
    if (wrong) faults.push(wrong)
  }
  for (const one of typed)
    if (one.window === window && !one.left && !(await isKept(one))) {
      one.left = true
      faults.push(`${one.text}, typed into “${one.label}” on ${one.path}, is nowhere`)
    }
  return faults.map((fault) => `${window.who} at ${new URL(window.page.url()).pathname}: ${fault}`)
}
/** The library's long lists: their own field walks them by arrows, whoever has no pointer. */
const WALKED = /el-select-dropdown__list/
export async function axe({ page, who }: Desk): Promise<string[]> {
  const { violations } = await new AxeBuilder({ page })
    // A sheet that is still on its way it would fetch and put into a page of its own, which our policy forbids it.
    .options({ preload: false })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])
    .analyze()
    .catch(() => ({ violations: [] }))
  const real = violations.filter(
    ({ id, nodes }) =>
      id !== 'scrollable-region-focusable' || nodes.some(({ html }) => !WALKED.test(html)),
  )
  return real.map(
    ({ id, nodes }) =>
      `${who} at ${new URL(page.url()).pathname}: axe ${id} ${nodes[0]?.html.slice(0, 120)}`,
  )
}
