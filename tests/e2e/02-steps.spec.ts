// One test a step for what goes wrong there.
import { expect, test } from '@playwright/test'
import {
  boxOf,
  callOf,
  quiet,
  setClock,
  sitDown,
  chooseFrom,
  enter,
  chosenIn,
  leavesAllInOrder,
} from './people'

leavesAllInOrder()
test.beforeEach(() => setClock('2026-11-24T10:21'))

test('signing in: says what is wrong, keeps what was typed, comes back to where one wanted to go', async ({
  page,
}) => {
  await page.goto('/to-bill')
  await page.getByLabel('Mail address').fill('office@demo.test')
  await page.getByLabel('Password').fill('wrong')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('alert')).toContainText('do not belong together')
  await expect(page.getByLabel('Mail address')).toHaveValue('office@demo.test')
  await page.getByLabel('Password').fill('open-ledger')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('heading', { name: /To bill/ })).toBeVisible()
})
test('call: a known customer by number, with what they owe; warnings before booking; what is missing is said at its place', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office')
  await callOf(office, '0142', 'Hallam Dairy')
  await expect(office.getByText('Dog loose; ask for the yard gate')).toBeVisible()
  await expect(office.locator('dl')).toContainText('Owes')
  await chooseFrom(office.getByLabel('Technician'), 'Ines Calloway')
  await chooseFrom(office.getByLabel('Start'), '12:00')
  await expect(office.getByText(/Ines is at Wren Cottages/)).toBeVisible()
  await office.keyboard.press('Control+Enter')
  await expect(office.getByText('Write down what is wrong.').first()).toBeVisible()
  await expect(office.getByText('Choose where the work is.').first()).toBeVisible()
  await expect(chosenIn(office.getByLabel('Start'))).toHaveText('12:00')
})
test('call: ends as a call-back with its day, and is then on the list', async ({ browser }) => {
  const office = await sitDown(browser, 'office')
  await office.keyboard.press('n')
  await office.getByLabel('Who is calling').fill('somebody from Ford End')
  await office.getByRole('button', { name: 'Call back…' }).click()
  await office.getByRole('button', { name: 'Put it on the list' }).click()
  await expect(office.getByText('Say why.')).toBeVisible()
  await enter(office.getByLabel('On which day'), '2026-11-27')
  await office.getByLabel('Why').fill('asks the neighbour first')
  await office.getByRole('button', { name: 'Put it on the list' }).click()
  await expect(office.getByRole('row', { name: /somebody from Ford End/ })).toContainText(
    'Call back on Fri, Nov 27',
  )
})
test('schedule: a card is dragged from the tray, a clash is said before it is saved, the edge is stretched, undo', async ({
  browser,
}) => {
  const dispatch = await sitDown(browser, 'dispatch')
  const watching = await sitDown(browser, 'owner')
  const card = dispatch.locator('aside [data-visit]', { hasText: 'Hallam Dairy' })
  const id = await card.getAttribute('data-visit')
  const lane = await boxOf(dispatch.locator('[data-technician]').nth(2))
  const onto = async (share: number) => {
    const from = await boxOf(dispatch.locator(`[data-visit="${id}"]`))
    await dispatch.mouse.move(from.x + 20, from.y + 20)
    await dispatch.mouse.down()
    await dispatch.mouse.move(lane.x + lane.width * share - 40, lane.y + 30, { steps: 5 })
    await dispatch.mouse.move(lane.x + lane.width * share, lane.y + 30, { steps: 3 })
  }
  await onto(0.5)
  await expect(
    dispatch.getByRole('status').filter({ hasText: /Maud is at Crossways Estate/ }),
  ).toBeVisible()
  await dispatch.mouse.up()
  await expect(dispatch.getByRole('alertdialog')).toContainText('Not saved yet')
  await dispatch.getByRole('button', { name: 'Leave it' }).click()
  await expect(card).toBeVisible()
  await onto(0.5)
  await dispatch.mouse.up()
  await dispatch.getByRole('button', { name: 'Place it all the same' }).click()
  const placed = dispatch.locator(`.lane [data-visit="${id}"]`)
  await expect(placed).toBeVisible()
  await expect(watching.locator(`.lane [data-visit="${id}"]`)).toBeVisible()
  const wide = await boxOf(placed)
  await placed.focus()
  await dispatch.keyboard.press('Shift+ArrowRight')
  await dispatch.keyboard.press('Shift+ArrowRight')
  await dispatch.keyboard.press('Enter')
  await dispatch.getByRole('button', { name: 'Place it all the same' }).click()
  await expect.poll(async () => (await boxOf(placed)).width).toBeGreaterThan(wide.width + 10)
  await dispatch.getByRole('button', { name: /Undo/ }).click()
  await expect
    .poll(async () => Math.round((await boxOf(placed)).width))
    .toBe(Math.round(wide.width))
  await dispatch.keyboard.press('Control+z')
  await expect(card).toBeVisible()
  quiet(dispatch, /status of 409/)
})
test('on site: only one visit is open, and the way to it is offered', async ({ browser }) => {
  const ines = await sitDown(browser, 'ines')
  await ines.getByRole('link', { name: /Wren Cottages/ }).click()
  await ines.getByRole('button', { name: 'Set off' }).click()
  await expect(ines.getByRole('alert')).toContainText('is still open. Finish it first.')
  await ines.getByRole('link', { name: /Go to the open visit/ }).click()
  await expect(ines.getByRole('heading', { name: 'Tarn View School' })).toBeVisible()
})
test('price: cost and margin where the role allows, an exempt customer pays no tax, a wrong quantity is said at its field', async ({
  browser,
}) => {
  const ines = await sitDown(browser, 'ines')
  await ines.getByRole('link', { name: /Open now/ }).click()
  await ines.getByRole('button', { name: '+ Price book' }).click()
  await ines.getByRole('button', { name: /^Diagnostic visit/ }).click()
  await expect(ines.getByText('Added: Diagnostic visit')).toBeVisible()
  await ines.getByRole('button', { name: 'Back to the lines' }).click()
  await expect(ines.getByText('Tax exempt')).toBeVisible()
  await expect(ines.getByText('Margin over material')).toBeVisible()
  await ines.getByRole('button', { name: /^Diagnostic visit/ }).click()
  await ines.getByLabel('Quantity').fill('two')
  await ines.getByRole('button', { name: 'Keep' }).click()
  await expect(
    ines
      .getByText(
        'Write the quantity as a number with three decimals at most, for example 2 or 1.5.',
      )
      .first(),
  ).toBeVisible()
  await expect(ines.getByLabel('Quantity')).toHaveValue('two')
  const line = ines.getByRole('button', { name: /^Diagnostic visit/ })
  await ines.getByRole('button', { name: 'Take out' }).click()
  await expect(line).toHaveCount(0)
  await ines.getByRole('button', { name: 'Put Diagnostic visit back' }).click()
  await expect(line).toHaveCount(1)
  await line.click()
  await ines.getByRole('button', { name: 'Take out' }).click()
  await expect(line).toHaveCount(0)
})
test('to bill: what is done and not billed is billed, and leaves nothing to bill', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office')
  await office.keyboard.press('Alt+4')
  const row = office.locator('tbody tr').last()
  const net = await row.locator('td').nth(4).innerText()
  await row.getByRole('link', { name: 'Bill…' }).click()
  const sheet = office.getByRole('dialog', { name: /^Bill W-/ })
  await expect(sheet).toBeVisible()
  await sheet.getByRole('button', { name: 'Make it, send later' }).click()
  await expect(sheet).toBeHidden()
  await expect(office.getByRole('row', { name: /I-\d+/ })).toContainText('not sent')
  await expect(office.getByRole('table', { name: 'The account' }).locator('tfoot')).toContainText(
    net.replace('$', ''),
  )
  await expect(office.getByRole('button', { name: /Bill what is open/ })).toHaveCount(0)
})
test('customers: two people change one, nothing that was typed is lost', async ({ browser }) => {
  const office = await sitDown(browser, 'office')
  const owner = await sitDown(browser, 'owner')
  for (const page of [office, owner]) {
    await page.goto('/customers')
    await page.getByRole('textbox', { name: 'Name, town, number' }).fill('peel daughters')
    await page.getByRole('row', { name: /Peel/ }).getByRole('link').click()
    await page.getByRole('button', { name: 'Change', exact: true }).click()
  }
  await office.getByLabel('Tag').fill('laundry')
  await office.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(office.getByText('laundry').first()).toBeVisible()
  // What nobody typed over follows, and what both changed stands there twice until one of them is kept.
  await expect(owner.getByLabel('Tags')).toHaveValue(/laundry/)
  await owner.getByLabel('Office only').fill('Ring the bell twice')
  await office.getByRole('button', { name: 'Change', exact: true }).click()
  await office.getByLabel('Office only').fill('The side door')
  await office.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(owner.getByText('Meanwhile somebody wrote: The side door')).toBeVisible()
  await expect(owner.getByLabel('Office only')).toHaveValue('Ring the bell twice')
  await owner.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(owner.getByRole('dialog')).toBeHidden()
  await expect(owner.getByText('Ring the bell twice').first()).toBeVisible()
  await expect(owner.getByText('laundry').first()).toBeVisible()
})
test('unpaid: on a past date, by customer, and a promise without a day is sent back', async ({
  browser,
}) => {
  const books = await sitDown(browser, 'books')
  const today = await books.locator('.buckets .double').innerText()
  await books.getByRole('tab', { name: 'Ageing by customer' }).click()
  await expect(books.locator('tfoot tr').first()).toContainText(today.replace('$', ''))
  await enter(books.getByLabel('Owed on which day'), '2026-10-20')
  await expect(books.locator('.buckets .double')).not.toHaveText(today)
  await expect(books.getByText('agrees with the books')).toBeVisible()
  // What is agreed belongs to today.
  await expect(books.getByText('This is how it stood on')).toBeVisible()
  await expect(books.getByRole('button', { name: 'Promised…' })).toHaveCount(0)
  await books.getByRole('button', { name: 'Show today' }).click()
  await expect(books.locator('.buckets .double')).toHaveText(today)
  await books.getByRole('button', { name: 'Promised…' }).click()
  await books.getByRole('button', { name: 'Note it' }).click()
  await expect(
    books.getByRole('dialog').getByText('Choose the day that was promised.'),
  ).toBeVisible()
})
test('the shortcuts: walk the run, find, filter, help', async ({ browser }) => {
  const office = await sitDown(browser, 'office')
  for (const [key, path] of [
    ['2', 'schedule'],
    ['3', 'on-site'],
    ['4', 'to-bill'],
    ['5', 'unpaid'],
    ['1', 'calls'],
  ] as const) {
    await office.keyboard.press(`Alt+${key}`)
    await expect(office).toHaveURL(new RegExp(path))
  }
  await office.goto('/customers')
  await expect(office.getByRole('row').nth(3)).toBeVisible()
  await office.keyboard.press('/')
  await expect(office.getByRole('textbox', { name: 'Name, town, number' })).toBeFocused()
  await office.keyboard.press('Escape')
  await office.locator('h1').click()
  await office.keyboard.press('?')
  await expect(office.getByRole('dialog', { name: 'Help' })).toBeVisible()
})
