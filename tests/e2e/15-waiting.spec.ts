// Nothing is nowhere: a closed door and what follows, a day that passed, a work order cancelled and taken up again, in the browsers of those concerned.
import { expect, test, type Page } from '@playwright/test'
import { quiet, setClock, sitDown, leavesAllInOrder } from './people'

leavesAllInOrder()
test.beforeEach(() => setClock('2026-11-24T10:21'))
const tray = (page: Page) => page.getByRole('complementary', { name: 'No slot yet' })
/** The cards of the tray that say so. */
const card = (page: Page, words: string | RegExp) =>
  tray(page).getByRole('button').filter({ hasText: words })

test('a closed door: the technician says what is to be done, and the office finds it among what needs a time', async ({
  browser,
}) => {
  const [maud, dispatch] = [await sitDown(browser, 'maud'), await sitDown(browser, 'dispatch')]
  await dispatch.goto('/schedule')
  await expect(tray(dispatch)).toBeVisible()
  await maud
    .getByRole('link', { name: /Crossways Estate/ })
    .first()
    .click()
  await maud.getByRole('button', { name: 'No access' }).click()
  await maud.getByLabel('What the office should know').fill('gate is locked')
  await maud.getByRole('button', { name: 'Ring them first' }).click()
  await expect(maud.getByText('The office has it')).toBeVisible()
  await expect(card(dispatch, 'ring them first, gate is locked')).toHaveCount(1)
  await dispatch.goto('/to-act-on')
  const waits = dispatch.getByRole('table', { name: 'No slot yet' })
  await expect(waits.getByRole('row').filter({ hasText: 'gate is locked' })).toContainText(
    'Ring them, and find another time',
  )
  quiet(maud)
  quiet(dispatch)
})

test('a day that passed: what nobody began waits in the tray at the closing hour, and leads to its visit', async ({
  browser,
}) => {
  setClock('2026-11-24T18:00')
  const dispatch = await sitDown(browser, 'dispatch')
  await dispatch.goto('/schedule?date=2026-11-25')
  const missed = card(dispatch, 'Was not begun')
  const third = missed.nth(2)
  await expect(third).toBeVisible()
  const [title] = (await third.innerText()).split('\n')
  await third.focus()
  await dispatch.keyboard.press('Enter')
  await expect(dispatch.getByRole('heading', { name: title! })).toBeVisible()
  quiet(dispatch)
})

test('a work order is cancelled with its visit, and goes on with it again', async ({ browser }) => {
  const office = await sitDown(browser, 'office')
  await office.goto('/work?state=scheduled')
  const link = office.locator('tbody tr').nth(2).getByRole('link').first()
  await expect(link).toBeVisible()
  await office.goto((await link.getAttribute('href'))!)
  const state = (word: string | RegExp) =>
    expect(office.getByRole('heading', { level: 1 })).toContainText(word)
  await state('scheduled')
  await office.getByRole('button', { name: 'Cancel the work order…' }).click()
  await office.getByLabel('Why it will not be').fill('They have moved')
  await office.getByRole('button', { name: 'Cancel it, and its visits' }).click()
  await state('cancelled')
  await expect(office.getByText('Cancelled: They have moved')).toBeVisible()
  await office.getByRole('button', { name: 'Go on with it…' }).click()
  await office.getByLabel('Why it goes on').fill('They have not')
  await office.getByRole('button', { name: 'Go on with it', exact: true }).click()
  // Its time may have stood against another one before.
  await state(/scheduled|needs a slot/)
  quiet(office)
})
