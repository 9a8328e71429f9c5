// What begins where it is found, and what is still to follow: a bill without a visit, long work in phases, a site without an address, something
// that was supplied before, a receipt, a day whose hours run down.
import { expect, test } from '@playwright/test'
import {
  boxOf,
  callOf,
  chooseFrom,
  findAnything,
  quiet,
  setClock,
  sitDown,
  leavesAllInOrder,
} from './people'

leavesAllInOrder()
test.beforeEach(() => setClock('2026-11-24T10:21'))

test('something sold over the counter begins where its customer is found, in two phases, and is billed from there', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office')
  await findAnything(office, 'wren cottages')
  await expect(office.getByRole('option').first()).toContainText('Wren Cottages')
  await office.keyboard.press('ArrowRight')
  await expect(office.getByRole('option', { name: /Book work/ })).toHaveAttribute(
    'aria-selected',
    'true',
  )
  await office.keyboard.press('ArrowDown')
  await office.keyboard.press('ArrowDown')
  await office.keyboard.press('Enter')
  const begin = office.getByRole('dialog', { name: /^Bill something to Wren Cottages/ })
  await begin.getByLabel('What is billed').fill('A year of salt')
  await begin.getByRole('button', { name: 'Begin the bill' }).click()
  await expect(office.getByRole('heading', { level: 1 })).toContainText('A year of salt')
  await expect(office.getByRole('heading', { level: 1 })).toContainText('to bill')
  for (const [name, price] of [
    ['Salt in bags', '88.00'],
    ['Brought to the door', '25.00'],
  ] as const) {
    await office.getByRole('button', { name: 'Not in the book…' }).click()
    const own = office.getByRole('form', { name: 'A line of its own' })
    await own.getByLabel('What it is').fill(name)
    await own.getByLabel('Price of one').fill(price)
    await own.getByRole('button', { name: 'Add the line' }).click()
    await expect(own).toHaveCount(0)
    await expect(office.getByRole('table', { name: 'The account' })).toContainText(name)
  }
  await office.getByRole('button', { name: '+ phases of long work' }).click()
  const phases = office.getByRole('dialog', { name: /^Phases of W-/ })
  await phases.getByRole('textbox', { name: 'Phase 1' }).fill('Goods')
  await phases.getByRole('button', { name: '+ a phase' }).click()
  await phases.getByRole('textbox', { name: 'Phase 2' }).fill('Carriage')
  await chooseFrom(phases.getByLabel('Salt in bags'), 'Goods')
  await chooseFrom(phases.getByLabel('Brought to the door'), 'Carriage')
  await phases.getByRole('button', { name: 'Keep' }).click()
  const table = office.getByRole('table', { name: 'Phases' })
  await expect(table.getByRole('row', { name: /Goods/ })).toContainText('88.00')
  await expect(table.getByRole('row', { name: /Carriage/ })).toContainText('25.00')
  await office.getByRole('button', { name: /^Bill what is open/ }).click()
  await office.getByRole('button', { name: /^Make and send/ }).click()
  await expect(office.getByRole('heading', { level: 1 })).toContainText('billed')
  quiet(office)
})

test('somebody with a name and a number alone is booked; the address follows, and everybody sees it', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office', '/calls/new')
  await office.getByLabel('Who is calling').fill('Orla Tansy')
  await expect(office.getByRole('option', { name: /New customer/ })).toBeVisible()
  await office.keyboard.press('Enter')
  await office.getByLabel('Name', { exact: true }).fill('Orla Tansy')
  await office.getByRole('button', { name: 'Keep this customer' }).click()
  await expect(office.getByText('address to follow').first()).toBeVisible()
  await office.getByLabel('What is wrong').fill('Tap drips')
  await office.keyboard.press('Control+Enter')
  await expect(office).toHaveURL(/\/work\//)
  await expect(office.getByText(/^address to follow/)).toBeVisible()
  const work = office.url()
  await office.getByRole('link', { name: 'Orla Tansy' }).first().click()
  await office.getByRole('button', { name: 'Change address to follow' }).click()
  const site = office.getByRole('dialog')
  await site.getByLabel('Address', { exact: true }).fill('9 Weir Lane')
  await site.getByLabel('Town').fill('Larkmoor')
  await site.getByRole('button', { name: 'Keep' }).click()
  await expect(site).toHaveCount(0)
  await office.goto(work)
  await expect(office.getByText(/^9 Weir Lane, Larkmoor/)).toBeVisible()
  await expect(office.getByText('The customer’s details changed since')).toHaveCount(0)
  quiet(office)
})

test('what we supplied before and failed stays linked, with our warranty', async ({ browser }) => {
  const office = await sitDown(browser, 'office', '/calls/new')
  await callOf(office, 'peel daughters', 'Peel & Daughters')
  await chooseFrom(
    office.getByLabel('Where', { exact: true }),
    'Laundry works, 31 Beck Road, Larkmoor',
  )
  const supplied = office.getByLabel('Something that we supplied').and(office.getByRole('combobox'))
  await supplied.focus()
  await supplied.press('Enter')
  await office
    .getByRole('option', { name: /, W-\d+ · .* warranty/ })
    .first()
    .click()
  await expect(office.getByRole('status').filter({ hasText: /warranty/ })).toBeVisible()
  await office.getByLabel('What is wrong').fill('It failed again')
  await office.keyboard.press('Control+Enter')
  await expect(office).toHaveURL(/\/work\//)
  await office.getByRole('link', { name: /, W-\d+ · .* warranty/ }).click()
  await expect(office.getByRole('heading', { level: 1 })).toContainText(/W-\d+/)
  quiet(office)
})

test('a receipt that is found leads to the payment and what it paid', async ({ browser }) => {
  const books = await sitDown(browser, 'books')
  const listed = await books.request.get('/api/v1/payments?limit=3')
  const { number } = ((await listed.json()) as { items: { number: string }[] }).items[2]!
  await findAnything(books, number)
  await books.getByRole('option', { name: number }).first().click()
  const row = books.getByRole('table', { name: 'Payments' }).getByRole('row', { name: number })
  await expect(row).toContainText(/for I-\d+|on no invoice|entered wrongly|came back/)
  quiet(books)
})

test('the hours of the day run down once it is turned, and a visit is moved along them', async ({
  browser,
}) => {
  const dispatch = await sitDown(browser, 'dispatch', '/schedule?date=2026-11-26')
  await dispatch.getByRole('button', { name: 'Turn' }).click()
  const visit = dispatch.locator('.lane .visit.planned').first()
  await visit.focus()
  const [name, was] = [await visit.getAttribute('aria-label'), await boxOf(visit)]
  const id = await visit.getAttribute('data-visit')
  await visit.press('ArrowDown')
  const trying = dispatch.locator('[data-trying]')
  await expect.poll(async () => (await boxOf(trying)).y).toBeGreaterThan(was.y)
  await visit.press('Escape')
  await expect(trying).toHaveCount(0)
  const later = dispatch.locator(`[data-visit="${id}"]`)
  const from = await boxOf(later)
  await dispatch.mouse.move(from.x + 20, from.y + 6)
  await dispatch.mouse.down()
  await dispatch.mouse.move(from.x + 20, from.y + 70, { steps: 6 })
  await expect.poll(async () => (await boxOf(trying)).y).toBeGreaterThan(from.y + 30)
  await dispatch.keyboard.press('Escape')
  await dispatch.mouse.up()
  await expect(later).toHaveAttribute('aria-label', name!)
  await dispatch.reload()
  await expect(dispatch.getByRole('button', { name: 'Turn' })).toHaveAttribute(
    'aria-pressed',
    'true',
  )
  quiet(dispatch)
})
