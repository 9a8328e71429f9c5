// A second step is set up with an app, asked for at the sign-in, and ended again.
import { expect, test } from '@playwright/test'
import { TOTP, Secret } from 'otpauth'
import { leavesAllInOrder, quiet, sitDown } from './people'

leavesAllInOrder()

test('a second step is set up, asked for, and ended', async ({ browser }) => {
  const books = await sitDown(browser, 'books', '/me')
  await books.getByRole('button', { name: 'Set up a second step' }).click()
  await expect(books.getByAltText('A code that holds the secret for the app')).toBeVisible()
  const secret = (await books.locator('code.secret').textContent())!.trim()
  /** The app's next code: each is taken once, and the clock of a phone may run a little fast. */
  const app = new TOTP({ secret: Secret.fromBase32(secret) })
  const codeIn = (seconds: number) => app.generate({ timestamp: Date.now() + seconds * 1000 })
  const code = books.getByLabel('Code of your app')
  await code.fill('000000')
  await books.getByRole('button', { name: 'It shows this code' }).click()
  await expect(books.getByText('This code is wrong, was used, or its time is over.')).toBeVisible()
  await code.fill(codeIn(0))
  await books.getByRole('button', { name: 'It shows this code' }).click()
  const codes = books.getByRole('status').getByRole('listitem')
  await expect(codes).toHaveCount(10)
  const [first, second] = await codes.allTextContents()
  await expect(books.getByText('10 recovery codes left.')).toBeVisible()
  quiet(books, /status of 422/)

  const again = await (await browser.newContext()).newPage()
  await again.goto('/sign-in')
  await again.getByLabel('Mail address').fill('books@demo.test')
  await again.getByLabel('Password').fill('open-ledger')
  await again.getByRole('button', { name: 'Sign in' }).click()
  await expect(again.getByText('Write the code of your app, or a recovery code.')).toBeVisible()
  await again.getByLabel('Code of your app, or a recovery code').fill(first!.trim())
  await again.getByRole('button', { name: 'Sign in' }).click()
  await expect(
    again.getByRole('link', { name: 'Sign out' }).or(again.getByText('Sign out')),
  ).toBeVisible()

  await books.getByRole('button', { name: 'End the second step…' }).click()
  await books.getByLabel('Code of your app, or a recovery code').fill(second!.trim())
  await books.getByRole('button', { name: 'End the second step' }).click()
  await expect(books.getByRole('button', { name: 'Set up a second step' })).toBeVisible()
})
