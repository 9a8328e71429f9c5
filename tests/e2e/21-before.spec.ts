// What was open before the firm began here: taken over from a file, against the figure of the books before, and taken back.
import { expect, test } from '@playwright/test'
import { leavesAllInOrder, sitDown } from './people'

leavesAllInOrder()

test('open invoices from before are tried, compared, taken over, found, and taken back', async ({
  browser,
}) => {
  // Tried again, they are others.
  const key = Date.now().toString(36)
  const name = `Hollin ${key}`
  const file = [
    'Invoice no,Client,Date,Due date,Balance',
    `${key}-1,${name},09/02/2026,10/02/2026,"$1,200.50"`,
    `${key}-2,${name},11/02/2026,12/02/2026,300.00`,
    `${key}-3,${name},11/03/2026,12/03/2026,much`,
    `${key}-1,${name},11/03/2026,12/03/2026,5.00`,
    `C-${key},${name},10/05/2026,,(40.25)`,
  ].join('\n')
  const books = await sitDown(browser, 'books', '/brought-forward')
  await books.locator('input[type=file]').setInputFiles({
    ...{ name: `${key}.csv`, mimeType: 'text/csv', buffer: Buffer.from(file) },
  })
  await books.getByRole('button', { name: 'Try it dry' }).click()
  const tried = books.getByRole('region', { name: 'What would be taken over' })
  await expect(tried).toContainText('2 invoices and 1 credit would be taken over')
  await expect(tried.getByRole('row', { name: new RegExp(`${key}-3`) })).toContainText(
    'still open: “much” is no sum.',
  )
  const figure = tried.getByLabel('Your books before say is open')
  await figure.fill('1,500.00')
  await expect(tried).toContainText('$39.75 is missing in the file')
  await figure.fill('1,460.25')
  await expect(tried).toContainText('The two are equal.')
  await books.getByRole('button', { name: 'Take over 3' }).click()
  await expect(books.getByText('3 invoices and credits taken over.')).toBeVisible()

  await books.getByRole('link', { name: 'Unpaid', exact: true }).click()
  await books.getByRole('tab', { name: 'Ageing by customer' }).click()
  const aged = books.getByRole('row', { name: new RegExp(name) })
  await expect(aged).toContainText('1,200.50')
  await expect(books.getByText('agrees with the books')).toBeVisible()
  await books.goto('/invoices')
  await books.getByRole('textbox', { name: 'Number or customer' }).fill(`${key}-1`)
  await books.getByRole('link', { name: `${key}-1` }).click()
  await expect(books.getByText(`As on our invoice ${key}-1 of September 2, 2026`)).toBeVisible()
  await expect(books.getByText(`2 open invoices and 1 credit taken over`)).toBeVisible()

  await books.goto('/brought-forward')
  await books.getByRole('button', { name: `Undo ${key}.csv` }).click()
  await expect(books.getByText('Taken back: 3 invoices and credits taken out.')).toBeVisible()
})

test('the numbers of quotes go on where somebody says', async ({ browser }) => {
  const owner = await sitDown(browser, 'owner', '/set-up')
  const change = owner.getByRole('button', { name: 'Change the numbers of quotes' })
  await change.click()
  const dialog = owner.getByRole('dialog')
  const next = dialog.getByLabel('The next number')
  const was = Number(await next.inputValue())
  await next.fill('7')
  await dialog.getByRole('button', { name: 'Keep these numbers' }).click()
  await expect(dialog.getByText(/was given already: the next is \d+ at least/)).toBeVisible()
  await next.fill(String(was + 100))
  await expect(dialog.getByText(`The next is Q-${was + 100}`)).toBeVisible()
  await dialog.getByRole('button', { name: 'Keep these numbers' }).click()
  await expect(dialog).toBeHidden()
  await expect(owner.getByRole('row', { name: `Quotes Q-${was + 100}` })).toBeVisible()
})
