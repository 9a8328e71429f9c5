// The price book in the browser: why a price is what it is, changes that are looked at first, two people at one entry, what an hour must cost.
import { expect, test, type Page } from '@playwright/test'
import { moneyIn, quiet, setClock, sitDown, chooseFrom, leavesAllInOrder } from './people'

leavesAllInOrder()
test.beforeEach(() => setClock('2026-11-24T10:21'))
const why = (page: Page) => page.getByRole('table', { name: 'As the first task of a visit' })
const priceIn = async (page: Page) =>
  moneyIn(await why(page).locator('tfoot .double').textContent())
async function openTask(page: Page, words: string) {
  await page.goto('/price-book')
  await page.getByLabel('Code, name, category').fill(words)
  await expect(page.getByRole('row').nth(1)).toContainText(words, { ignoreCase: true })
  await page.getByRole('row').nth(1).getByRole('link').click()
  await expect(why(page)).toBeVisible()
}
test('a task is opened into what its price is made of; a part put in raises it while it is typed; kept, it has its history', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office')
  await openTask(office, 'Recharge tank and set switch 14–32 gal, house')
  const rows = why(office).locator('tbody tr')
  const before = await priceIn(office)
  const sum = async () => {
    const all = await rows.locator('td:last-child').allTextContents()
    return Math.round(all.reduce((n, t) => n + moneyIn(t) * 100, 0))
  }
  expect(await sum()).toBe(Math.round(before * 100))
  await office.getByLabel('Put a part in').fill('pressure gauge 100 psi dry')
  await office
    .getByRole('list', { name: 'Found in the price book' })
    .getByRole('button')
    .first()
    .click()
  await expect(rows.filter({ hasText: '1 × Pressure gauge 100 psi, dry' })).toBeVisible()
  await expect(office.getByRole('status').filter({ hasText: 'it would be' })).toBeVisible()
  await office.getByLabel('How many: Pressure gauge').fill('2')
  await expect(rows.filter({ hasText: '2 × Pressure gauge' })).toBeVisible()
  const after = await priceIn(office)
  expect(after).toBeGreaterThan(before)
  expect(await sum()).toBe(Math.round(after * 100))
  await office.getByRole('button', { name: 'Keep this entry' }).click()
  await expect(office.getByRole('heading', { name: 'History of the price' })).toBeVisible()
  await expect(office.getByRole('button', { name: 'Keep this entry' })).toBeDisabled()
  await office.reload()
  await expect.poll(() => priceIn(office)).toBe(after)
  quiet(office)
})
test('two people at one entry: the second is told, and nothing that was typed is lost', async ({
  browser,
}) => {
  const [office, owner] = [await sitDown(browser, 'office'), await sitDown(browser, 'owner')]
  await openTask(office, 'Fit surge protector 120 V, standard')
  await owner.goto(new URL(office.url()).pathname)
  await expect(why(owner)).toBeVisible()
  await office.getByLabel('Found by these words, too').fill('lightning')
  await owner.getByLabel('Found by these words, too').fill('arrester')
  await owner.getByRole('button', { name: 'Keep this entry' }).click()
  await expect(owner.getByRole('button', { name: 'Keep this entry' })).toBeDisabled()
  await expect(office.getByText('Meanwhile somebody wrote: arrester')).toBeVisible()
  await expect(office.getByLabel('Found by these words, too')).toHaveValue('lightning')
  await office.getByRole('button', { name: 'Keep this entry' }).click()
  await expect(office.getByRole('button', { name: 'Keep this entry' })).toBeDisabled()
  await expect(owner.getByLabel('Found by these words, too')).toHaveValue('lightning')
  quiet(office)
  quiet(owner)
})
test('a new entry: what is wrong is said at its place, what is named alike is said before, and it is found and sold', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office', '/price-book/new')
  await chooseFrom(office.getByLabel('Kind'), 'Part')
  await office.getByLabel('Name', { exact: true }).fill('Pressure tank 44 gal')
  await expect(office.getByRole('status').filter({ hasText: 'Named alike' })).toContainText(
    'Pressure tank 44 gal, steel',
  )
  await office.getByRole('textbox', { name: /^Code/ }).fill('L-STD')
  await office.getByLabel('Category').fill('Tank')
  await office.getByLabel('Cost').fill('109.95')
  await expect(office.getByRole('table', { name: 'Its price' })).toContainText('164.93')
  await office.getByRole('button', { name: 'Keep this entry' }).click()
  await expect(office.getByText('Another entry has this code.').first()).toBeVisible()
  await expect(office.getByLabel('Cost')).toHaveValue('109.95')
  await office.getByRole('textbox', { name: /^Code/ }).fill('P-BESIDE')
  await office.getByLabel('Name', { exact: true }).fill('Zephyr tank 44 gal')
  await office.getByRole('button', { name: 'Keep this entry' }).click()
  await expect(office.getByRole('heading', { name: /Zephyr tank 44 gal/ })).toContainText(
    'P-BESIDE',
  )
  await office.goto('/price-book')
  await office.getByLabel('Code, name, category').fill('zephyr')
  await expect(office.getByRole('row').nth(1)).toContainText('164.93')
  quiet(office, /status of 422/)
})
test('prices are changed by a rule: looked at first, made, and taken back in one act', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office', '/price-book/reprice')
  await chooseFrom(office.getByLabel('Category'), 'Gauge')
  await office.getByRole('textbox', { name: 'Per cent' }).fill('65')
  await office.getByRole('button', { name: 'Look at it first' }).click()
  const change = office.getByRole('button', { name: /^Change \d+ prices$/ })
  // An odd percentage is asked about once.
  await expect(change).toBeDisabled()
  await office.getByLabel(/65 % is unusual/).check()
  await expect(change).toBeEnabled()
  await office.getByRole('textbox', { name: 'Per cent' }).fill('4')
  await expect(change).toHaveCount(0)
  await office.getByRole('button', { name: 'Look at it first' }).click()
  await expect(office.getByText('Nothing has changed yet.')).toBeVisible()
  await expect(
    office.getByRole('img', { name: /^Margins: [\d.]+ % on average before, [\d.]+ % after$/ }),
  ).toBeVisible()
  const row = office.getByRole('row').filter({ hasText: 'Pressure gauge' }).first()
  const [was, then] = [
    moneyIn(await row.locator('td').nth(3).textContent()),
    moneyIn(await row.locator('td').nth(4).textContent()),
  ]
  expect(Math.round(was * 104)).toBe(Math.round(then * 100))
  await office.getByLabel('Called').fill('gauges in spring')
  await change.click()
  await expect(office.getByRole('status').filter({ hasText: /\d+ prices changed\./ })).toBeVisible()
  await office.getByRole('button', { name: 'Take back: gauges in spring' }).click()
  await expect(office.getByRole('status').filter({ hasText: 'Taken back.' })).toBeVisible()
  await expect(office.getByRole('row').filter({ hasText: 'gauges in spring' })).toContainText(
    'taken back',
  )
  quiet(office)
})
test('what an hour must cost follows what is typed; a markup of a supplier is kept among the rules', async ({
  browser,
}) => {
  const owner = await sitDown(browser, 'owner', '/price-book/rules')
  const year: [string, string][] = [
    ['Wages of a year', '300000'],
    ['What comes on top of wages', '60000'],
    ['Everything else that labour has to carry', '140000'],
    ['Hours that are paid', '10000'],
    ['of them billed, per cent', '50'],
    ['wished margin, per cent', '20'],
  ]
  for (const [label, value] of year) await owner.getByLabel(label).fill(value)
  // Common practice of the trade: 500 000 over 5 000 hours, with a margin of 20 %.
  await expect(owner.getByLabel('Labour rate needed')).toHaveText('$125.00')
  await expect(owner.getByText('One point more of the paid hours billed')).toContainText(
    '$12,500.00',
  )
  await owner.getByLabel('of them billed, per cent').fill('0')
  await expect(
    owner.getByText('Hours billed must be above zero and the margin below 100 %.'),
  ).toBeVisible()
  await owner.getByLabel('of them billed, per cent').fill('50')
  await owner.getByRole('button', { name: 'Markup of a supplier' }).click()
  await owner.getByRole('button', { name: 'Keep the rules' }).click()
  await expect(owner.getByText('Say which supplier it is for.').first()).toBeVisible()
  await owner.getByLabel('Parts from the supplier').fill('Northmoor')
  await owner.getByRole('button', { name: 'Keep the rules' }).click()
  await expect(owner.getByRole('button', { name: 'Keep the rules' })).toBeDisabled()
  await owner.reload()
  await expect(owner.getByLabel('Parts from the supplier')).toHaveValue('Northmoor')
  quiet(owner, /status of 422/)
})
