// What belongs to whom: one's own sign-in on the phone, a reminder from any row, a customer's link that is taken back.
import { expect, test } from '@playwright/test'
import { quiet, setClock, sitDown, leavesAllInOrder } from './people'

leavesAllInOrder()
test.beforeEach(() => setClock('2026-11-24T10:21'))

test('a technician looks after their own sign-in on the phone: a wrong password is said at its field, a token comes and goes', async ({
  browser,
}) => {
  const piet = await sitDown(browser, 'piet')
  await piet.getByRole('link', { name: 'My sign-in' }).click()
  await expect(piet.getByRole('heading', { name: 'My sign-in' })).toBeVisible()
  await piet.getByLabel('Current password').fill('not this one')
  await piet.getByLabel('New password').fill('a longer password')
  await piet.getByLabel('The new one again').fill('a longer passwort')
  await piet.getByRole('button', { name: 'Change my password' }).click()
  await expect(piet.getByText(/The two are not/)).toBeVisible()
  await piet.getByLabel('The new one again').fill('a longer password')
  await piet.getByRole('button', { name: 'Change my password' }).click()
  await expect(piet.getByText('This is not your password.').first()).toBeVisible()
  await expect(piet.getByLabel('New password')).toHaveValue('a longer password')
  await piet.getByLabel('What it is for').fill('The lab’s programme')
  await piet.getByRole('button', { name: 'Make a token' }).click()
  await expect(piet.getByText('Copy it now')).toBeVisible()
  const row = piet.getByRole('row', { name: /The lab’s programme/ })
  await row.getByRole('button', { name: 'End it' }).click()
  await expect(row).toHaveCount(0)
  expect(
    await piet.evaluate(() => document.documentElement.scrollWidth - window.innerWidth),
  ).toBeLessThanOrEqual(0)
  // The password that was typed is not changed yet: leaving it behind is asked about.
  await piet.getByRole('link', { name: 'Back to the day' }).click()
  const left = piet.getByRole('dialog', { name: 'Not kept yet' })
  await left.getByRole('button', { name: 'Stay here' }).click()
  await expect(piet.getByLabel('New password')).toHaveValue('a longer password')
  await piet.getByRole('link', { name: 'Back to the day' }).click()
  await left.getByRole('button', { name: 'Leave it' }).click()
  await expect(piet.getByRole('heading', { name: 'Piet’s day' })).toBeVisible()
  quiet(piet, /status of 4(22|03)/)
})
test('a reminder is to the customer of the row that it was opened from, whichever row was looked at', async ({
  browser,
}) => {
  const books = await sitDown(browser, 'books')
  const rows = books.locator('tbody tr', {
    has: books.getByRole('button', { name: 'Send reminder' }),
  })
  await expect(rows.nth(2)).toBeVisible()
  for (const n of [2, 1]) {
    const name = await rows.nth(n).locator('b, .b, td').first().innerText()
    await rows.nth(n).getByRole('button', { name: 'Send reminder' }).click()
    const dialog = books.getByRole('dialog', {
      name: new RegExp(`^Reminder \\d+ to ${name.split('\n')[0]}`),
    })
    await expect(dialog).toBeVisible()
    await expect(dialog.getByLabel('Text')).toHaveValue(new RegExp(`Dear ${name.split('\n')[0]}`))
    await books.keyboard.press('Escape')
    await expect(dialog).toBeHidden()
  }
  quiet(books)
})
test('the link of an invoice is taken back, and another one is made', async ({ browser }) => {
  const office = await sitDown(browser, 'office', '/invoices')
  await office.getByRole('button', { name: 'Overdue' }).click()
  await office.locator('tbody a.num').nth(3).click()
  const link = office.getByRole('link', { name: 'The customer’s page' })
  const before = (await link.getAttribute('href'))!
  const customer = await (await browser.newContext()).newPage()
  await customer.goto(before)
  await expect(customer.getByText('Billed to')).toBeVisible()
  await office.getByText('The customer’s link holds').click()
  await office.getByRole('button', { name: 'Withdraw it' }).click()
  await expect(link).toHaveCount(0)
  await customer.reload()
  await expect(customer.getByText('Billed to')).toHaveCount(0)
  await expect(customer.getByText('This link is not valid')).toBeVisible()
  await office.getByRole('button', { name: 'Make another link' }).click()
  await expect(link).not.toHaveAttribute('href', before)
  await customer.goto((await link.getAttribute('href'))!)
  await expect(customer.getByText('Billed to')).toBeVisible()
  await customer.context().close()
  quiet(office)
})
