// Quotes: from a visit to quote on the technician's phone to work in the tray; and straight from a call.
import { expect, test } from '@playwright/test'
import { callOf, quiet, setClock, sitDown, chooseFrom, chosenIn, leavesAllInOrder } from './people'

leavesAllInOrder()
test.beforeEach(() => setClock('2026-11-24T10:21'))

test('a quote is begun at a call with what was read out, changed, sent, and its yes waits for a slot', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office')
  await callOf(office, 'fenn orchard', 'Fenn Orchard')
  await expect(office.getByText(/Iron filter for the packing shed/)).toBeVisible()
  await office.getByLabel('What is wrong').fill('Wants a softener. Five people in the house.')
  await office.getByLabel('Price to read out').fill('service softener')
  await expect(office.getByRole('list', { name: 'Found in the price book' })).toBeVisible()
  await office.getByLabel('Price to read out').press('Enter')
  await office.getByRole('button', { name: 'Quote it' }).click()
  await expect(office).toHaveURL(/\/quotes\//)
  await expect(office.getByText('begun today, not sent')).toBeVisible()
  await expect(office.getByLabel('What is to be done')).toHaveValue(/Five people/)
  const quantity = office.getByLabel(/^Quantity of/)
  await quantity.fill('0')
  await quantity.press('Tab')
  await expect(office.getByRole('alert')).toContainText('The quantity is zero')
  await quantity.fill('2')
  await quantity.press('Tab')
  await expect(office.getByRole('alert')).toHaveCount(0)
  await office.getByRole('button', { name: /Send quote \$/ }).click()
  await office.getByRole('dialog').getByRole('button', { name: 'Handed over on paper' }).click()
  await expect(office.getByText('sent today, no answer')).toBeVisible()
  await expect(office.getByLabel('What is to be done')).toBeDisabled()
  await office.getByRole('button', { name: 'They said yes…' }).click()
  await office.getByRole('button', { name: 'Make it work to schedule' }).click()
  await expect(office.getByText('Say who answered, and how.')).toBeVisible()
  await office.getByLabel('Who agreed, and how').fill('Mrs Fenn, by telephone')
  await office.getByRole('button', { name: 'Make it work to schedule' }).click()
  await expect(office.getByText('Mrs Fenn, by telephone').first()).toBeVisible()
  await office.getByRole('link', { name: /W-\d+ · needs a slot/ }).click()
  await expect(office.getByRole('link', { name: /Q-\d+ · accepted/ })).toBeVisible()
  quiet(office, /status of 422/)
})
test('a quote is read and accepted on its own page, also without JavaScript, and the office sees both', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office', '/quotes')
  await office
    .getByRole('row', { name: /Iron filter for the packing shed/ })
    .getByRole('link')
    .first()
    .click()
  // One of its own, so that a second try finds it as the first did.
  await expect(office).toHaveURL(/\/quotes\/./)
  const like = office.url()
  await office.getByRole('button', { name: 'Another like it' }).click()
  await expect(office).not.toHaveURL(like)
  await office.getByRole('button', { name: /^Send quote \$/ }).click()
  await office.getByRole('dialog').getByRole('button', { name: 'Handed over on paper' }).click()
  const link = await office.getByRole('link', { name: 'The customer’s page' }).getAttribute('href')
  const reader = await (await browser.newContext()).newPage()
  await reader.goto(link!)
  await expect(reader.getByRole('button', { name: /^Yes, please do this for \$/ })).toBeVisible()
  await expect(office.getByText('opened by the customer')).toBeVisible()
  await expect(office.getByText(/, read today, no answer/)).toBeVisible()
  const plain = await (
    await browser.newContext({ javaScriptEnabled: false, viewport: { width: 390, height: 844 } })
  ).newPage()
  await plain.goto(link!)
  await plain.getByLabel('Your name').fill('J. Fenn')
  await plain.getByLabel('Anything that we should know').fill('before the harvest')
  await plain.getByRole('button', { name: /^Yes, please do this for/ }).click()
  await expect(plain.getByRole('status')).toContainText('You have accepted this quote')
  await expect(plain.getByRole('button')).toHaveCount(0)
  await expect(
    office.getByText('J. Fenn, on the page of the quote: before the harvest').first(),
  ).toBeVisible()
  await expect(office.getByRole('link', { name: /W-\d+ · needs a slot/ })).toBeVisible()
  // Whoever had it open meanwhile is told how it stands, and makes no second piece of work of it.
  await reader.getByLabel('Your name').fill('Somebody else')
  await reader.getByRole('button', { name: 'No, thank you' }).click()
  await expect(reader.getByRole('status')).toContainText('You have accepted this quote')
  quiet(office)
})
test('who is sent to quote makes the quote on the phone, and the office sees it wait', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office')
  await callOf(office, 'fenn orchard', 'Fenn Orchard')
  await office.getByLabel('What is wrong').fill('Price for a bigger tank')
  await chooseFrom(office.getByLabel('Kind of work'), 'quote visit')
  await chooseFrom(office.getByLabel('Technician'), 'Rosa Illing')
  await chooseFrom(office.getByLabel('Start'), '13:00')
  await chooseFrom(office.getByLabel('Takes'), '0:30')
  // Where something speaks against it, it is said first, and booking is somebody's word then.
  await expect(async () => {
    await office.keyboard.press('Control+Enter')
    await expect(office).toHaveURL(/schedule/, { timeout: 3000 })
  }).toPass()
  const rosa = await sitDown(browser, 'rosa')
  await rosa.getByRole('link', { name: /Price for a bigger tank/ }).click()
  await rosa.getByRole('button', { name: 'Begin the quote' }).click()
  await expect(rosa.getByText('Nothing is offered yet')).toBeVisible()
  await rosa.getByLabel('Add from the price book').fill('pressure tank 44')
  await rosa
    .getByRole('list', { name: 'Found in the price book' })
    .getByRole('button')
    .first()
    .click()
  await expect(rosa.getByRole('button', { name: /Send quote \$/ })).toBeEnabled()
  expect(
    await rosa.evaluate(() => document.documentElement.scrollWidth - window.innerWidth),
  ).toBeLessThanOrEqual(0)
  await office.goto('/quotes')
  await office
    .getByRole('row', { name: /Price for a bigger tank/ })
    .getByRole('link')
    .click()
  await expect(chosenIn(office.getByLabel('Who has it'))).toHaveText(/.+/)
  await office.getByRole('button', { name: 'Somebody else' }).click()
  await office.getByLabel('Who pays').fill('crossways')
  await office.getByRole('button', { name: 'Pays', exact: true }).first().click()
  await expect(office.getByText('of Fenn Orchard')).toBeVisible()
  // The other screen follows by itself.
  await expect(rosa.getByText('Crossways Estate')).toBeVisible()
  quiet(office, /status of 409/)
  quiet(rosa)
})
test('work orders are found by state, kind and words', async ({ browser }) => {
  const office = await sitDown(browser, 'office', '/work')
  await expect(office.getByRole('row').nth(5)).toBeVisible()
  await chooseFrom(office.getByLabel('State'), 'to bill')
  await expect(
    office.locator('tbody tr td:last-child').filter({ hasNotText: 'to bill' }),
  ).toHaveCount(0)
  await chooseFrom(office.getByLabel('Kind'), 'service')
  await expect(
    office.locator('tbody tr td:nth-child(3)').filter({ hasNotText: 'service' }),
  ).toHaveCount(0)
  await chooseFrom(office.getByLabel('State'), 'any')
  await office.keyboard.press('Escape')
  await office.getByPlaceholder('Number, words, customer, town').fill('nothing is called like this')
  await expect(office.getByText('Nothing fits these words.')).toBeVisible()
})
