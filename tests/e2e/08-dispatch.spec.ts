// Dispatching in the browser: the visit beside the schedule, locks and further visits by keyboard, views and filters, the map, messages, call-backs.
import { expect, test, type Page } from '@playwright/test'
import {
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
const sheet = (page: Page) =>
  page
    .getByRole('dialog')
    .filter({ has: page.getByRole('button', { name: /Save the visit|Tell the customer/ }) })
/** Saves, also where something is to be said against it. */
async function save(page: Page) {
  const answered = page.waitForResponse((r) => r.url().endsWith('/place'))
  await sheet(page).getByRole('button', { name: 'Save the visit' }).click()
  if ((await answered).status() !== 409) return
  await sheet(page).getByRole('button', { name: 'Place it all the same' }).click()
}
const cards = (page: Page) => page.locator('.lane [data-visit]')

test('a visit is locked, copied and split by keyboard; undo takes each back; a lock holds', async ({
  browser,
}) => {
  const dispatch = await sitDown(browser, 'dispatch', '/schedule?date=2026-12-01')
  await expect(cards(dispatch).first()).toBeVisible()
  const id = (await cards(dispatch).first().getAttribute('data-visit'))!
  const card = dispatch.locator(`.lane [data-visit="${id}"]`)
  const before = (await card.getAttribute('aria-label'))!
  await card.focus()
  await dispatch.keyboard.press('l')
  await expect(card).toHaveAttribute('aria-label', `${before}, locked`)
  await card.focus()
  await dispatch.keyboard.press('ArrowRight')
  await expect(dispatch.getByRole('alert')).toContainText('locked where it is')
  await card.focus()
  await dispatch.keyboard.press('l')
  await expect(card).toHaveAttribute('aria-label', before)
  const tray = dispatch.locator('aside [data-visit]')
  const waiting = await tray.count()
  await card.focus()
  await dispatch.keyboard.press('x')
  await expect(tray).toHaveCount(waiting + 1)
  await expect(tray.filter({ hasText: 'the rest of a visit that was split' }).first()).toBeVisible()
  await dispatch.keyboard.press('Control+z')
  await expect(tray).toHaveCount(waiting)
  // As long as it was before: what is copied is what is seen.
  await expect(card).toHaveAttribute('aria-label', before)
  await card.focus()
  await dispatch.keyboard.press('c')
  await expect(tray).toHaveCount(waiting + 1)
  await dispatch.keyboard.press('Control+z')
  await expect(tray).toHaveCount(waiting)
  await dispatch.keyboard.press('Control+y')
  await expect(tray).toHaveCount(waiting + 1)
  await dispatch.keyboard.press('Control+z')
  await expect(tray).toHaveCount(waiting)
  quiet(dispatch)
})
test('beside the schedule: a second technician goes along, and another sees it at once; the visit moves to another day; it is cancelled and comes back', async ({
  browser,
}) => {
  const dispatch = await sitDown(browser, 'dispatch')
  const owner = await sitDown(browser, 'owner')
  for (const page of [dispatch, owner]) await page.goto('/schedule?date=2026-12-02')
  await expect(cards(dispatch).first()).toBeVisible()
  const id = (await cards(dispatch).first().getAttribute('data-visit'))!
  const card = (page: Page) => page.locator(`.lane [data-visit="${id}"]`)
  await card(dispatch).focus()
  await dispatch.keyboard.press('Enter')
  await expect(sheet(dispatch)).toBeVisible()
  const along = sheet(dispatch)
    .getByRole('group', { name: 'Who goes along' })
    .getByRole('checkbox')
    .first()
  await along.check()
  await save(dispatch)
  await expect(card(owner).getByTitle('2 people')).toBeVisible()
  await expect(owner.locator('.lane .helps').first()).toContainText('with')
  await enter(sheet(dispatch).getByLabel('Day of the visit'), '2026-12-03')
  await save(dispatch)
  await expect(card(owner)).toHaveCount(0)
  await dispatch.goto('/schedule?date=2026-12-03')
  await card(dispatch).focus()
  await dispatch.keyboard.press('Enter')
  await sheet(dispatch).getByLabel('Why it will not be').fill('the customer is away')
  await sheet(dispatch).getByRole('button', { name: 'Cancel the visit' }).click()
  await expect(card(dispatch)).toHaveCount(0)
  await dispatch.getByRole('button', { name: /Undo/ }).click()
  // It lay over another visit; to bring it back there is a person's word again.
  await dispatch
    .getByRole('alertdialog', { name: 'Before it is saved' })
    .getByRole('button', { name: 'Place it all the same' })
    .click()
  await expect(card(dispatch)).toBeVisible()
  quiet(dispatch, /status of 409/)
})
test('one filter for day, week, month and list; kept by name for the person who made it', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office')
  const owner = await sitDown(browser, 'owner')
  await office.goto('/schedule/week')
  const rows = office.getByRole('rowheader').filter({ has: office.getByRole('link') })
  await expect(rows).toHaveCount(6)
  await office.getByRole('button', { name: 'Everything' }).click()
  await office.getByRole('checkbox', { name: 'Maud Okonjo' }).check()
  await office.getByLabel('Keep this filter as').fill('Only Maud')
  await office.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(rows).toHaveCount(1)
  await office.getByRole('link', { name: 'Day', exact: true }).click()
  await expect(office.getByRole('row', { name: /Maud Okonjo/ })).toBeVisible()
  await expect(office.getByRole('row', { name: /Ines Calloway/ })).toHaveCount(0)
  await office.getByRole('link', { name: 'List', exact: true }).click()
  await expect(office.getByText(/^\d+ of \d+$/)).toBeVisible()
  await office.getByRole('button', { name: 'Show everything' }).click()
  await office.reload()
  await office.getByRole('button', { name: 'Only Maud' }).click()
  await expect(office.getByRole('button', { name: /^Only: Maud/ })).toBeVisible()
  await owner.goto('/schedule/month')
  await expect(owner.getByRole('link', { name: /Tue, Nov 24: \d+ visits/ })).toBeVisible()
  await expect(owner.getByRole('button', { name: 'Only Maud' })).toHaveCount(0)
  // From the month to the day, and from there to one technician's day with its drives.
  await owner.getByRole('link', { name: /Tue, Nov 24: \d+ visits/ }).click()
  await owner.getByRole('link', { name: 'One technician' }).click()
  await expect(owner.getByRole('list', { name: 'The day of Ines Calloway' })).toContainText(
    'min drive',
  )
  await owner.keyboard.press('PageDown')
  await expect(owner.getByRole('list', { name: 'The day of Tobiah Renn' })).toBeVisible()
  quiet(office)
  quiet(owner)
})
test('the map: zoomed and moved by keyboard; what waits shows who is near, and is placed with whoever is sent', async ({
  browser,
}) => {
  const dispatch = await sitDown(browser, 'dispatch', '/schedule/map')
  const map = dispatch.getByRole('application', { name: /^Map/ })
  await expect(map.getByText('Larkmoor', { exact: true })).toBeVisible()
  await expect(map.getByText('The tarns', { exact: true })).toBeVisible()
  const land = map.locator('> g')
  const first = (await land.getAttribute('transform'))!
  await map.focus()
  await dispatch.keyboard.press('+')
  await expect(land).not.toHaveAttribute('transform', first)
  const nearer = (await land.getAttribute('transform'))!
  await dispatch.keyboard.press('ArrowLeft')
  await expect(land).not.toHaveAttribute('transform', nearer)
  await dispatch.keyboard.press('0')
  await expect(land).toHaveAttribute('transform', 'translate(0,0) scale(1)')
  const waits = dispatch
    .getByRole('complementary')
    .getByRole('button', { name: /Peregrine Cottages/ })
  await expect(waits.first()).toBeVisible()
  const many = await waits.count()
  await waits.first().click()
  const near = dispatch.getByRole('table', { name: 'Who is near' })
  const sends = near.getByRole('button', { name: /^Send / })
  await expect(sends).toHaveCount(5)
  await expect(near.getByRole('row').nth(1)).toContainText(/\d:\d\d.*\d\d:\d\d/)
  const nearest = near
    .getByRole('row')
    .filter({ has: dispatch.locator('button:enabled') })
    .first()
  const who = (await nearest.locator('b').innerText()).trim()
  await nearest.getByRole('button').click()
  // Whoever is sent at once may well be sent away from something: that is said first.
  const [placed, warned] = [
    dispatch.getByRole('status').filter({ hasText: `${who} has it for` }),
    dispatch.getByRole('alertdialog', { name: 'Before it is saved' }),
  ]
  await expect(placed.or(warned)).toBeVisible()
  if (await warned.isVisible())
    await warned.getByRole('button', { name: 'Place it all the same' }).click()
  await expect(placed).toBeVisible()
  // Where they were promised another day, they are told of this one, now or later.
  const tell = dispatch.getByRole('dialog', { name: /^Tell Peregrine Cottages/ })
  await tell.getByRole('button', { name: 'Close' }).click()
  await dispatch.getByRole('button', { name: 'Leave this site' }).click()
  await expect(waits).toHaveCount(many - 1)
  quiet(dispatch, /status of 409/)
})
test('a late promise is told by text, with prepared words, to a customer who agreed to texts', async ({
  browser,
}) => {
  setClock('2026-11-24T11:20')
  const dispatch = await sitDown(browser, 'dispatch', '/schedule')
  await dispatch.getByText(/promises? at risk/).click()
  const told = dispatch.getByRole('button', { name: /^Tell / }).first()
  const customer = (await told.getAttribute('aria-label'))!.slice(5)
  await dispatch.evaluate(async (name) => {
    const { items } = (await (
      await fetch(`/api/v1/customers?q=${encodeURIComponent(name)}`)
    ).json()) as { items: { id: string }[] }
    const c = (await (await fetch(`/api/v1/customers/${items[0]!.id}`)).json()) as {
      version: number
    }
    const reply = await fetch(`/api/v1/customers/${items[0]!.id}`, {
      method: 'PATCH',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ version: c.version, textConsent: 'yes' }),
    })
    if (!reply.ok) throw new Error(await reply.text())
  }, customer)
  await told.click()
  const box = dispatch.getByRole('dialog', { name: /^Tell / })
  await expect(box.getByRole('button', { name: 'By text' })).toBeEnabled()
  await expect(box.getByLabel('Text', { exact: true })).toHaveValue(/will be later than that/)
  await box.getByRole('button', { name: 'Send the text' }).click()
  await expect(dispatch.getByText('The text is on its way.')).toBeVisible()
  await expect
    .poll(async () =>
      ((await (await fetch(`${process.env.TEXT_URL}/texts`)).json()) as { text: string }[]).some(
        (t) => t.text.includes('will be later than that'),
      ),
    )
    .toBe(true)
})
test('a technician asks for a further visit from the door; a call-back costs the work that it belongs to', async ({
  browser,
}) => {
  const ines = await sitDown(browser, 'ines')
  const office = await sitDown(browser, 'office')
  await ines
    .getByRole('listitem')
    .filter({ hasText: '✓ finished' })
    .first()
    .getByRole('link')
    .click()
  await ines.getByRole('button', { name: 'A further visit is needed…' }).click()
  await ines.getByLabel(/^What for/).fill('waits for a relief valve')
  await ines.getByRole('button', { name: 'Ask the office for a further visit' }).click()
  await expect(ines.getByText('A further visit is asked for')).toBeVisible()
  await office.goto('/schedule')
  await expect(
    office.locator('aside [data-visit]', { hasText: 'waits for a relief valve' }).first(),
  ).toBeVisible()
  await office.goto('/work')
  await office.goto(
    await office.evaluate(async () => {
      const { items } = (await (
        await fetch('/api/v1/work-orders?state=closed&limit=1')
      ).json()) as { items: { id: string }[] }
      return `/work/${items[0]!.id}`
    }),
  )
  const first = office.url()
  await office.getByRole('button', { name: 'Call-back…' }).click()
  await office.getByRole('button', { name: 'Put it among what needs a slot' }).click()
  await expect(
    office.getByRole('dialog').getByText('Write down what is wrong again.'),
  ).toBeVisible()
  await office.getByLabel('What is wrong again').fill('Drips again at the same joint')
  await office.getByRole('button', { name: 'Put it among what needs a slot' }).click()
  await expect(office.getByText(/Without charge: comes back to/)).toBeVisible()
  await office.goto(first)
  await expect(office.getByText('Had to be looked at again')).toBeVisible()
  quiet(office, /status of 422/)
})
test('territories come from a file, after a dry run; a break outside the day is refused beside it; reminders are sent once', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office', '/schedule/set-up')
  await office.locator('input[type=file][accept*=csv]').setInputFiles({
    name: 'areas.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('territory,postcode\nThe isles,05101-05103\n,05104\n'),
  })
  await expect(office.getByText('Line 3: The territory has no name.')).toBeVisible()
  await office.getByRole('button', { name: 'Keep 1 territory' }).click()
  await expect(office.getByRole('button', { name: 'Change The isles' })).toBeVisible()
  await office.getByRole('button', { name: 'Change Tobiah Renn' }).click()
  await enter(office.getByLabel('Mon, break from'), '06:00')
  await office.getByRole('dialog').getByRole('button', { name: 'Keep' }).click()
  await expect(office.getByRole('dialog')).toContainText('The break lies within the day')
  await enter(office.getByLabel('Mon, break from'), '12:15')
  await enter(office.getByLabel('Mon, break to'), '12:45')
  await office.getByRole('dialog').getByRole('button', { name: 'Keep' }).click()
  await expect(office.getByRole('row', { name: /^Tobiah Renn/ })).toContainText('break 12:15–12:45')
  await office.goto('/schedule?date=2026-11-30')
  await office.getByRole('button', { name: 'Remind customers…' }).click()
  const send = office.getByRole('button', { name: /^Remind \d+ customers?$/ })
  await send.click()
  await expect(office.getByRole('button', { name: 'Everybody has been told' })).toBeDisabled()
  quiet(office, /status of 422/)
})
test('needed now: who is near, sent in two keys; openings of a territory, and such as move others', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office')
  await callOf(office, 'fenn orchard', 'Fenn Orchard')
  await office.getByLabel('What is wrong').fill('No water in the packhouse')
  await chooseFrom(office.getByLabel('Openings of'), 'who serves The marsh')
  const rows = office
    .getByRole('row')
    .filter({ has: office.getByRole('button', { name: 'Hold', exact: true }) })
  await expect(rows.first().locator('td').nth(1)).toHaveText(/Piet|Rosa/)
  await office.getByLabel('others may move').check()
  await expect(rows.first()).toBeVisible()
  await office.getByRole('button', { name: 'Needed now: who is near?' }).click()
  const near = office.getByRole('table', { name: 'Who is near' })
  const send = near
    .getByRole('button', { name: /^Send / })
    .and(near.locator(':enabled'))
    .first()
  const who = (await send.getAttribute('aria-label'))!.slice(5)
  // What would be wrong with the time is on the screen before it is booked, and is booked with it.
  const checked = office.waitForResponse((r) => r.url().endsWith('/placements/check'))
  await send.click()
  await checked
  await expect(chosenIn(office.getByLabel('Technician'))).toHaveText(who)
  await expect(office.getByRole('button', { name: /^Book Tue, Nov 24/ })).toBeVisible()
  await office.keyboard.press('Control+Enter')
  await expect(office.getByText(/Booked as W-\d+/)).toBeVisible()
  quiet(office)
})
test('a time that nobody has yet stands in a row of its own and is given to somebody by keyboard', async ({
  browser,
}) => {
  const dispatch = await sitDown(browser, 'dispatch', '/schedule?date=2026-12-04')
  await expect(cards(dispatch).first()).toBeVisible()
  const id = (await cards(dispatch).first().getAttribute('data-visit'))!
  const card = dispatch.locator(`.lane [data-visit="${id}"]`)
  await card.focus()
  await dispatch.keyboard.press('Enter')
  await chooseFrom(sheet(dispatch).getByLabel('Technician'), 'nobody yet')
  await save(dispatch)
  const nobody = dispatch.getByRole('row', { name: /^Nobody yet/ })
  await expect(nobody.locator(`[data-visit="${id}"]`)).toBeVisible()
  await dispatch.keyboard.press('Escape')
  await card.focus()
  await dispatch.keyboard.press('ArrowUp')
  await dispatch.locator('[data-trying]').waitFor()
  await dispatch.keyboard.press('Enter')
  const anyway = dispatch.getByRole('button', { name: 'Place it all the same' })
  await expect(
    anyway.or(dispatch.getByRole('row', { name: /Gwil Harrow/ }).locator(`[data-visit="${id}"]`)),
  ).toBeVisible()
  if (await anyway.isVisible()) await anyway.click()
  await expect(nobody).toHaveCount(0)
  await expect(
    dispatch.getByRole('row', { name: /Gwil Harrow/ }).locator(`[data-visit="${id}"]`),
  ).toBeVisible()
})
