// What the owner lets roles do, another person's yes to a low quote, and calls that come to no work: seen by those whom they touch.
import { expect, test } from '@playwright/test'
import { chooseFrom, quiet, setClock, sitDown, leavesAllInOrder } from './people'

leavesAllInOrder()
test.beforeEach(() => setClock('2026-11-24T10:21'))

test('a quote is begun like another one; sent below the limit it is asked for, and goes out with another person’s yes', async ({
  browser,
}) => {
  const [dispatch, owner] = [
    await sitDown(browser, 'dispatch', '/quotes'),
    await sitDown(browser, 'owner'),
  ]
  const third = dispatch.locator('tbody tr').nth(2)
  const number = (
    await third
      .getByText(/^Q-\d+$/)
      .first()
      .innerText()
  ).trim()
  await third.click()
  await expect(dispatch.getByRole('heading', { level: 1 })).toContainText(number)
  await dispatch.getByRole('button', { name: 'Another like it' }).click()
  await expect(dispatch.getByText(`begun like ${number}`)).toBeVisible()
  const each = dispatch.getByLabel(/^Price of .* here only$/).first()
  await each.fill('1.00')
  await each.press('Tab')
  await expect(dispatch.getByText('typed here').first()).toBeVisible()
  await dispatch.getByRole('button', { name: /^Send quote/ }).click()
  const dialog = dispatch.getByRole('dialog')
  await dialog.getByRole('button', { name: 'Handed over on paper' }).click()
  await expect(dialog).toContainText('% below its price; you may go 10 % below')
  await dialog.getByLabel('Why, for whoever decides').fill('to win them back')
  await dialog.getByRole('button', { name: 'Ask for a yes' }).click()
  await expect(dialog).toContainText('It is asked for')
  await dispatch.keyboard.press('Escape')
  await owner.goto('/to-act-on')
  const asked = owner
    .getByRole('table', { name: 'Waiting for a yes' })
    .getByRole('row')
    .filter({ hasText: 'to win them back' })
  await asked.getByRole('link').click()
  await owner.getByRole('button', { name: 'Yes', exact: true }).click()
  await expect(owner.getByText(/Said yes to Corin Ashby/)).toBeVisible()
  await expect(dispatch.getByText('sent', { exact: true }).first()).toBeVisible()
  quiet(owner)
})

test('the owner lets a role see what things cost, and takes it back', async ({ browser }) => {
  const [owner, dispatch] = [
    await sitDown(browser, 'owner', '/set-up'),
    await sitDown(browser, 'dispatch', '/price-book'),
  ]
  const cost = dispatch.getByText('Cost', { exact: true }).first()
  await expect(dispatch.getByText('Price', { exact: true }).first()).toBeVisible()
  await expect(cost).toHaveCount(0)
  const box = owner.getByRole('checkbox', { name: 'dispatch: see what things cost us' })
  for (const lets of [true, false]) {
    await box.setChecked(lets, { force: true })
    const keep = owner.getByRole('button', { name: 'Keep this' })
    await keep.click()
    await expect(keep).toBeDisabled()
    await dispatch.reload()
    await expect(dispatch.getByText('Price', { exact: true }).first()).toBeVisible()
    await expect(cost).toHaveCount(lets ? 1 : 0)
  }
  quiet(owner)
  quiet(dispatch)
})

test('a call about a bill is answered, waits no more, is counted, and is taken up again', async ({
  browser,
}, { retry }) => {
  // What an earlier try left waiting is another call.
  const problem = `Asks what line ${2 + retry} is for`
  const office = await sitDown(browser, 'office', '/calls/counted?by=about')
  const row = office.getByRole('row').filter({ hasText: 'about a bill' })
  const answered = async () => Number(await row.getByRole('cell').nth(5).innerText())
  await expect(row).toBeVisible()
  const before = await answered()
  await office.keyboard.press('n')
  await office.getByLabel('What is wrong').fill(problem)
  await chooseFrom(office.getByLabel('The call', { exact: true }), 'about a bill')
  await office.getByRole('button', { name: 'Answered…' }).click()
  const dialog = office.getByRole('dialog', { name: 'Answered' })
  await dialog.getByLabel('What was said').fill('the part of March')
  await dialog.getByRole('button', { name: 'End the call' }).click()
  await expect(office).toHaveURL(/\/calls$/)
  const waits = office.getByRole('row').filter({ hasText: problem })
  await expect(waits).toHaveCount(0)
  await office.getByRole('link', { name: 'What came of them' }).click()
  await office.getByRole('button', { name: 'About' }).click()
  await expect(row).toBeVisible()
  await expect.poll(answered).toBe(before + 1)
  await office.goto('/calls')
  await office.getByText(/^Ended lately without work/).click()
  await office.getByRole('button', { name: new RegExp(`^Take it up again: .*${problem}`) }).click()
  await expect(office.getByLabel('What is wrong')).toHaveValue(problem)
  await office.goto('/calls')
  await expect(waits).toBeVisible()
  quiet(office)
})
