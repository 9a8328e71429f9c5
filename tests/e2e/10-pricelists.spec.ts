// The price book worked with all day: a grid of prices, price lists, suppliers, assemblies, several at once, without a signal, on paper.
import { expect, test, type Page } from '@playwright/test'
import {
  boxOf,
  moneyIn,
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
const grid = (page: Page) => page.getByRole('grid', { name: 'Price book' })
async function openGrid(page: Page, words: string) {
  await page.goto('/price-book')
  await page.getByRole('button', { name: 'Parts', exact: true }).click()
  await page.getByLabel('Code, name, category').fill(words)
  await expect(page.getByRole('row').nth(1)).toContainText(words.split(' ')[0]!, {
    ignoreCase: true,
  })
  await page.getByLabel('Code, name, category').press('Enter')
  await expect(grid(page)).toBeFocused()
}
/** The account of a work order that waits to be billed, where lines are added. */
async function addingToWork(page: Page) {
  await page.goto('/to-bill')
  await page.getByRole('link', { name: /^W-/ }).first().click()
  await page.getByRole('button', { name: 'Add line' }).click()
}
const cell = (page: Page, column: 'cost' | 'price', name: string) =>
  page.getByRole('gridcell', {
    name: new RegExp(`^${column} of ${name.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}:`),
  })
const found = (page: Page) =>
  page.getByRole('list', { name: 'Found in the price book' }).getByRole('listitem')

test('prices are typed, filled down and pasted as in a spreadsheet; what is no amount is said; looked at, kept, taken back', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office')
  await openGrid(office, 'gauge 60 psi')
  await expect(office.getByRole('row')).toHaveCount(4)
  const prices = () => office.getByRole('gridcell', { name: /^price of/ }).allTextContents()
  const paste = (text: string) =>
    grid(office).evaluate((el, words) => {
      const data = new DataTransfer()
      data.setData('text/plain', words)
      el.dispatchEvent(
        new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
      )
    }, text)
  const before = await prices()
  await office.keyboard.type('21.5')
  await office.keyboard.press('Enter')
  await office.keyboard.type('12,5')
  await office.keyboard.press('Enter')
  await expect(office.getByText('“12,5” is no amount')).toBeVisible()
  await expect(office.getByRole('button', { name: /Look at 2 changes/ })).toBeDisabled()
  await office.keyboard.press('Control+z')
  await expect(office.getByText('is no amount')).toHaveCount(0)
  // Fill down: from the first into all three.
  await office.keyboard.press('Home')
  await office.keyboard.press('Shift+End')
  await office.keyboard.press('Control+d')
  await expect.poll(prices).toEqual(['21.50', '21.50', '21.50'])
  // Two columns of a spreadsheet go into cost and price.
  await office.keyboard.press('Home')
  await office.keyboard.press('ArrowLeft')
  await paste('9.10\t22.00\r\n9.20\t23.00\r\n')
  await expect.poll(prices).toEqual(['22.00', '23.00', '21.50'])
  // What finds no place is said: a column too many, and rows below the last one.
  await paste('8\t20\t1\n8\t20\t1\n8\t20\t1\n8\t20\t1')
  await expect(
    office.getByText(
      'Not everything that was pasted has a place: 3 below the last row, 3 beside the last column.',
    ),
  ).toBeVisible()
  await office.keyboard.press('Control+z')
  await expect.poll(prices).toEqual(['22.00', '23.00', '21.50'])
  // A reload loses nothing of it.
  await office.reload()
  await expect(office.getByText('3 entries are typed over and not kept yet')).toBeVisible()
  await office.getByRole('button', { name: /Look at 3 changes/ }).click()
  await expect(office.getByText('Nothing has changed yet.')).toBeVisible()
  await expect(office.getByRole('cell', { name: /→ 9\.20$/ })).toBeVisible()
  for (const question of await office.getByLabel(/it is meant/).all()) await question.check()
  await office.getByRole('button', { name: /^Change \d+ prices$/ }).click()
  await expect(office.getByText('prices changed.')).toBeVisible()
  await office.getByRole('button', { name: 'Parts', exact: true }).click()
  await office.getByLabel('Code, name, category').fill('gauge 60 psi')
  await expect.poll(prices).toEqual(['22.00', '23.00', '21.50'])
  await office.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect.poll(prices).toEqual(before)
  quiet(office)
})
test('a cost that is typed proposes a price where the price is fixed: kept, or by the rule', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office')
  await openGrid(office, 'gauge 200 psi, dry')
  await office.keyboard.type('40')
  await office.keyboard.press('Enter')
  await office.getByRole('button', { name: /Look at 1 change/ }).click()
  for (const question of await office.getByLabel(/it is meant/).all()) await question.check()
  await office.getByRole('button', { name: /^Change \d+ prices?$/ }).click()
  await expect(office.getByText(/prices? changed\./)).toBeVisible()
  await openGrid(office, 'gauge 200 psi, dry')
  await office.keyboard.press('ArrowLeft')
  await office.keyboard.type('30')
  await office.keyboard.press('Enter')
  await expect(cell(office, 'price', 'Pressure gauge 200 psi, dry')).toHaveText('40.00')
  await office.getByRole('button', { name: /Look at 1 change/ }).click()
  // 30 × 1.8 (common practice of the trade: cost × its step).
  await office.getByRole('button', { name: /follow the rule: 54\.00/ }).click()
  await expect(
    office
      .getByRole('row')
      .filter({ hasText: 'Pressure gauge 200 psi, dry' })
      .getByRole('cell')
      .nth(4),
  ).toHaveText('54.00')
  await office.getByRole('button', { name: '← Go on typing' }).click()
  await office.getByRole('button', { name: 'Forget them' }).click()
  // The same beside an entry that is opened.
  await office.getByRole('link', { name: /^P-/ }).first().click()
  await office.getByLabel('Cost', { exact: true }).fill('30')
  await expect(office.getByText(/By the rule it would be 54\.00 instead of 40\.00/)).toBeVisible()
  await office.getByRole('button', { name: 'Take that price' }).click()
  await expect(office.getByLabel('Price', { exact: true })).toHaveValue('54.00')
  await office.getByRole('button', { name: 'Keep this entry' }).click()
  await expect(office.getByRole('button', { name: 'Keep this entry' })).toBeDisabled()
  quiet(office)
})
test('two people in the grid: what the one kept is marked beside what the other types', async ({
  browser,
}) => {
  const [office, owner] = [await sitDown(browser, 'office'), await sitDown(browser, 'owner')]
  for (const page of [office, owner]) await openGrid(page, 'gauge 100 psi, filled')
  await office.keyboard.type('31')
  await office.keyboard.press('Enter')
  await owner.keyboard.type('32')
  await owner.keyboard.press('Control+Enter')
  await owner.keyboard.press('Enter')
  await owner.getByRole('button', { name: /Look at 1 change/ }).click()
  await owner.getByRole('button', { name: /^Change \d+ prices?$/ }).click()
  await expect(owner.getByText(/prices? changed\./)).toBeVisible()
  await expect(cell(office, 'price', 'Pressure gauge 100 psi, filled')).toHaveAccessibleName(
    /Somebody made this 32\.00 since you typed here/,
  )
  await expect(cell(office, 'price', 'Pressure gauge 100 psi, filled')).toHaveText('31.00')
  await owner.getByRole('button', { name: 'Undo', exact: true }).click()
  quiet(office)
  quiet(owner)
})
test('a supplier’s list: its columns, what would change, what is wrong row by row; taken in, taken back; known the next time', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office', '/price-book/lists')
  const choose = (name: string, text: string) =>
    office
      .locator('input[type=file]')
      .setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text) })
  await choose('picture.csv', '\u0000\u0001')
  await expect(office.getByRole('status')).toContainText('not a text file')
  await office.getByLabel('Whose list').fill('Northmoor Supply')
  await office.getByLabel('Whose list').press('Tab')
  await choose(
    'spring.csv',
    'Part No.;Item text;Your net;Stock\r\nNM-10001;Pump;"$1,000.00";4\r\nNM-10003;Pump;on request;0\r\nNM-77777;Torque arrestor 6 in;21.40;9\r\n',
  )
  await chooseFrom(office.getByLabel('Meaning of Item text'), 'leave out')
  await chooseFrom(office.getByLabel('Meaning of Your net'), 'cost')
  await office.getByRole('button', { name: 'Look at it first' }).click()
  // Without its name, what is new cannot be taken in.
  await expect(office.getByRole('row', { name: /^4 NM-77777/ })).toContainText('There is no name.')
  await expect(office.getByRole('row', { name: /^3 P-1003/ })).toContainText(
    '“on request” is no amount',
  )
  await chooseFrom(office.getByLabel('Meaning of Item text'), 'name')
  await chooseFrom(office.getByLabel('Meaning of Item text'), 'synonyms')
  await chooseFrom(office.getByLabel('Meaning of Item text'), 'name')
  await office.getByRole('button', { name: 'Look at it first' }).click()
  const sums = office.getByRole('status').filter({ hasText: 'left out, something is wrong' })
  await expect(sums).toContainText('1 new')
  await expect(sums).toContainText('1 left out')
  for (const question of await office.getByLabel(/it is meant/).all()) await question.check()
  await office.getByRole('button', { name: /^Take in 2 rows$/ }).click()
  await expect(office.getByText('1 new and 1 changed')).toBeVisible()
  // The same source: its columns are known.
  await choose('summer.csv', 'Part No.;Item text;Your net;Stock\r\nNM-10001;Pump;1100;4\r\n')
  await expect(office.getByText('columns as the last time')).toBeVisible()
  await expect(chosenIn(office.getByLabel('Meaning of Your net'))).toHaveText('cost')
  await office.getByRole('button', { name: 'Undo spring.csv' }).click()
  await expect(office.getByText('Taken back.')).toBeVisible()
  await office.goto('/price-book')
  await office.getByLabel('Code, name, category').fill('NM-77777')
  await expect(office.getByText('Nothing fits these words.')).toBeVisible()
  quiet(office)
})
test('a short list that is taken for the whole of it is asked about before anything is retired', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office', '/price-book/lists')
  await office.locator('input[type=file]').setInputFiles({
    name: 'short.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('code,name\r\nP-1001,A pump of another name\r\n'),
  })
  await chooseFrom(office.getByLabel('What is no longer on the list'), 'is retired')
  await office.getByRole('button', { name: 'Look at it first' }).click()
  const take = office.getByRole('button', { name: /^Take in 1 row and retire \d{4}$/ })
  await expect(take).toBeDisabled()
  await office.getByLabel(/This list leaves out \d+ entries and names 1/).check()
  await expect(take).toBeEnabled()
  await chooseFrom(office.getByLabel('What is no longer on the list'), 'stays in the book')
  await expect(take).toHaveCount(0)
  quiet(office)
})
test('from a supplier: searched, compared, put into a basket, and it becomes a line at our markup', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office')
  await addingToWork(office)
  await office.getByRole('button', { name: 'From a supplier…' }).click()
  const sheet = office.getByRole('dialog', { name: 'From a supplier' })
  await sheet.getByLabel('Search their catalogue').fill('heat tape 24')
  await expect(sheet.getByRole('row').nth(1)).toContainText('Heat tape 24 ft')
  await sheet.getByRole('button', { name: 'Compare' }).first().click()
  await expect(
    sheet
      .getByRole('table', { name: /at every supplier/ })
      .getByRole('row')
      .first(),
  ).toBeVisible()
  const price = moneyIn(await sheet.getByRole('row').nth(1).getByRole('cell').nth(4).textContent())
  await sheet
    .getByRole('button', { name: /^Put Heat tape/ })
    .first()
    .click()
  await sheet.getByLabel(/^How many: Heat tape/).fill('2')
  await sheet.getByRole('button', { name: 'Take 1 line over' }).click()
  await expect(sheet).toBeHidden()
  const line = office.getByRole('row').filter({ hasText: 'Heat tape 24 ft' }).last()
  await expect(line).toContainText('Northmoor Supply NM-')
  await expect(line.getByRole('cell').nth(2)).toHaveText((price * 2).toFixed(2))
  quiet(office)
})
test('not in the book: written on the work order alone, or kept in the book as well; on a quote it keeps what it costs', async ({
  browser,
}) => {
  // All of it may be given away by the owner alone.
  const office = await sitDown(browser, 'owner')
  await addingToWork(office)
  await office.getByRole('button', { name: 'Not in the book…' }).click()
  const own = office.getByRole('form', { name: 'A line of its own' })
  await own.getByRole('button', { name: 'Add the line' }).click()
  await expect(own.getByText('Write what it is.')).toBeVisible()
  await own.getByLabel('What it is').fill('Odd adapter for an old well')
  await own.getByLabel('Price of one').fill('18,20')
  await own.getByRole('button', { name: 'Add the line' }).click()
  await expect(office.getByText('Write the price as a number, for example 48.60.')).toBeVisible()
  await expect(own.getByLabel('What it is')).toHaveValue('Odd adapter for an old well')
  await own.getByLabel('Price of one').fill('18.20')
  await own.getByLabel('Keep it in the price book, too').check()
  const code = `ODD-${Date.now() % 1e6}`
  await own.getByLabel('Code').fill(code)
  await own.getByLabel('Category').fill('Odd things')
  await own.getByRole('button', { name: 'Add the line' }).click()
  const line = office.getByRole('row').filter({ hasText: 'Odd adapter for an old well' })
  await expect(line).toContainText('1 × 18.20')
  await expect(own).toBeHidden()
  // The name may change here, and the book's stays.
  await line.getByRole('button', { name: 'Change' }).click()
  await office.getByLabel('Called, here only').fill('Adapter, made to measure')
  await office.getByLabel('Called, here only').press('Enter')
  await expect(
    office.getByRole('row').filter({ hasText: 'Adapter, made to measure' }),
  ).toBeVisible()
  // Goodwill: a tenth off all that is open.
  const before = moneyIn(
    await office.getByRole('button', { name: /^Bill what is open/ }).textContent(),
  )
  await office.getByRole('button', { name: 'Discount…' }).click()
  await office.getByLabel(/^Take off all that is not billed/).fill('a tenth')
  await office.getByRole('button', { name: 'Take it off' }).click()
  await expect(
    office.getByText('Write an amount or a percentage, for example 25.00 or 10 %.').first(),
  ).toBeVisible()
  await office.getByLabel(/^Take off all that is not billed/).fill('100 %')
  await office.getByRole('button', { name: 'Take it off' }).click()
  await expect(office.getByRole('button', { name: /^Bill what is open/ })).toHaveCount(0)
  await office.getByRole('button', { name: 'Discount…' }).click()
  await office.getByLabel(/^Take off all that is not billed/).fill('0')
  await office.getByRole('button', { name: 'Take it off' }).click()
  await expect
    .poll(async () =>
      moneyIn(await office.getByRole('button', { name: /^Bill what is open/ }).textContent()),
    )
    .toBe(before)
  await office.goto('/price-book')
  await office.getByLabel('Code, name, category').fill(code)
  await expect(office.getByRole('row').nth(1)).toContainText('Odd adapter for an old well')
  await office.goto('/quotes')
  await office.getByRole('row').filter({ hasText: 'draft' }).getByRole('link').first().click()
  await office.getByRole('button', { name: 'Not in the book…' }).click()
  await own.getByLabel('What it is').fill(`A frame for ${code}`)
  await own.getByLabel('Price of one').fill('90')
  await own.getByLabel('Costs us').fill('41')
  await own.getByRole('button', { name: 'Add the line' }).click()
  const offered = office.getByRole('row').filter({ hasText: `A frame for ${code}` })
  await expect(offered).toContainText('cost 41')
  await offered.getByLabel(/^Quantity of/).fill('2')
  await offered.getByLabel(/^Quantity of/).press('Tab')
  await expect(offered.getByLabel(/^Quantity of/)).toHaveValue('2')
  await expect(offered).toContainText('cost 41')
  // That the discount was refused is written by the browser itself.
  quiet(office, /422/)
})
test('several at once and an assembly, by keyboard; what is read out at a weekend costs more by its labour', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office')
  await office.keyboard.press('n')
  await office.getByLabel('Price to read out').fill('elbow 3/4 brass')
  await expect(found(office).first()).toContainText('Elbow ¾ in, brass')
  await office.keyboard.press('Shift+Enter')
  await office.getByLabel('Price to read out').fill('tee 3/4 brass')
  await expect(found(office).first()).toContainText('Tee ¾ in, brass')
  await office.keyboard.press('Shift+Enter')
  await expect(office.getByText('2 chosen')).toBeVisible()
  await office.getByLabel('Price to read out').fill('A-2')
  await expect(found(office).first()).toContainText('Spring check of a well')
  await office.keyboard.press('Enter')
  const row = (name: string) => office.getByRole('row').filter({ hasText: name })
  await expect(row('Spring check of a well')).toContainText('becomes 3 lines')
  await expect(row('Elbow ¾ in, brass')).toBeVisible()
  await expect(row('Tee ¾ in, brass')).toBeVisible()
  const total = row('Before tax, about')
  const weekday = moneyIn(await total.textContent())
  await enter(office.getByLabel('Day', { exact: true }), '2026-11-28')
  await chooseFrom(office.getByLabel('Start'), '10:00')
  await expect.poll(async () => moneyIn(await total.textContent())).toBeGreaterThan(weekday)
  quiet(office)
})
test('on the phone: pictures and large targets, kept at hand for one’s own, and found without a signal', async ({
  browser,
}) => {
  const ines = await sitDown(browser, 'ines')
  await ines.getByRole('link').filter({ hasText: 'Tarn View School' }).first().click()
  await ines.getByRole('button', { name: '+ Price book' }).click()
  await ines.getByLabel('Search the price book').fill('pressure tank 62 epoxy')
  await expect(found(ines).first()).toContainText('62 gal')
  await expect(found(ines).first().locator('img')).toBeVisible()
  for (const button of await found(ines).first().getByRole('button').all())
    expect((await button.boundingBox())!.height).toBeGreaterThanOrEqual(48)
  await found(ines)
    .first()
    .getByRole('button', { name: /at hand for me/ })
    .click()
  await ines.getByLabel('Search the price book').fill('')
  await expect(
    ines.getByRole('list', { name: 'Charges at hand' }).getByRole('listitem').first(),
  ).toContainText(/Relief valve|filter cartridges|62 gal/i)
  await expect(ines.getByRole('list', { name: 'Charges at hand' })).toContainText('62 gal')
  // A supplier's catalogue fits on the phone: whatever is pressed stands on the screen.
  await ines.getByRole('button', { name: 'From a supplier…' }).click()
  const sheet = ines.getByRole('dialog', { name: 'From a supplier' })
  await sheet.getByRole('button', { name: 'Compare' }).first().click()
  await expect(sheet.getByRole('button', { name: /^Put it in from/ }).first()).toBeVisible()
  for (const button of [
    sheet.getByRole('button', { name: /^Put it in from/ }).first(),
    sheet.getByRole('button', { name: /basket$/ }).first(),
  ]) {
    const box = await boxOf(button)
    expect(box.x + box.width).toBeLessThanOrEqual(390)
  }
  await sheet.getByRole('button', { name: 'Close' }).click()
  await expect(sheet).toBeHidden()
  await ines.context().setOffline(true)
  await ines.getByLabel('Search the price book').fill('presure swich 40/60')
  await expect(found(ines).first()).toContainText('pressure switch 40/60', { ignoreCase: true })
  await ines.context().setOffline(false)
})
/** How much of the book the browser keeps. */
const kept = (page: Page) =>
  page.evaluate(
    () =>
      new Promise<number>((done, fail) => {
        const open = indexedDB.open('keyval-store')
        open.onerror = () => fail(new Error('no store'))
        open.onsuccess = () => {
          const count = open.result.transaction('keyval').objectStore('keyval').count()
          count.onsuccess = () => {
            open.result.close()
            done(count.result)
          }
        }
      }),
  )
test('signing out leaves nothing of the book in the browser, also where nothing was searched since', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office')
  await openGrid(office, 'gauge 60 psi')
  await expect.poll(() => kept(office)).toBe(1)
  await office.goto('/to-bill')
  await office.getByRole('button', { name: 'Sign out' }).click()
  await expect(office).toHaveURL(/sign-in/)
  expect(await kept(office)).toBe(0)
})
test('a session that ended by itself leaves nothing of the book either, and goes on where it was', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office')
  await openGrid(office, 'gauge 60 psi')
  await expect.poll(() => kept(office)).toBe(1)
  await office.context().clearCookies()
  await office.getByRole('link', { name: /^To bill/ }).click()
  const again = office.getByRole('dialog', { name: 'Your session has ended' })
  await expect(again).toBeVisible()
  await expect.poll(() => kept(office)).toBe(0)
  await again.getByLabel('Password').fill('open-ledger')
  await again.getByRole('button', { name: 'Sign in' }).click()
  await expect(again).toBeHidden()
  await expect(office.getByRole('heading', { name: /^To bill/ })).toBeVisible()
  await expect(office.getByRole('row').nth(2)).toBeVisible()
})
test('how the book is used: hours as they were worked are taken and given back; what nobody sells is retired and brought back', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office', '/price-book/usage')
  await expect(office.getByRole('row').nth(1)).toBeVisible()
  await office.getByRole('button', { name: /^Hours, quoted and worked/ }).click()
  const take = office.getByRole('button', { name: /^Let .* take \d+:\d\d$/ })
  const open = await take.count()
  await take.first().click()
  await expect(office.getByText('has the hours that were worked')).toBeVisible()
  await expect(take).toHaveCount(open - 1)
  await office.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(take).toHaveCount(open)
  await office.getByRole('button', { name: 'What nobody sells' }).click()
  const box = office.getByRole('checkbox').first()
  const name = await box.locator('xpath=ancestor::label').innerText()
  await box.check()
  await office.getByRole('button', { name: 'Retire 1' }).click()
  await expect(office.getByLabel(name)).toHaveCount(0)
  await office.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(office.getByLabel(name)).toBeVisible()
  await office.getByRole('button', { name: /^Easily mistaken/ }).click()
  await expect(
    office.getByRole('row').filter({ hasText: 'Relief valve 100 psi, ¾ in' }),
  ).toBeVisible()
  quiet(office)
})
test('an assembly is built of entries and priced from them; rates of one work order; the book on paper', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office', '/price-book/new')
  await chooseFrom(office.getByLabel('Kind'), 'Assembly of several')
  await office.getByRole('textbox', { name: /^Code/ }).fill('A-TRY')
  await office.getByLabel(/^Category/).fill('Assemblies / Tried')
  await office.getByLabel('Name', { exact: true }).fill('Two small things')
  for (const words of ['elbow 1 in brass', 'tee 1 in brass']) {
    await office.getByLabel('Put something in').fill(words)
    await expect(found(office).first()).toContainText('1 in, brass')
    await office.keyboard.press('Enter')
  }
  await expect(office.getByRole('table', { name: 'Its price' }).locator('tbody tr')).toHaveCount(2)
  await office.getByRole('button', { name: 'Keep this entry' }).click()
  await expect(office.getByRole('heading', { name: /Two small things/ })).toContainText('A-TRY')
  await office.goto('/price-book')
  await chooseFrom(office.getByLabel('Category', { exact: true }), 'Assemblies / Tried')
  await expect(office.getByRole('row')).toHaveCount(2)
  await office.getByRole('button', { name: 'On paper…' }).click()
  const href = await office.getByRole('link', { name: 'Open the PDF' }).getAttribute('href')
  expect((await office.request.get(href!)).headers()['content-type']).toContain('pdf')
  await office.keyboard.press('Escape')
  await office.goto('/to-bill')
  await office.getByRole('link', { name: /^W-/ }).first().click()
  await office.getByText('Rates of this work order').click()
  await office.getByLabel('Labour, standard, on this work order only').fill('101')
  await office.getByRole('button', { name: 'Keep these rates' }).click()
  await expect(office.getByText('Rates of this work order · Labour, standard 101.00')).toBeVisible()
  quiet(office)
})
