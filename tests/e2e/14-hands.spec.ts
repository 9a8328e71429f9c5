// Rough hands: the third row, two windows, a slow line, Back, Escape, a drag that is let go, a session that ends. Nothing is about somebody else, and
// nothing typed is lost.
import { expect, test, type Locator, type Page, type Route } from '@playwright/test'
import { boxOf, PHONE, quiet, setClock, sitDown, stop, leavesAllInOrder } from './people'

leavesAllInOrder()
test.beforeEach(() => setClock('2026-11-24T10:21'))
/** Refusals that these tests provoke. */
const REFUSED = /status of (401|409)/
const rows = (page: Page) => page.locator('tbody tr')
/** The work order in the third row of those to bill whose lines can be changed. */
async function thirdWorkOrder(page: Page): Promise<string> {
  await page.goto('/to-bill')
  const link = rows(page).nth(2).getByRole('link').first()
  await expect(link).toBeVisible()
  return (await link.getAttribute('href'))!
}
/** Holds answers back until they are let go. */
async function hold(page: Page, url: RegExp): Promise<() => void> {
  let letGo = () => {}
  const held = new Promise<void>((done) => (letGo = done))
  await page.route(url, async (route: Route) => {
    await held
    await route.continue()
  })
  return letGo
}
const meanwhile = (within: Page | Locator) => within.locator('.meanwhile')

test('two windows at one line: what the other changed stands there, and what both changed is shown twice', async ({
  browser,
}) => {
  const [office, owner] = [await sitDown(browser, 'office'), await sitDown(browser, 'owner')]
  const path = await thirdWorkOrder(office)
  for (const page of [office, owner]) {
    await page.goto(path)
    await page.getByRole('button', { name: 'Change', exact: true }).last().click()
  }
  await owner.getByLabel('Called, here only').fill('As the owner calls it')
  await office.getByLabel('Called, here only').fill('As the office calls it')
  await office.getByLabel('Each, here only').fill('222.22')
  await office.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(meanwhile(owner)).toContainText('As the office calls it')
  await expect(owner.getByLabel('Each, here only')).toHaveValue('222.22')
  await owner.getByRole('button', { name: 'Keep', exact: true }).click()
  for (const page of [office, owner]) {
    const account = page.getByRole('table', { name: 'The account' })
    await expect(account).toContainText('As the owner calls it')
    await expect(account).toContainText('× 222.22')
  }
  quiet(office)
  quiet(owner)
})
test('a slow line: a reminder from the third row is about the third customer, and its letter survives a reload', async ({
  browser,
}) => {
  const books = await sitDown(browser, 'books')
  const row = rows(books).filter({ has: books.getByRole('button', { name: 'Send reminder' }) })
  await expect(row.nth(2)).toBeVisible()
  const third = row.nth(2)
  const name = (await third.locator('.link').textContent())!.trim()
  const letGo = await hold(books, /\/owing/)
  await third.getByRole('button', { name: 'Send reminder' }).click()
  await expect(books.getByRole('dialog')).toHaveCount(0)
  letGo()
  const letter = books.getByRole('dialog', { name: new RegExp(`^Reminder \\d+ to ${name}`) })
  await letter.getByLabel('Text').fill('We have not heard from you.')
  books.on('dialog', (question) => void question.accept())
  await books.reload()
  await rows(books).filter({ hasText: name }).getByRole('button', { name: 'Send reminder' }).click()
  await expect(letter.getByLabel('Text')).toHaveValue('We have not heard from you.')
  await letter.getByRole('button', { name: 'Throw it away' }).click()
  await expect(letter.getByLabel('Text')).not.toHaveValue('We have not heard from you.')
})
test('a session that ends over a half-typed form goes on in place', async ({ browser }) => {
  const office = await sitDown(browser, 'office', '/customers')
  await rows(office).nth(2).getByRole('link').first().click()
  await office.getByRole('button', { name: 'Change', exact: true }).click()
  await office.getByLabel('Office only').fill('The gate sticks')
  await office.context().clearCookies()
  await office.getByRole('button', { name: 'Keep', exact: true }).click()
  const again = office.getByRole('dialog', { name: 'Your session has ended' })
  await again.getByLabel('Password').fill('open-ledger')
  await again.getByRole('button', { name: 'Sign in' }).click()
  await expect(again).toBeHidden()
  await expect(office.getByLabel('Office only')).toHaveValue('The gate sticks')
  await office.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(office.getByText('The gate sticks').first()).toBeVisible()
  quiet(office, REFUSED)
})
test('keys belong to what stands over the page: no shortcut acts beneath a dialog, and Back closes it', async ({
  browser,
}) => {
  const books = await sitDown(browser, 'office')
  await stop(books, 'Unpaid').click()
  const said = books.getByRole('dialog', { name: /^What was said/ })
  await books.getByRole('button', { name: 'Said…' }).click()
  await expect(said.getByLabel('In their words')).toBeFocused()
  await books.keyboard.type('nobody home?/')
  await expect(said.getByLabel('In their words')).toHaveValue('nobody home?/')
  await said.getByRole('button', { name: 'Note it' }).focus()
  await books.keyboard.press('n')
  await books.keyboard.press('Control+k')
  await books.keyboard.press('Alt+2')
  await expect(books).toHaveURL(/unpaid/)
  await expect(books.getByRole('dialog')).toHaveCount(1)
  await books.keyboard.press('Escape')
  await books.getByRole('button', { name: 'Stay here' }).click()
  await expect(said.getByLabel('In their words')).toHaveValue('nobody home?/')
  await said.getByLabel('In their words').fill('')
  await books.goBack()
  await expect(said).toBeHidden()
  await expect(books).toHaveURL(/unpaid/)
})
test('a call whose dialog is closed by Escape stays open, and Ctrl Enter in that dialog books nothing', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office', '/calls/new')
  await office.getByLabel('What is wrong').fill('A drip')
  await office.getByRole('button', { name: 'Call back…' }).click()
  const dialog = office.getByRole('dialog', { name: 'Call back' })
  await dialog.getByLabel('Why').focus()
  await office.keyboard.press('Control+Enter')
  await expect(office.getByText(/Booked as/)).toHaveCount(0)
  await office.keyboard.press('Escape')
  await expect(dialog).toBeHidden()
  await expect(office.getByLabel('What is wrong')).toHaveValue('A drip')
  await expect(office).toHaveURL(/\/calls\/[0-9a-f-]{36}/)
})
test('a visit that is dragged along its own row begins no call, and two of one time are both in reach', async ({
  browser,
}) => {
  const dispatch = await sitDown(browser, 'dispatch', '/schedule?date=2026-11-25')
  const cards = dispatch.locator('.person').nth(2).locator('[data-visit]')
  await expect(cards.nth(1)).toBeVisible()
  const [one, other] = await Promise.all([0, 1].map((i) => cards.nth(i).getAttribute('data-visit')))
  const card = (id: string | null) => dispatch.locator(`.lane [data-visit="${id}"]`)
  const [to, from] = [await boxOf(card(one!)), await boxOf(card(other!))]
  await dispatch.mouse.move(from.x + 12, from.y + 20)
  await dispatch.mouse.down()
  await dispatch.mouse.move(from.x - 20, to.y + 20, { steps: 3 })
  await dispatch.mouse.move(to.x + 12, to.y + 20, { steps: 5 })
  await dispatch.mouse.up()
  const asked = dispatch.getByRole('alertdialog', { name: 'Before it is saved' })
  await expect(asked.getByRole('button', { name: 'Place it all the same' })).toBeFocused()
  const placed = dispatch.waitForResponse((r) => r.url().endsWith('/place') && r.ok())
  await dispatch.keyboard.press('Enter')
  await expect(asked).toBeHidden()
  // Where another time was promised by it, who has to be told may be told later.
  const { toTell } = (await (await placed).json()) as { toTell: boolean }
  const tell = dispatch.getByRole('dialog', { name: /^Tell / })
  if (toTell) await tell.getByRole('button', { name: 'Close' }).click()
  await expect(dispatch).toHaveURL(/schedule/)
  await expect.poll(async () => (await boxOf(card(other!))).x).toBeLessThan(from.x - 20)
  const [a, b] = [await boxOf(card(one!)), await boxOf(card(other!))]
  expect(Math.abs(a.y - b.y)).toBeGreaterThan(a.height - 1)
  await dispatch.keyboard.press('Control+z')
  await expect.poll(async () => Math.round((await boxOf(card(other!))).x)).toBe(Math.round(from.x))
  quiet(dispatch, REFUSED)
})
test('filters and words of a list are there again after Back', async ({ browser }) => {
  const office = await sitDown(browser, 'office', '/customers')
  await office.getByRole('button', { name: 'Owing' }).click()
  const answered = office.waitForResponse(/[?&]q=farm/)
  await office.getByRole('textbox', { name: 'Name, town, number' }).fill('farm')
  await expect(office).toHaveURL(/kind=owing&q=farm|q=farm&kind=owing/)
  const { items } = (await (await answered).json()) as { items: { name: string }[] }
  const { name } = items[2]!
  const third = rows(office).nth(2).getByRole('link', { name })
  await third.click()
  await expect(office.getByRole('heading', { name })).toBeVisible()
  await office.goBack()
  await expect(office.getByRole('button', { name: 'Owing' })).toHaveAttribute(
    'aria-pressed',
    'true',
  )
  await expect(office.getByRole('textbox', { name: 'Name, town, number' })).toHaveValue('farm')
  await expect(rows(office).nth(2)).toContainText(name)
})
test('on the phone: findings are kept while a photo goes, Back leads to the step before, and both phones are shown', async ({
  browser,
}) => {
  const ines = await sitDown(browser, 'ines')
  await ines.getByRole('link', { name: /Open now/ }).click()
  const findings = (page: Page) => page.getByLabel('What was found and done')
  const letGo = await hold(ines, /\/photos$/)
  await ines.locator('input[type=file]').setInputFiles({
    name: 'dot.png',
    mimeType: 'image/png',
    buffer: Buffer.from(
      'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
      'base64',
    ),
  })
  await expect(ines.getByText('1 on the way…')).toBeVisible()
  await findings(ines).fill('The tank is empty')
  await ines.getByRole('button', { name: 'Show the customer' }).click()
  await expect(ines.getByText('Sign here with your finger')).toBeVisible()
  await ines.goBack()
  await expect(findings(ines)).toHaveValue('The tank is empty')
  letGo()
  await expect(ines.getByText('1 on the way…')).toBeHidden()
  await expect(findings(ines)).toHaveValue('The tank is empty')
  await ines.reload()
  await expect(findings(ines)).toHaveValue('The tank is empty')
  const second = await sitDown(browser, 'ines')
  await second.goto(ines.url())
  await findings(second).fill('The tank is full')
  await findings(ines).fill('The tank is gone')
  await findings(ines).blur()
  await expect(meanwhile(second)).toContainText('The tank is gone')
  await expect(findings(second)).toHaveValue('The tank is full')
  await second.getByRole('button', { name: 'Take theirs' }).click()
  await expect(findings(second)).toHaveValue('The tank is gone')
})
test('on the phone: who cannot draw signs with a typed name, by keyboard alone', async ({
  browser,
}) => {
  const ines = await sitDown(browser, 'ines')
  await ines.getByRole('link', { name: /Open now/ }).click()
  await ines.getByRole('button', { name: 'Show the customer' }).click()
  const name = ines.getByLabel('Your name')
  const write = ines.getByRole('button', { name: 'Sign with the typed name' })
  const agree = ines.getByRole('button', { name: /^I agree to/ })
  await expect(write).toBeDisabled()
  await name.fill('Alva Quill')
  await write.press('Enter')
  // Another name is not what was signed.
  await name.fill('Alva Quille')
  await agree.press('Enter')
  await expect(ines.getByText('Sign in the box first.').first()).toBeVisible()
  await write.press('Enter')
  await agree.press('Enter')
  await expect(ines.getByText(/✓ Alva Quille signed for/)).toBeVisible()
})
test('without a line a page that was never opened is not opened, and the one that is there stays', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office', '/customers')
  await expect(rows(office).nth(2)).toBeVisible()
  await office.context().setOffline(true)
  await office.getByRole('link', { name: 'Agreements' }).click()
  const strip = office.getByRole('alert').filter({ hasText: 'There is no connection' })
  await expect(strip.first()).toBeVisible()
  await expect(rows(office).nth(2)).toBeVisible()
  await office.context().setOffline(false)
  await strip.first().getByRole('button', { name: 'Ask again' }).click()
  await expect(office.getByRole('heading', { name: /^Care agreements/ })).toBeVisible()
})
test('on the phone: the day is read before the app is there; the app asks nothing twice, and what changes arrives', async ({
  browser,
}) => {
  const maud = await sitDown(browser, 'maud', '/field')
  const kept = await maud.context().storageState()
  const early = await browser.newContext({
    ...{ viewport: PHONE, javaScriptEnabled: false, storageState: kept },
  })
  const read = await early.newPage()
  await read.goto('/field')
  await expect(read.getByRole('heading', { name: 'Maud’s day' })).toBeVisible()
  // Nothing is there to be pressed that would do nothing.
  await expect(read.getByRole('button')).toHaveCount(0)
  const visits = read.getByRole('listitem').getByRole('link')
  expect(await visits.count()).toBeGreaterThan(2)
  await expect(visits.nth(2)).toHaveAttribute('href', /^\/field\/visits\//)
  const third = await visits.nth(2).locator('b').innerText()
  await early.close()

  const asked: string[] = []
  maud.on('request', (request) => asked.push(new URL(request.url()).pathname))
  await maud.reload()
  await expect(maud.getByRole('button', { name: 'Sign out' })).toBeVisible()
  await expect(maud.getByRole('listitem').nth(2)).toContainText(third)
  await expect.poll(() => asked).toContain('/api/v1/tasks/mine')
  expect(asked.filter((path) => /session|field\/day/.test(path))).toEqual([])
  // From here on it is the page that it always was: what the office changes comes by itself.
  const office = await sitDown(browser, 'office')
  const answer = await maud.context().request.get('/api/v1/field/day')
  const mine = ((await answer.json()) as { visits: { workOrderId: string }[] }).visits[2]!
  await office.goto(`/work/${mine.workOrderId}`)
  await office.getByRole('button', { name: 'Change what it says…' }).click()
  const form = office.getByRole('dialog', { name: /says$/ })
  await form.getByLabel('Title').fill('Low pressure on the top floor')
  await form.getByRole('button', { name: 'Keep' }).click()
  await expect(maud.getByRole('listitem').nth(2)).toContainText('Low pressure on the top floor')
  quiet(maud)
})
