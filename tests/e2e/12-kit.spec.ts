// The fields and tables of the office, wherever they stand: typed as people write, found by typing, reached by keyboard.
import { expect, test } from '@playwright/test'
import { chooseFrom, chosenIn, enter, quiet, setClock, sitDown, leavesAllInOrder } from './people'

leavesAllInOrder()
test.beforeEach(() => setClock('2026-11-24T10:21'))

test('a day is typed as people write it; what is none is not taken', async ({ browser }) => {
  const office = await sitDown(browser, 'office', '/schedule/plan?date=2026-11-25')
  const from = office.getByLabel('From', { exact: true })
  await expect(from).toHaveValue('Nov 25, 2026')
  for (const [typed, day] of [
    ['fri', 'Nov 27, 2026'],
    ['12/4', 'Dec 4, 2026'],
    ['tomorrow', 'Nov 25, 2026'],
    ['2026-12-01', 'Dec 1, 2026'],
    ['+2', 'Nov 26, 2026'],
  ] as const) {
    await enter(from, typed)
    await expect(from, typed).toHaveValue(day)
  }
  // Neither nonsense nor a day before today changes what stands there.
  for (const typed of ['soon', '1 Nov 2026']) {
    await enter(from, typed)
    await from.press('Tab')
    await expect(from, typed).toHaveValue('Nov 26, 2026')
  }
  quiet(office)
})
test('Escape closes the calendar and leaves the dialog; an emptied day is none', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office', '/calls/new')
  await office.getByRole('button', { name: 'Call back…' }).click()
  const dialog = office.getByRole('dialog', { name: 'Call back' })
  const day = dialog.getByLabel('On which day')
  await day.click()
  await expect(office.locator('.el-picker-panel:visible')).toHaveCount(1)
  await day.press('Escape')
  await expect(office.locator('.el-picker-panel:visible')).toHaveCount(0)
  await expect(dialog).toBeVisible()
  await enter(day, 'fri')
  await expect(day).toHaveValue('Nov 27, 2026')
  await enter(day, '')
  await expect(day).toHaveValue('')
  await dialog.getByLabel('Why').fill('asks the neighbour first')
  await dialog.getByRole('button', { name: 'Put it on the list' }).click()
  await expect(dialog).toBeVisible()
  quiet(office, /status of 422/)
})
test('a time is typed as people write it', async ({ browser }) => {
  const office = await sitDown(browser, 'office', '/schedule/set-up')
  await office.getByRole('button', { name: 'Change Gwil Harrow' }).click()
  const to = office.getByLabel('Mon to')
  await enter(to, '330pm')
  await expect(to).toHaveValue('15:30')
  await enter(to, '14:45')
  await expect(to).toHaveValue('14:45')
  await office.getByLabel('Mon from').click()
  await expect(to).toHaveValue('14:45')
  await to.press('ArrowUp')
  await expect(to).toHaveValue('15:00')
  await enter(to, 'late')
  await expect(to).toHaveValue('15:00')
  await enter(to, '16')
  await expect(to).toHaveValue('16:00')
  quiet(office)
})
test('a long list is found in by typing, and a shortcut works from within it', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office', '/calls/new')
  const start = office.getByLabel('Start').and(office.getByRole('combobox'))
  await start.focus()
  await start.press('Enter')
  await start.fill('14:1')
  await expect(office.getByRole('option')).toHaveText(['14:15'])
  await start.fill('99')
  await expect(office.getByText('Nothing fits these words.')).toBeVisible()
  await start.press('Escape')
  await chooseFrom(office.getByLabel('Start'), '14:15')
  await expect(chosenIn(office.getByLabel('Start'))).toHaveText('14:15')
  await start.press('Control+Enter')
  await expect(office.getByText('Write down what is wrong.').first()).toBeVisible()
  quiet(office)
})
test('a row that can be opened is reached and opened by keyboard', async ({ browser }) => {
  const dispatch = await sitDown(browser, 'dispatch', '/schedule/list?date=2026-11-24')
  const row = dispatch.getByRole('row', { name: /Lowfold Farm/ }).first()
  await row.focus()
  await expect(row).toBeFocused()
  await row.press('Enter')
  await expect(dispatch.getByRole('dialog', { name: /Lowfold Farm/ })).toBeVisible()
  quiet(dispatch)
})
test('what is wrong stands at its field, and is read out with it', async ({ browser }) => {
  const office = await sitDown(browser, 'office', '/customers')
  await office.getByRole('textbox', { name: 'Name, town, number' }).fill('peel daughters')
  await office.getByRole('row', { name: /Peel/ }).getByRole('link').click()
  await office.getByRole('button', { name: 'Change', exact: true }).click()
  await office.getByLabel('Credit limit').fill('much')
  await office.getByRole('button', { name: 'Keep', exact: true }).click()
  const field = office.locator('.field', { has: office.getByLabel('Credit limit') })
  await expect(field).toContainText('Write the amount as a number, for example 100.00.')
  await expect(office.getByLabel('Credit limit')).toHaveValue('much')
  quiet(office, /status of 422/)
})
test('what was typed is asked about before its dialog closes or its page is left; staying keeps it', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office', '/customers')
  await office.getByRole('table').getByRole('link').first().click()
  await office.getByRole('button', { name: 'Change', exact: true }).click()
  const form = office.getByRole('dialog', { name: 'Change the customer' })
  const asked = office.getByRole('dialog', { name: 'Not kept yet' })
  const note = form.getByLabel('Printed on their invoices')
  // Nothing typed, nothing asked.
  await office.keyboard.press('Escape')
  await expect(form).toHaveCount(0)
  await office.getByRole('button', { name: 'Change', exact: true }).click()
  await note.fill('Gate code 4411')
  await office.keyboard.press('Escape')
  await asked.getByRole('button', { name: 'Stay here' }).click()
  await expect(asked).toHaveCount(0)
  await expect(note).toHaveValue('Gate code 4411')
  await form.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(form).toHaveCount(0)
  await office.getByRole('link', { name: 'Set-up' }).click()
  await office.getByLabel('A further question').fill('Is there a dog?')
  await office.getByRole('link', { name: 'Mail', exact: true }).click()
  await asked.getByRole('button', { name: 'Stay here' }).click()
  await expect(office).toHaveURL(/\/set-up$/)
  await expect(office.getByLabel('A further question')).toHaveValue('Is there a dog?')
  await office.getByRole('link', { name: 'Mail', exact: true }).click()
  await asked.getByRole('button', { name: 'Leave it' }).click()
  await expect(office).toHaveURL(/\/messages$/)
  quiet(office)
})
test('the help says what the screen is for that it is asked on, with its keys, and finds every other page', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office', '/schedule/one')
  await expect(office.getByRole('list', { name: /^The day of/ })).toBeVisible()
  await office.keyboard.press('?')
  const help = office.getByRole('dialog', { name: 'Help' })
  await expect(help.getByRole('heading', { name: 'One technician' })).toBeVisible()
  await expect(help.getByRole('row', { name: /technician before/ })).toBeVisible()
  await expect(help.getByRole('row', { name: /take a call/ })).toBeVisible()
  await office.keyboard.press('Escape')
  await office.getByRole('link', { name: 'Customers' }).click()
  await expect(office.getByRole('table')).toBeVisible()
  await office.keyboard.press('?')
  await expect(help.getByText('found by any part of name')).toBeVisible()
  await expect(help.getByRole('row', { name: /technician before/ })).toHaveCount(0)
  await help.getByRole('textbox', { name: 'Search the help' }).fill('bounced cheque')
  await help.getByRole('button', { name: 'An invoice', exact: true }).click()
  await expect(help.getByText('the invoice is open again')).toBeVisible()
  await help.getByRole('button', { name: '← This screen' }).click()
  await expect(help.getByText('found by any part of name')).toBeVisible()
  await help.getByRole('link', { name: 'The whole guide, to read or print' }).click()
  await expect(office.getByRole('heading', { level: 1, name: 'The whole guide' })).toBeVisible()
  await expect(office.getByRole('heading', { level: 2, name: 'Unpaid' })).toBeVisible()
  quiet(office)
})
test('planning begins with the day as it stands, changing prices with what the book leaves', async ({
  browser,
}) => {
  const owner = await sitDown(browser, 'owner', '/schedule/plan')
  const day = owner.getByRole('table', { name: 'The day as it stands' })
  await expect(day.getByRole('row', { name: /Ines Calloway/ })).toContainText(/\d:\d\d h/)
  await expect(owner.getByText(/visits? waits? for a slot/)).toBeVisible()
  await owner.goto('/price-book/reprice')
  const book = owner.getByRole('table', { name: 'The book as it stands' })
  await expect(book.getByRole('row', { name: /^tasks/ })).toContainText('%')
  quiet(owner)
})
