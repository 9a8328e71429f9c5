// Every main screen: drawn without an error in the console, and free of WCAG 2.2 AA violations that axe can find.
import AxeBuilder from '@axe-core/playwright'
import { expect, test, type Page } from '@playwright/test'
import { quiet, setClock, sitDown, leavesAllInOrder } from './people'

leavesAllInOrder()
test.beforeEach(() => setClock('2026-11-24T10:21'))
async function accessible(page: Page, where: string) {
  // A dialog that is still fading in is paler than it will be.
  await page.evaluate(() =>
    Promise.allSettled(
      document
        .getAnimations()
        .filter((a) => a.effect?.getComputedTiming().iterations !== Infinity)
        .map((a) => a.finished),
    ),
  )
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
    .analyze()
  expect(
    violations.map(
      (v) =>
        `${where}: ${v.id} ${v.nodes
          .slice(0, 3)
          .map((n) => n.target.join(' '))
          .join(' | ')}`,
    ),
  ).toEqual([])
}
const FINGER_PX = 44
/** What a finger is to hit and could miss: of a field its frame counts, of a box to tick its label. */
const small = (page: Page): Promise<string[]> =>
  page.evaluate((least) => {
    const acts = document.querySelectorAll('button, a, input, textarea, select, [role=radio]')
    const targetOf = (e: Element) =>
      e.matches('[type=checkbox], [type=radio], [type=file]')
        ? e.closest('label')!
        : (e.closest('.el-input__wrapper, .el-select__wrapper') ?? e)
    return [...acts]
      .filter((e) => e.getClientRects().length)
      .map(targetOf)
      .filter((e) => e.clientWidth < least - 2 || e.getBoundingClientRect().height < least)
      .map((e) => `${e.tagName} ${(e.textContent || e.getAttribute('aria-label') || '').trim()}`)
  }, FINGER_PX)
test('the office’s screens', async ({ browser }) => {
  test.setTimeout(400_000)
  const office = await sitDown(browser, 'office')
  // A call that holds the very time of a visit: both stay within reach on the schedule.
  await office.evaluate(async () => {
    const { visits } = (await (await fetch('/api/v1/schedule')).json()) as {
      visits: { technicianId: string; startAt: string }[]
    }
    const draft = {
      date: '2026-11-24',
      technicianId: visits[0]!.technicianId,
      start: new Date(visits[0]!.startAt).toTimeString().slice(0, 5),
      durationSeconds: 3600,
    }
    const reply = await fetch(`/api/v1/calls/${crypto.randomUUID()}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ draft, summary: 'Over a visit' }),
    })
    if (!reply.ok) throw new Error(await reply.text())
  })
  await office.goto('/schedule')
  await expect(office.getByText('Held: Over a visit').first()).toBeVisible()
  for (const [path, ready] of [
    ['/calls', 'Calls'],
    ['/schedule', 'Tuesday, November 24'],
    ['/schedule/week', 'Monday, November 23'],
    ['/schedule/month', 'November'],
    ['/schedule/list', 'Tuesday, November 24'],
    ['/schedule/one', 'Tuesday, November 24'],
    ['/schedule/map', 'Tuesday, November 24'],
    ['/schedule/set-up', 'Hours and areas'],
    ['/on-site', 'On site'],
    ['/to-bill', 'To bill'],
    ['/customers', 'Customers'],
    ['/customers/duplicates', 'Perhaps the same'],
    ['/customers/import', 'Import customers'],
    ['/sites', 'Sites'],
    ['/agreements', 'Care agreements'],
    ['/set-up', 'Set-up'],
    ['/people', 'People'],
    ['/brought-forward', 'From our books before'],
    ['/in-and-out', 'Everything in and out'],
    ['/papers', 'What our papers look like'],
    ['/guide', 'Guide'],
    ['/price-book', 'Price book'],
    ['/invoices', 'Invoices'],
    ['/messages', 'Mail'],
  ] as const) {
    await office.goto(path)
    await expect(office.getByRole('heading', { level: 1, name: new RegExp(ready) })).toBeVisible()
    await expect(office.getByText('Loading…')).toHaveCount(0)
    await accessible(office, path)
  }
  await office.goto('/unpaid')
  await expect(office.getByText('agrees with the books')).toBeVisible()
  await accessible(office, '/unpaid')
  await office.goto('/calls/new')
  await expect(office.getByLabel('Who is calling')).toBeVisible()
  await accessible(office, '/calls/new')
  await office.getByLabel('Who is calling').fill('peregrine laundry')
  await office.keyboard.press('Enter')
  await expect(office.getByRole('list', { name: 'What matters' })).toBeVisible()
  await accessible(office, 'a call with its customer')
  await office.goto('/customers')
  await office.getByRole('link', { name: 'Crossways Estate' }).click()
  await expect(office.getByRole('img', { name: /Map of 3 sites/ })).toBeVisible()
  await accessible(office, '/customers/…')
  await office.getByRole('button', { name: 'Change', exact: true }).first().click()
  await expect(office.getByRole('dialog')).toBeVisible()
  await accessible(office, 'change a customer')
  await office.goto('/to-bill')
  await office.locator('tbody a.num').first().click()
  await expect(office.getByText('Before tax')).toBeVisible()
  await accessible(office, '/work')
  await office.getByRole('button', { name: /Bill what is open/ }).click()
  await expect(office.getByRole('dialog')).toBeVisible()
  await accessible(office, 'bill')
  quiet(office)
})
test('the technician’s screens', async ({ browser }) => {
  const piet = await sitDown(browser, 'piet')
  await expect(piet.getByRole('link', { name: /Open now/ })).toBeVisible()
  await accessible(piet, '/field')
  await piet.getByRole('link', { name: /Open now/ }).click()
  await expect(piet.getByRole('timer')).toBeVisible()
  await accessible(piet, '/field/visits')
  expect(await small(piet)).toEqual([])
  await piet.getByRole('button', { name: 'Show the customer' }).click()
  await expect(piet.getByLabel('Signature')).toBeVisible()
  await accessible(piet, 'the agreement')
  expect(await small(piet)).toEqual([])
  await piet.goBack()
  await piet.getByRole('button', { name: '+ Price book' }).click()
  await expect(piet.getByRole('list', { name: 'Charges at hand' })).toBeVisible()
  await accessible(piet, 'price book in the field')
  expect(await small(piet)).toEqual([])
  await piet.goto('/unpaid')
  await expect(piet).toHaveURL(/field/)
  await expect(piet.getByRole('link', { name: /Open now/ })).toBeVisible()
  expect(await small(piet)).toEqual([])
  await piet.goto('/me')
  await expect(piet.getByLabel('Current password')).toBeVisible()
  expect(await small(piet)).toEqual([])
  quiet(piet)
})
test('the public request form', async ({ page }) => {
  await page.goto('/request')
  await expect(page.getByRole('button', { name: 'Send the request' })).toBeVisible()
  await accessible(page, '/request')
})
test('a large screen is used, and nothing falls apart on it', async ({ browser }) => {
  const office = await sitDown(browser, 'office')
  await office.setViewportSize({ width: 1920, height: 1080 })
  for (const path of ['/calls', '/schedule', '/customers', '/unpaid', '/calls/new']) {
    await office.goto(path)
    const main = office.locator('main > *').first()
    await expect(main).toBeVisible()
    await expect(office.getByText(/Loading…|Opening/)).toHaveCount(0)
    await expect
      .poll(
        () => office.evaluate(() => document.documentElement.scrollWidth - window.innerWidth),
        path,
      )
      .toBeLessThanOrEqual(0)
    await expect
      .poll(async () => (await main.boundingBox())?.width ?? 0, path)
      .toBeGreaterThan(1700)
  }
})
/** How far a page, or what it scrolls in, goes beyond its window. */
const beyond = (page: Page) =>
  page.evaluate(() => {
    const boxes = [document.documentElement, ...document.querySelectorAll('main')]
    return Math.max(...boxes.map((box) => box.scrollWidth - box.clientWidth))
  })
const OFFICE = [
  '/calls',
  '/calls/new',
  '/schedule',
  '/schedule/week',
  '/schedule/month',
  '/schedule/list',
  '/schedule/one',
  '/schedule/map',
  '/schedule/set-up',
  '/unpaid',
  '/price-book',
  '/price-book/rules',
  '/invoices',
  '/customers',
  '/sites',
  '/agreements',
  '/set-up',
  '/people',
  '/brought-forward',
  '/in-and-out',
  '/papers',
  '/guide',
  '/customers/duplicates',
]
for (const [who, width, paths] of [
  ['office', 1280, OFFICE],
  ['office', 320, OFFICE],
  ['piet', 390, ['/field']],
  ['piet', 320, ['/field']],
] as const)
  test(`no screen scrolls sideways: ${who} at ${width}`, async ({ browser }) => {
    const page = await sitDown(browser, who)
    await page.setViewportSize({ width, height: 800 })
    for (const path of paths) {
      await page.goto(path)
      await expect(page.locator('h1, h2').first()).toBeVisible()
      await expect.poll(() => beyond(page), path).toBeLessThanOrEqual(0)
    }
  })
