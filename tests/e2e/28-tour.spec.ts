// Shown round a first call: the places of each page, on the real screens, in an office window and on a phone.
import { expect, test, type Page } from '@playwright/test'
import { leavesAllInOrder, quiet, sitDown } from './people'

leavesAllInOrder()

const card = (page: Page, title: string) =>
  page.getByRole('tooltip').filter({ has: page.getByText(title, { exact: true }) })
const understood = (page: Page, title: string) =>
  card(page, title).getByRole('button', { name: 'Understood' }).click()

test('an office window is shown the places of a call; they can be used meanwhile, and it goes on where it was', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office', '/guide')
  await office.getByRole('button', { name: 'Show me round' }).click()
  await expect(card(office, 'Who is calling')).toContainText('entered here as new')
  await expect(office.locator('[data-pointed]')).toHaveAttribute('data-tour', 'call.who')
  // What it points at is used while it is pointed at.
  const who = office.getByLabel('Who is calling')
  await expect(who).toBeFocused()
  await who.fill('fenn orchard')
  await office
    .getByRole('option', { name: /Fenn Orchard/ })
    .first()
    .click()
  await understood(office, 'Who is calling')
  await expect(card(office, 'What is wrong')).toBeVisible()
  await expect(card(office, 'Who is calling')).toHaveCount(0)
  await card(office, 'What is wrong').getByRole('button', { name: 'Before' }).click()
  await expect(card(office, 'Who is calling')).toBeVisible()
  await understood(office, 'Who is calling')
  await office.reload()
  await expect(card(office, 'What is wrong')).toBeVisible()
  // A dialog stands over it alone.
  await office.getByRole('button', { name: 'No, because…' }).click()
  await expect(office.getByRole('dialog')).toBeVisible()
  await expect(office.locator('[data-pointed]')).toHaveCount(0)
  await office.getByRole('dialog').getByRole('button', { name: /close/i }).first().click()
  for (const title of ['What is wrong', 'What it would cost', 'A time that can be kept'])
    await understood(office, title)
  await expect(office.locator('[data-pointed]')).toContainText('Book')
  // Another window of the same browser is shown round, too, and both end together.
  const beside = await office.context().newPage()
  await beside.goto('/work')
  await beside.getByRole('table').getByRole('link').first().click()
  await understood(beside, 'One account of this work')
  await beside.goto('/unpaid')
  await expect(card(beside, 'Nothing falls between')).toBeVisible()
  await card(office, 'Book it').getByRole('button', { name: 'Leave the tour' }).click()
  await expect(office.locator('[data-pointed]')).toHaveCount(0)
  await expect(beside.locator('[data-pointed]')).toHaveCount(0)
  quiet(office)
})
test('a phone that reads the code is shown its day and a visit', async ({ browser }) => {
  const phone = await sitDown(browser, 'maud', '/field?tour')
  await expect(card(phone, 'The day')).toBeVisible()
  await expect(phone).toHaveURL(/\/field$/)
  await understood(phone, 'The day')
  await phone.locator('[data-tour="day.visits"]').getByRole('link').first().click()
  await expect(card(phone, 'The clock')).toBeVisible()
  const [box, screen] = [await card(phone, 'The clock').boundingBox(), phone.viewportSize()!]
  expect(box!.x).toBeGreaterThanOrEqual(0)
  expect(box!.x + box!.width).toBeLessThanOrEqual(screen.width)
  const press = await card(phone, 'The clock').getByRole('button').last().boundingBox()
  expect(press!.height).toBeGreaterThanOrEqual(48)
  await understood(phone, 'The clock')
  await expect(card(phone, 'What is done')).toBeVisible()
  // Loaded again, it goes on there; the day that was seen is not shown again.
  await phone.goto('/field')
  await expect(phone.locator('[data-tour="day.visits"]')).toBeVisible()
  await expect(phone.locator('[data-pointed]')).toHaveCount(0)
  quiet(phone)
})
