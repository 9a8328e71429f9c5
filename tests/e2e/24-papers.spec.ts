// A firm says how its papers look and what it writes, in its own words, and sees both on real papers; it joins a service and tries it.
import { expect, test } from '@playwright/test'
import { callOf, chooseFrom, leavesAllInOrder, quiet, sitDown } from './people'

leavesAllInOrder()

test('an estimate in our own words is what the customer gets', async ({ browser }) => {
  const page = await sitDown(browser, 'owner', '/set-up')
  await page.getByRole('link', { name: 'What our papers look like' }).click()
  await page.getByRole('button', { name: 'Our own layout' }).first().click()
  await page.getByLabel('Name of this layout').fill('Estimate')
  await page.getByLabel('Words that it opens with').fill('Dear {nmae}, here is “{title}”.')
  const paper = page.locator('.paper')
  await expect(paper).toContainText('Dear {nmae}')
  await page.getByText('Every word that is printed on it').click()
  await page.getByLabel('Quote {number}').fill('Estimate {number}')
  await expect(paper.getByRole('heading', { level: 1 })).toHaveText(/^Estimate Q-/)
  await page.getByRole('button', { name: 'Keep this layout' }).click()
  await expect(page.getByText('{nmae} is not known here')).toBeVisible()
  await page.getByLabel('Words that it opens with').fill('Dear {name}, here is “{title}”.')
  // The column goes from the paper as it is taken away.
  await page.getByText('Price of one').click()
  await expect(paper.getByRole('columnheader', { name: 'Each' })).toHaveCount(0)
  await page.getByRole('button', { name: 'Keep this layout' }).click()
  await expect(page.getByRole('button', { name: /^Estimate/ })).toBeVisible()
  const [pdf] = await Promise.all([
    page.waitForEvent('popup'),
    page.getByRole('link', { name: 'As PDF, as it was kept' }).click(),
  ])
  await pdf.close()

  await callOf(page, 'fenn orchard', 'Fenn Orchard')
  await page.getByLabel('What is wrong').fill('Wants a softener.')
  await page.getByLabel('Price to read out').fill('service softener')
  await expect(page.getByRole('list', { name: 'Found in the price book' })).toBeVisible()
  await page.getByLabel('Price to read out').press('Enter')
  await page.getByRole('button', { name: 'Quote it' }).click()
  await page.getByRole('button', { name: /^Send quote/ }).click()
  const dialog = page.getByRole('dialog')
  await chooseFrom(dialog.getByLabel('It looks'), 'Estimate')
  await dialog.getByRole('button', { name: 'Handed over on paper' }).click()
  await expect(dialog).toBeHidden()
  const theirs = page.getByRole('link', { name: 'The customer’s page' })
  await page.goto((await theirs.getAttribute('href'))!)
  await expect(page.getByRole('heading', { name: /^Estimate Q-/ })).toBeVisible()
  await expect(page.getByText(/^Dear .+, here is “/)).toBeVisible()
  quiet(page, /status of 422/)
})

test('what we write is in our words, and comes to us to be looked at', async ({ browser }) => {
  const page = await sitDown(browser, 'owner', '/set-up#mails')
  await page.getByRole('button', { name: 'Change the words of second reminder' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Words').fill('{name}, {sum} is open, {lst}')
  await dialog.getByRole('button', { name: 'Send me one' }).click()
  await expect(dialog.getByText('{lst} is not known here')).toBeVisible()
  await dialog.getByLabel('Words').fill('{name}, {sum} is open:\n\n{list}')
  await dialog.getByRole('button', { name: 'Send me one' }).click()
  await expect(dialog.getByText('It is on its way to owner@demo.test')).toBeVisible()
  await dialog.getByRole('button', { name: 'Keep these words' }).click()
  await expect(dialog).toBeHidden()
  const row = page.getByRole('row', { name: /^second reminder/ })
  await expect(row).toContainText('our own')
  // What others set up meanwhile stays theirs.
  const said = page.getByRole('row').filter({ hasText: 'What is written in second reminders' })
  await said.first().getByRole('button', { name: /^Undo/ }).click()
  await expect(row).toContainText('as is usual')
  quiet(page, /status of 422/)
})

test('a service is tried before anything depends on it, and says what is wrong', async ({
  browser,
}) => {
  const page = await sitDown(browser, 'owner', '/connections')
  const mail = page.getByRole('article', { name: 'Mail' })
  await mail.getByRole('button', { name: 'Try Mail' }).click()
  await expect(mail.getByRole('status')).toContainText('is there, and knows us')
  const suppliers = page.getByRole('article', { name: 'Suppliers' })
  await suppliers.getByRole('button', { name: 'Change Suppliers' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Address').fill('http://wholesale.example.com')
  await dialog.getByRole('button', { name: 'Keep this connection' }).click()
  await expect(dialog.getByText('Only https')).toBeVisible()
  await dialog.getByLabel('Address').fill('http://127.0.0.1:4')
  await dialog.getByLabel('Secret').fill('what they gave us')
  await dialog.getByRole('button', { name: 'Keep this connection' }).click()
  await expect(suppliers).toContainText('named here')
  await suppliers.getByRole('button', { name: 'Try Suppliers' }).click()
  await expect(suppliers.getByRole('status')).toContainText('Nothing answers at 127.0.0.1:4')
  await suppliers.getByRole('button', { name: 'Change Suppliers' }).click()
  await dialog.getByRole('button', { name: 'As the server was set up' }).click()
  await expect(suppliers).toContainText('named where the server was set up')
  quiet(page, /status of 422/)
})
