// A monkey with manners: it knows of a screen what the kit tells by role and name, and does with it what people do.
import type { Locator } from '@playwright/test'
import type { Chance } from '../tools'
import type { Desk } from './desk'

/** A word that was typed into a form, and where; nothing else is called so. */
export interface Typed {
  text: string
  window: Desk
  label: string
  path: string
  /** thrown away on purpose */
  left: boolean
  /** its form keeps it through a reload */
  isDraft: boolean
}
export interface Sitting {
  chance: Chance
  steps: string[]
  typed: Typed[]
  /** pages of single things: customers, work orders, papers */
  places: readonly string[]
}
const SOON = { timeout: 1_500, noWaitAfter: true } as const
const PAGES = [
  ...['/calls', '/calls/new', '/schedule', '/schedule/week', '/schedule/list', '/schedule/one'],
  ...['/schedule/map', '/schedule/plan', '/schedule/set-up', '/on-site', '/to-bill', '/unpaid'],
  ...['/customers', '/sites', '/price-book', '/agreements', '/quotes', '/work', '/invoices'],
  ...['/messages', '/set-up', '/price-book/rules', '/customers/duplicates'],
] as const
const KEYS = [
  ...['Escape', 'Escape', 'Enter', 'Tab', 'Control+k', 'n', '?', '/', 'Alt+1', 'Alt+2', 'Alt+4'],
  ...['ArrowDown', 'ArrowRight', 'Control+z', 'Delete', 'l', 'c', ']'],
] as const
/** What ends the sitting, opens another window, or waits for a file. */
const NOT_PRESSED =
  /^(Sign out|Set it to now|Print|CSV|Cards|Keep as CSV|Choose|Erase|Take them out)/

/** What puts something else in its place, or nothing: on purpose. */
const LEAVES = /^(Leave it|Throw it away|Leave|Take theirs|Forget|Same as)/

const anyOf = async (found: Locator, chance: Chance): Promise<Locator | null> => {
  const count = await found.count()
  return count ? found.nth(chance.between(0, count - 1)) : null
}
const nameOf = (element: Locator): Promise<string> =>
  element
    .evaluate((e) => (e.getAttribute('aria-label') ?? e.textContent ?? '').trim().slice(0, 50))
    .catch(() => '')
/** Where hands can be: in what stands over the page, or else in all of it. */
async function reach({ page }: Desk): Promise<Locator> {
  const over = page.locator('.el-overlay:visible .el-dialog, .veil:visible')
  return (await over.count()) ? over.last() : page.locator('body')
}
async function press(window: Desk, { chance, steps, typed }: Sitting): Promise<void> {
  const within = await reach(window)
  const all = 'button:visible:not([disabled]), tr.pick:visible, [role=tab]:visible'
  const opens = within.locator('button:visible:not([disabled])').filter({ hasText: OPENS })
  const button = await anyOf(
    chance.maybe(0.5) && (await opens.count()) ? opens : within.locator(all),
    chance,
  )
  if (!button) return
  const name = await nameOf(button)
  if (NOT_PRESSED.test(name)) return
  const often = chance.maybe(0.1) ? 2 : 1
  steps.push(`${window.who} presses “${name}”${often > 1 ? ' twice' : ''}`)
  if (LEAVES.test(name)) leave(typed, window)
  await button.click({ ...SOON, clickCount: often, delay: 20 }).catch(() => {})
}
function leave(typed: Typed[], window: Desk): void {
  for (const one of typed) if (one.window === window) one.left = true
}
async function follow(window: Desk, { chance, steps }: Sitting): Promise<void> {
  const within = await reach(window)
  const link = await anyOf(
    within.locator('a:visible[href^="/"]:not([target]):not([href^="/api"])'),
    chance,
  )
  if (!link) return
  steps.push(`${window.who} follows “${await nameOf(link)}”`)
  await link.click(SOON).catch(() => {})
}
/** What leads to a form. */
const OPENS = /…|^\s*(\+|Change|Add|New|Send|Keep|Said|Promised)/
const IN_FORM = ':is([data-form=asks], [data-form=keeps])'
const TEXTS = `${IN_FORM} textarea:visible:not([disabled]), ${IN_FORM} input:visible:not([disabled]):not([readonly]):not([inputmode]):not([type=checkbox]):not([type=radio]):not([type=file]):not([role=combobox]):not([type=email]):not([list])`
let words = 0
async function type(window: Desk, sitting: Sitting): Promise<void> {
  const { chance, steps, typed } = sitting
  const within = await reach(window)
  const field = await anyOf(within.locator(TEXTS), chance)
  if (!field) return chance.maybe(0.4) ? walk(window, sitting) : press(window, sitting)
  const isDate = await field
    .evaluate((e) => Boolean(e.closest('.el-date-editor, .date, .time')))
    .catch(() => true)
  if (isDate) return
  const text = `zq${(++words).toString(36)}${chance.between(100, 999)}`
  const { label, isDraft } = await field
    .evaluate((e: HTMLInputElement) => ({
      label: e.labels?.[0]?.textContent?.trim() ?? e.ariaLabel ?? e.placeholder,
      isDraft: e.closest('[data-form]')?.getAttribute('data-form') === 'keeps',
    }))
    .catch(() => ({ label: '', isDraft: false }))
  steps.push(`${window.who} types ${text} into “${label}”`)
  // What stood there is typed over: it is left on purpose.
  const before = await field.inputValue().catch(() => '')
  for (const one of typed) if (before.includes(one.text)) one.left = true
  await field.fill(text, SOON).then(
    () =>
      typed.push({
        text,
        window,
        label,
        path: new URL(window.page.url()).pathname,
        left: false,
        isDraft,
      }),
    () => {},
  )
}
async function figures(window: Desk, { chance, steps }: Sitting): Promise<void> {
  const within = await reach(window)
  const field = await anyOf(within.locator(`${IN_FORM} input[inputmode=decimal]:visible`), chance)
  if (!field) return
  const text = chance.pick(['2', '7.5', '', '-3', 'abc', '1,000', '99999999'])
  steps.push(`${window.who} types ${text || 'nothing'} into a figure`)
  await field.fill(text, SOON).catch(() => {})
}
async function key(window: Desk, { chance, steps, typed }: Sitting): Promise<void> {
  const one = chance.pick(KEYS)
  const at = await window.page
    .evaluate(() => (document.activeElement as HTMLInputElement | null)?.value ?? '')
    .catch(() => '')
  // The browser takes back what was typed there; also where the focus is in no field, what was typed last.
  if (one === 'Control+z') {
    const last = typed.findLast((word) => word.window === window && !word.left)
    for (const word of typed) if (word === last || at.includes(word.text)) word.left = true
  }
  steps.push(`${window.who} presses ${one}`)
  await window.page.keyboard.press(one).catch(() => {})
}
async function walk(window: Desk, sitting: Sitting): Promise<void> {
  const { chance, steps, places } = sitting
  if (window.who === 'ines') return follow(window, sitting)
  const to = chance.pick(chance.maybe(0.5) ? PAGES : places)
  steps.push(`${window.who} goes to ${to}`)
  await window.page.goto(to, { waitUntil: 'commit', timeout: 8_000 }).catch(() => {})
}
async function back(window: Desk, { steps }: Sitting): Promise<void> {
  // Not out of the app.
  if (!(await window.page.evaluate(() => (history.state as { back?: string } | null)?.back))) return
  steps.push(`${window.who} goes back`)
  await window.page.goBack({ waitUntil: 'commit', timeout: 3_000 }).catch(() => {})
}
async function reload(window: Desk, { steps }: Sitting): Promise<void> {
  steps.push(`${window.who} reloads`)
  await window.page.reload({ waitUntil: 'commit', timeout: 8_000 }).catch(() => {})
}
async function cut(window: Desk, sitting: Sitting): Promise<void> {
  const { chance, steps } = sitting
  steps.push(`${window.who} is without a line for a moment`)
  await window.context.setOffline(true)
  await press(window, sitting)
  await window.page.waitForTimeout(chance.between(50, 600))
  await window.context.setOffline(false)
}
/** What is done, and how often. */
const ACTS: readonly (readonly [share: number, act: (w: Desk, s: Sitting) => Promise<void>])[] = [
  [0.3, press],
  [0.09, follow],
  [0.27, type],
  [0.06, figures],
  [0.09, key],
  [0.09, walk],
  [0.04, back],
  [0.04, reload],
  [0.02, cut],
]
export async function act(window: Desk, sitting: Sitting): Promise<void> {
  let at = sitting.chance.random()
  for (const [share, one] of ACTS) {
    at -= share
    if (at <= 0) return one(window, sitting)
  }
}
