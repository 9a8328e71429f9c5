// From an empty database to the first paid invoice, as one person who goes to customers does it, every keystroke counted.
import { expect, test } from '@playwright/test'
import { leavesAllInOrder, PHONE, quiet, setClock } from '../people'
import { counting } from './keys'

// What begins once is not tried again.
test.describe.configure({ retries: 0 })
leavesAllInOrder({ stay: true })
/** What the first hour may take of keys and presses. */
const MOST = 220

test('a firm begins, and is paid for its first work', async ({ browser }, info) => {
  test.setTimeout(300_000)
  setClock('2026-11-24T10:21')
  const context = await browser.newContext()
  const page = await context.newPage()
  const owner = counting(page)

  await test.step('who opens it is led to the beginning; a wrong code is told, and nothing is lost', async () => {
    await page.goto('/')
    await expect(page).toHaveURL(/\/begin$/)
    await page.getByLabel(/^The code/).fill('0000-0000-0000')
    await owner.type('Name of the firm', 'Marrow')
    await owner.type('Your name', 'T. Marrow')
    await owner.type('Your mail address', 't@marrow.test')
    await owner.type(/^Password/, 'otters swim on')
    await owner.press(page.getByText('I go to customers myself'))
    await owner.type('Its rate, per cent', '6')
    await page.getByRole('button', { name: 'Begin' }).click()
    await expect(page.getByText('This is not the code that was printed')).toBeVisible()
    await owner.type(/^The code/, process.env.BEGIN_CODE!)
    await owner.press('Begin')
    await expect(page).toHaveURL(/\/guide$/)
  })
  await test.step('the guide knows what is missing for what', async () => {
    const can = page.getByRole('list', { name: 'What can begin' })
    await expect(can.getByRole('listitem').filter({ hasText: 'Booking calls' })).toContainText(
      'when they work',
    )
    await expect(can.getByRole('listitem').filter({ hasText: 'Pricing work' })).toContainText(
      'prices',
    )
  })
  await test.step('prices, from what an hour costs', async () => {
    await owner.press('Begin with a short list')
    await owner.type(/^What you charge/, '90')
    await owner.press('Make the list')
    await expect(page.getByRole('listitem').filter({ hasText: 'Pricing work' })).toContainText(
      'can begin',
    )
  })
  await test.step('who we are, and how we are paid', async () => {
    await owner.press(page.getByRole('link', { name: 'Write them' }))
    await owner.type('Address', '2 Quay')
    await owner.type('Town', 'Larkmoor')
    await owner.type('Telephone', '6075550120')
    await owner.type('How we are paid', 'Cash')
    await owner.press('Keep what our papers say')
    await expect(page.getByLabel('Telephone')).toHaveValue('(607) 555-0120')
  })
  await test.step('when they work: the usual week is proposed', async () => {
    await owner.press(page.getByRole('link', { name: 'Hours' }))
    await owner.press('Change T. Marrow')
    await owner.press(page.getByRole('dialog').getByRole('button', { name: 'Keep', exact: true }))
    // While it stands over the page, the keys are its own.
    await expect(page.getByRole('dialog')).toHaveCount(0)
    await expect(page.getByText('no hours yet')).toHaveCount(0)
  })
  await test.step('a first call, of somebody nobody knows', async () => {
    await owner.key('n')
    await owner.type('Who is calling', 'Ada Reed')
    await expect(page.getByRole('option', { name: /New customer/ })).toBeVisible()
    await owner.key('Enter')
    await owner.type('Telephone', '6075550142')
    await owner.type('Address of the site', '7 Heron Way')
    await owner.type('Mail address', 'a@reed.test')
    await owner.press('Keep this customer')
    await expect(page.getByLabel('What is wrong')).toBeFocused()
    await owner.type('What is wrong', 'Drips')
    await owner.type('Price to read out', 'swap')
    await expect(page.getByRole('list', { name: 'Found in the price book' })).toContainText(
      'Replace a small part',
    )
    await owner.key('Enter')
    await expect(page.getByText('Before tax, about')).toBeVisible()
    await owner.press(page.getByRole('button', { name: /^Hold/ }))
    await expect(page.getByRole('button', { name: /^Book Tue, Nov 24/ })).toBeVisible()
    await owner.key('Control+Enter')
    await expect(page).toHaveURL(/schedule/)
  })
  const phoneContext = await browser.newContext({
    ...{ viewport: PHONE, hasTouch: true, storageState: await context.storageState() },
  })
  const phone = counting(await phoneContext.newPage(), owner.count)
  await test.step('on the phone: gone there, done, billed, paid', async () => {
    const { page: at } = phone
    await at.goto('/field')
    await phone.press(at.getByText('Ada Reed'))
    await phone.press('Set off')
    await phone.press('I have arrived')
    setClock('2026-11-24T11:10')
    await phone.press(at.getByRole('button', { name: /^Tick off/ }))
    await phone.press('Finish')
    await phone.press('Bill')
    await phone.press(at.getByRole('button', { name: /^Make and send invoice/ }))
    // An hour at 90, and six per cent.
    await phone.press('Take $95.40')
    await expect(at.getByText('Nothing is open on I-')).toBeVisible()
  })
  await test.step('the guide has it all; what is left only helps', async () => {
    await page.goto('/guide')
    const open = page.getByRole('list', { name: 'Steps' }).getByRole('listitem')
    await expect(open.filter({ has: page.getByLabel('not yet') })).toHaveText([/Areas/])
    await expect(page.getByText('can begin')).toHaveCount(5)
  })
  await test.step('a second owner finds the door shut', async () => {
    const late = await (await browser.newContext()).newPage()
    await late.goto('/begin')
    await expect(late.getByText('A firm is here already')).toBeVisible()
  })
  // Read by the bench.
  info.annotations.push({ type: 'keys', description: String(phone.count()) })
  expect(phone.count()).toBeLessThanOrEqual(MOST)
  quiet(page, /status of 422/)
  quiet(phone.page)
  setClock('2026-11-24T10:21')
})
