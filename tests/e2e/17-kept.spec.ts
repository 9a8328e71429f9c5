// What is said of work, who is to do what about it, and what it is billed with: changed later, seen where it matters, looked at before it goes out.
import { expect, test } from '@playwright/test'
import { findAnything, quiet, setClock, sitDown, leavesAllInOrder } from './people'

leavesAllInOrder()
test.beforeEach(() => setClock('2026-11-24T10:21'))

test('what a work order says and whom to speak to is changed later: the history has both values, the phone the people, and not the office’s note', async ({
  browser,
}) => {
  const ines = await sitDown(browser, 'ines')
  await ines.getByRole('link', { name: /Open now/ }).click()
  await expect(ines.locator('main')).toContainText(/W-\d+/)
  const number = /W-\d+/.exec(await ines.locator('main').innerText())![0]
  const office = await sitDown(browser, 'office')
  await findAnything(office, number)
  await office.getByRole('option').first().click()
  await office.getByRole('button', { name: 'Change what it says…' }).click()
  const form = office.getByRole('dialog', { name: `What ${number} says` })
  const was = await form.getByLabel('Title').inputValue()
  await form.getByLabel('Title').fill('Pressure falls at night')
  await form.getByLabel('For the office alone').fill('Ask for a deposit next time.')
  await form.getByRole('button', { name: '+ somebody else to speak to' }).click()
  await form.getByLabel('Also', { exact: true }).fill('Ada Holt')
  await form.getByLabel('as', { exact: true }).last().fill('caretaker')
  await form.getByLabel('at', { exact: true }).last().fill('607 555 0199')
  await form.getByRole('button', { name: 'Keep' }).click()
  await expect(form).toHaveCount(0)
  await expect(office.getByRole('heading', { level: 1 })).toContainText('Pressure falls at night')
  await expect(office.getByText('Ask for a deposit next time.').first()).toBeVisible()
  const entry = office.getByRole('list', { name: 'History' }).getByRole('listitem').first()
  await expect(entry.locator('s').filter({ hasText: was })).toBeVisible()
  await expect(entry).toContainText('Pressure falls at night')
  await expect(ines.getByRole('link', { name: /^Ring Ada Holt \(caretaker\)/ })).toBeVisible()
  await expect(ines.locator('main')).not.toContainText('Ask for a deposit')
  quiet(office)
})

test('something to do is given to somebody, stands on their first page and under To act on, and is ticked off there', async ({
  browser,
}) => {
  const owner = await sitDown(browser, 'owner', '/work')
  const link = owner.locator('tbody tr').nth(2).getByRole('link').first()
  await expect(link).toBeVisible()
  await owner.goto((await link.getAttribute('href'))!)
  await owner.getByRole('button', { name: '+ something to do' }).click()
  await owner.getByLabel('What is to be done').fill('Order the second seal')
  await owner.getByRole('button', { name: 'Give it' }).click()
  await expect(owner.getByRole('region', { name: 'To do' })).toContainText('Order the second seal')
  await owner.goto('/to-act-on')
  await expect(owner.getByRole('link', { name: /^Order the second seal, W-/ })).toBeVisible()
  await owner.goto('/')
  const mine = owner.getByRole('region', { name: 'For me to do' })
  await mine.getByRole('checkbox', { name: 'Order the second seal' }).check()
  await expect(mine.getByText('Order the second seal')).toHaveCount(0)
  quiet(owner)
})

test('a year of an agreement is looked at before it is billed, and what is taken off is named on the paper as what it is', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office', '/agreements?show=all')
  await office
    .getByRole('button', { name: /^Bill the year/ })
    .first()
    .click()
  const bill = office.getByRole('dialog', { name: /^Bill W-/ })
  await expect(bill).toContainText('Care agreement')
  await office.keyboard.press('Escape')
  await expect(bill).toHaveCount(0)
  await office.getByRole('button', { name: 'Discount…' }).click()
  await office.getByLabel(/^Take off all/).fill('10.00')
  await office.getByLabel('For what, as the paper says it').fill('came an hour late')
  await office.getByRole('button', { name: 'Take it off' }).click()
  await expect(office.getByRole('table', { name: 'The account' })).toContainText(
    'less 10.00 came an hour late',
  )
  await office.getByRole('button', { name: /^Bill what is open/ }).click()
  await bill.getByRole('button', { name: 'Make it, send later' }).click()
  await expect(bill).toHaveCount(0)
  const invoice = office.getByRole('link', { name: /^I-\d+/ }).first()
  await office.goto((await invoice.getAttribute('href'))!)
  await expect(office.getByText('less $10.00 came an hour late')).toBeVisible()
  quiet(office)
})
