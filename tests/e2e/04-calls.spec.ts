// Calls and customers as the office manager lives with them: by keyboard, with people who ring again, ask on the web page, or are here twice.
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { expect, test, type Page } from '@playwright/test'
import {
  boxOf,
  chooseFrom,
  chosenIn,
  enter,
  findAnything,
  quiet,
  setClock,
  sitDown,
  leavesAllInOrder,
} from './people'

leavesAllInOrder()
test.beforeEach(() => setClock('2026-11-24T10:21'))

/** Everything that is pressed, counted: a chord is one key. */
function keys(page: Page) {
  let count = 0
  return {
    async press(key: string) {
      count++
      await page.keyboard.press(key)
    },
    async type(text: string) {
      count += text.length
      await page.keyboard.type(text)
    },
    count: () => count,
  }
}
const BOOK = /\/price-book\/whole/
const who = (page: Page) => page.getByLabel('Who is calling')

test('a call to booking by keyboard alone, in 25 keys or fewer', async ({ browser }) => {
  const office = await sitDown(browser, 'office')
  const k = keys(office)
  await k.press('n')
  await expect(who(office)).toBeFocused()
  await k.type('broadm')
  await expect(office.getByRole('option').first()).toContainText('Broadmere Hospitality')
  await expect(office.getByRole('option').first()).toContainText('by name')
  await k.press('Enter')
  await expect(office.getByLabel('What is wrong')).toBeFocused()
  await k.type('no water')
  await k.press('Alt+w')
  await expect(
    office.getByRole('slider', { name: /the day/ }).and(office.locator(':focus')),
  ).toBeVisible()
  const label = office.getByRole('button', { name: /^Book / })
  const first = await label.innerText()
  await k.press('ArrowLeft')
  await expect(label).not.toHaveText(first)
  await k.press('ArrowRight')
  await expect(label).toHaveText(first)
  await k.press('Control+Enter')
  await expect(office.getByText(/Booked as W-\d+/)).toBeVisible()
  await expect(office).toHaveURL(/schedule/)
  // The bench call-keys reads this line.
  process.stdout.write(`call-keys ${k.count()}\n`)
  expect(k.count()).toBeLessThanOrEqual(25)
  quiet(office)
})
test('a caller who is known already is found while being entered, and not entered twice', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office', '/calls/new')
  await who(office).fill('Mrs Pennywhistle')
  await office.getByRole('option', { name: /New customer/ }).click()
  await office.getByLabel('Name', { exact: true }).fill('Tunde Odouya')
  await office.getByLabel('Telephone').fill('6075550119')
  await office.getByLabel('Telephone').blur()
  await expect(office.getByLabel('Telephone')).toHaveValue('(607) 555-0119')
  const perhaps = office.getByText('Perhaps known already').locator('..')
  await expect(perhaps).toContainText('Tunde Oduya')
  await expect(perhaps).toContainText('same telephone number')
  await perhaps.getByRole('button', { name: 'It is them' }).first().click()
  await expect(office.getByRole('button', { name: 'Someone else' })).toBeVisible()
  quiet(office)
})
test('an empty time of the schedule becomes a call that holds it, through a reload, until the call is over', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office')
  const dispatch = await sitDown(browser, 'dispatch')
  await office.goto('/schedule?date=2026-11-28')
  await dispatch.goto('/schedule?date=2026-11-28')
  const lane = office.locator('[data-technician]').nth(1)
  await expect(lane).toBeVisible()
  const box = await boxOf(lane)
  await lane.click({ position: { x: box.width / 2, y: 30 } })
  await expect(chosenIn(office.getByLabel('Technician'))).toContainText('Tobiah')
  const start = await chosenIn(office.getByLabel('Start')).innerText()
  expect(start).toMatch(/^\d\d:\d\d$/)
  await expect(dispatch.getByText('still missing: customer, site, problem')).toBeVisible()
  await office.getByLabel('What is wrong').fill('wants Saturday')
  await expect(dispatch.getByText('still missing: customer, site', { exact: true })).toBeVisible()
  await office.reload()
  await expect(office.getByLabel('What is wrong')).toHaveValue('wants Saturday')
  await expect(chosenIn(office.getByLabel('Start'))).toHaveText(start)
  await office.getByRole('button', { name: 'No, because…' }).click()
  await office.getByLabel('Why').fill('somebody nearer')
  await office.getByRole('button', { name: 'End the call' }).click()
  await expect(dispatch.getByText(/^Held:/)).toHaveCount(0)
  quiet(office)
})
test('what was read out stays with the call: through a reload, without the server, and in a browser that has no book', async ({
  browser,
}) => {
  const read = (page: Page) => page.getByRole('table', { name: 'What it would cost' })
  const kept = (page: Page) => expect(page.getByText('kept as you type')).toBeVisible()
  const office = await sitDown(browser, 'office', '/calls/new')
  const search = office.getByLabel('Price to read out')
  await search.fill('relief valve')
  await expect(office.getByRole('list', { name: 'Found in the price book' })).toBeVisible()
  const name = await office.locator('li .take b').first().innerText()
  await search.press('Enter')
  await expect(read(office)).toContainText(name)
  await kept(office)
  const { pathname } = new URL(office.url())
  await office.route(BOOK, (asked) => asked.abort())
  await office.goto(pathname)
  await expect(read(office)).toContainText(name)

  const other = await sitDown(browser, 'office')
  await other.route(BOOK, (asked) => asked.abort())
  await other.goto(pathname)
  await expect(other.getByText('One thing that you read out could not be looked up')).toBeVisible()
  await other.getByLabel('What is wrong').fill('Salt bridge')
  await kept(other)
  await other.unroute(BOOK)
  await other.reload()
  await expect(read(other)).toContainText(name)
  await expect(other.getByLabel('What is wrong')).toHaveValue('Salt bridge')
})
test('a visit to quote wants a person, and the prospect’s row then says when', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office', '/calls/new')
  await who(office).fill('wexcombe')
  await office.getByRole('option', { name: /P. Wexcombe.*prospect/ }).click()
  await office.getByLabel('What is wrong').fill('A price for a softener')
  await chooseFrom(office.getByLabel('Kind of work'), 'quote visit')
  await office.getByRole('button', { name: /Book without a time to quote/ }).click()
  await expect(office.getByText('Choose who goes to quote').first()).toBeVisible()
  await office.getByRole('button', { name: 'Fri, Nov 27' }).click()
  await chooseFrom(office.getByLabel('Technician'), 'Tobiah Renn')
  // Who books before what speaks against it is known is told first, and presses again.
  const checked = office.waitForResponse((r) => r.url().endsWith('/placements/check'))
  await chooseFrom(office.getByLabel('Start'), '09:00')
  await checked
  await office.getByRole('button', { name: /Book Fri, Nov 27 09:00 to quote, Tobiah/ }).click()
  await expect(office.getByText(/Booked as W-/)).toBeVisible()
  await office.goto('/customers')
  await office.getByRole('button', { name: 'Prospects' }).click()
  await expect(office.getByRole('row', { name: /P. Wexcombe/ })).toContainText(
    'visit Fri, Nov 27, Tobiah Renn',
  )
  await expect(office.getByRole('row', { name: /Saltmarsh Nursery/ })).toContainText(
    'nobody has it yet',
  )
  quiet(office, /status of 422/)
})
test('stop work: said at once, booked only with a reason', async ({ browser }) => {
  const office = await sitDown(browser, 'office', '/calls/new')
  await who(office).fill('joiners')
  await office.keyboard.press('Enter')
  await expect(office.getByText('Stop work.', { exact: true })).toBeVisible()
  await office.getByLabel('What is wrong').fill('No water')
  await office.keyboard.press('Control+Enter')
  await expect(office.getByRole('alert')).toContainText('Say why it is booked all the same')
  await office.getByLabel('Booked all the same, because').fill('the owner agreed by telephone')
  await office.keyboard.press('Control+Enter')
  await expect(office).toHaveURL(/\/work\//)
  await expect(office.locator('aside')).toContainText(
    'in spite of the stop on work: the owner agreed by telephone',
  )
})
test('a request from the firm’s own web page, with a picture, arrives live and is answered', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office', '/calls')
  await expect(office.getByRole('heading', { name: /Calls/ })).toBeVisible()
  const visitor = await (await browser.newContext()).newPage()
  const firm = createServer((_, answer) =>
    answer
      .setHeader('Content-Type', 'text/html')
      .end(
        `<h1>Our firm</h1><iframe src="${process.env.TEST_URL}/request" width="700" height="900" title="Ask"></iframe>`,
      ),
  )
  await new Promise<void>((done) => firm.listen(0, '127.0.0.1', done))
  await visitor.goto(`http://127.0.0.1:${(firm.address() as AddressInfo).port}/`)
  const form = visitor.frameLocator('iframe')
  await expect(form.getByRole('button', { name: 'Send the request' })).toBeVisible()
  const opened = Date.now()
  await form.getByLabel('What do you need?').fill('The cellar pump runs all night')
  await form.getByLabel('Your name').fill('Hettie Lorne')
  await form.getByRole('button', { name: 'Send the request' }).click()
  await expect(form.getByRole('alert')).toContainText('leave a telephone number or a mail address')
  await expect(form.getByLabel('What do you need?')).toHaveValue('The cellar pump runs all night')
  await form.getByLabel('Telephone').fill('+44 20 7946 0922')
  await form.getByLabel(/Pictures/).setInputFiles({
    name: 'cellar.png',
    mimeType: 'image/png',
    buffer: Buffer.from(
      'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
      'base64',
    ),
  })
  // Faster than hands is taken for a robot: the page was drawn anew when it came back, so a person needs these seconds too.
  await expect.poll(() => Date.now() - opened).toBeGreaterThan(6000)
  await form.getByRole('button', { name: 'Send the request' }).click()
  await expect(form.getByRole('status')).toContainText('Thank you')
  const row = office.getByRole('row', { name: /Hettie Lorne, The cellar pump/ })
  await expect(row).toContainText('nobody has answered yet')
  await expect(row).toContainText('1 picture')
  await row.getByRole('link', { name: 'Answer' }).click()
  await expect(office.getByRole('heading', { name: 'Request' })).toBeVisible()
  await expect(office.getByLabel('Name', { exact: true })).toHaveValue('Hettie Lorne')
  await office.getByLabel('Address of the site').fill('8 Ferry Lane')
  await office.getByRole('button', { name: 'Keep this customer' }).click()
  await expect(office.getByRole('button', { name: 'Someone else' })).toBeVisible()
  await expect(office.getByRole('img', { name: 'cellar.png' })).toBeVisible()
  await office.keyboard.press('Control+Enter')
  await expect(office.getByRole('img', { name: 'Photo from the visit' })).toBeVisible()
  await visitor.context().close()
  firm.close()
})
test('two that are one: looked at, merged, undone; then told apart', async ({ browser }) => {
  const office = await sitDown(browser, 'office', '/customers/duplicates')
  const pair = office.getByRole('row', { name: /Oduya.*Oduya/ })
  await expect(pair).toContainText('same telephone number')
  await pair.getByRole('button', { name: 'Look at both' }).click()
  const dialog = office.getByRole('dialog')
  await expect(dialog).toContainText('Everything of')
  await expect(dialog).toContainText('1 site,')
  await dialog.getByRole('button', { name: /^Merge into/ }).click()
  await expect(office.getByText(/is now part of/)).toBeVisible()
  await expect(pair).toHaveCount(0)
  await office.getByRole('button', { name: 'Undo' }).click()
  await expect(pair).toBeVisible()
  await pair.getByRole('button', { name: 'Not the same' }).click()
  await expect(pair).toHaveCount(0)
  quiet(office)
})
test('an import: what the columns mean, what is wrong row by row, progress, undo; cards too; and what is no such file', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office', '/customers/import')
  const choose = (name: string, text: string | Buffer) =>
    office
      .locator('input[type=file]')
      .setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text) })
  await choose('letter.csv', Buffer.from([0x50, 0x4b, 3, 4, 0, 0, 0, 0]))
  await expect(office.getByRole('status')).toContainText('letter.csv: This is not a text file')
  await choose('huge.csv', Buffer.alloc(21_000_000, 'a'))
  await expect(office.getByRole('status')).toContainText('20 MB are taken here')
  const rows = Array.from(
    { length: 1200 },
    (_, i) =>
      `Row Customer ${String.fromCharCode(65 + (i % 26))}${i},row${i}@example.com,${i} Row Lane,Withy Cross`,
  )
  await choose(
    'neighbours.csv',
    [
      'Customer,E-mail,Street,City',
      ...rows,
      'Bad Mail,not a mail,,',
      'Hallam Dairy,hallam.dairy0@example.com,,',
    ].join('\n'),
  )
  await expect(office.getByRole('heading', { name: 'neighbours.csv: 1202 rows' })).toBeVisible()
  await expect(chosenIn(office.getByLabel('Meaning of Street'))).toHaveText('billing address')
  await office.getByRole('button', { name: 'Try it dry' }).click()
  await expect(office.getByText('1200 would be taken in, 2 left out.')).toBeVisible()
  await expect(office.getByRole('row', { name: /1202 Bad Mail/ })).toContainText(
    '“not a mail” is not a mail address.',
  )
  await expect(office.getByRole('row', { name: /1203 Hallam Dairy/ })).toContainText(
    'perhaps Hallam Dairy: same mail address',
  )
  await office.getByRole('button', { name: 'Take in 1200 customers' }).click()
  await expect(office.getByText('1200 customers taken in')).toBeVisible()
  await office.getByRole('button', { name: 'Undo the import' }).click()
  await expect(office.getByText('Taken back: 1200 customers taken out.')).toBeVisible()
  await choose(
    'phone.vcf',
    'BEGIN:VCARD\nVERSION:3.0\nN:Sedge;Marigold;;;\nFN:Marigold Sedge\nTEL;TYPE=CELL:607-555-0179\nEND:VCARD\n',
  )
  await expect(office.getByRole('heading', { name: 'phone.vcf: 1 rows' })).toBeVisible()
  await office.getByRole('button', { name: 'Try it dry' }).click()
  await office.getByRole('button', { name: 'Take in 1 customers' }).click()
  await expect(office.getByText('1 customers taken in')).toBeVisible()
  await findAnything(office, '555 0179')
  await expect(office.getByRole('option', { name: /Marigold Sedge/ })).toContainText(
    '(607) 555-0179',
  )
  quiet(office)
})
test('a customer’s page: sites, equipment, contacts, agreement; what changed is offered to the work order', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office', '/customers')
  await office.getByRole('textbox', { name: 'Name, town, number, tag' }).fill('peel daughters')
  await office.getByRole('link', { name: 'Peel & Daughters' }).click()
  await office.getByRole('link', { name: 'Book work' }).click()
  await office.getByLabel('What is wrong').fill('Boiler feed is low')
  await office.keyboard.press('Control+Enter')
  await expect(office).toHaveURL(/\/work\//)
  const work = office.url()
  await office.getByRole('link', { name: 'Peel & Daughters' }).click()

  await office.getByRole('button', { name: 'Add a site' }).click()
  const dialog = office.getByRole('dialog')
  await dialog.getByLabel('Town').fill('Lowmoor')
  await dialog.getByRole('button', { name: 'Same as the billing address' }).click()
  await expect(dialog.getByLabel('Town')).not.toHaveValue('Lowmoor')
  await dialog.getByLabel('Postcode').fill('04999')
  await dialog.getByRole('button', { name: 'Put back what stood here' }).click()
  await expect(dialog.getByLabel('Town')).toHaveValue('Lowmoor')
  await expect(dialog.getByLabel('Postcode')).toHaveValue('04999')
  await dialog.getByRole('button', { name: 'Same as the billing address' }).click()
  await dialog.getByLabel('Name of the site').fill('Drying hall')
  await dialog.getByLabel('Well depth, feet').fill('140')
  await dialog.getByRole('button', { name: 'Keep' }).click()
  const hall = office.locator('.place', { hasText: 'Drying hall' })
  await expect(hall).toContainText('Middle county')
  await expect(hall).toContainText('Well depth, feet: 140')
  await hall.getByRole('button', { name: '+ equipment' }).click()
  await dialog.getByRole('button', { name: 'Keep' }).click()
  await expect(dialog.getByText('Write what it is.').first()).toBeVisible()
  await dialog.getByLabel('What it is').fill('booster pump')
  await dialog.getByLabel('Serial number').fill('BP-40404')
  await enter(dialog.getByLabel('Warranty until'), '2027-05-01')
  await dialog.getByRole('button', { name: 'Keep' }).click()
  await expect(hall).toContainText('in warranty until Sat, May 1, 2027')
  await office.getByRole('button', { name: 'Add', exact: true }).first().click()
  await dialog.getByLabel('Name').fill('Hilde Peel')
  await dialog.getByLabel(/Role/).fill('accounts')
  await dialog.getByRole('button', { name: 'Keep' }).click()
  await expect(office.getByRole('button', { name: /Hilde Peel accounts/ })).toBeVisible()

  await office.getByRole('button', { name: 'Change', exact: true }).first().click()
  await dialog.getByLabel('Telephone', { exact: true }).fill('6075550176')
  await dialog.getByLabel('Tags, with commas between').fill('laundry, weekdays')
  await dialog.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(office.locator('h1')).toContainText('weekdays')
  await findAnything(office, 'bp 40404')
  await expect(office.getByRole('option', { name: /Peel & Daughters/ })).toContainText(
    'by serial number',
  )
  await office.keyboard.press('Escape')
  await office.goto(work)
  await expect(office.getByText('The customer’s details changed since')).toBeVisible()
  await office.getByRole('button', { name: 'Carry over' }).click()
  await expect(office.getByText('The customer’s details changed since')).toHaveCount(0)
  quiet(office)
})
test('visits due: chosen by territory, made in one act, waiting in the tray', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office', '/agreements')
  await chooseFrom(office.getByLabel('Due by the end of'), 'December 2026')
  const boxes = office.getByRole('checkbox', { name: /^Visit for/ }).and(office.locator(':enabled'))
  await expect(boxes.first()).toBeVisible()
  const row = office.getByRole('row').filter({ has: boxes.first() })
  const name = await row.getByRole('link').first().innerText()
  await boxes.first().check()
  await office.getByRole('button', { name: 'Make 1 visit' }).click()
  await expect(office.getByText('1 visit waits for a slot')).toBeVisible()
  await office.goto('/schedule')
  await expect(office.locator('aside [data-visit]', { hasText: name }).first()).toBeVisible()
  quiet(office)
})
test('set-up: a question of the firm’s own is asked at the next call, and its answer is on the work order', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office', '/set-up')
  await office.getByLabel('A further question').fill('Is the lane passable?')
  await chooseFrom(office.getByLabel('How it is answered'), 'yes or no')
  await office.getByRole('button', { name: 'Add' }).first().click()
  await expect(office.getByRole('row', { name: /^Is the lane passable/ })).toBeVisible()
  await office.goto('/calls/new')
  await who(office).fill('fenn orchard')
  await office.keyboard.press('Enter')
  await office.getByLabel('What is wrong').fill('Filter')
  await office
    .getByRole('group', { name: 'Is the lane passable?' })
    .getByRole('button', { name: 'no' })
    .click()
  await office.keyboard.press('Control+Enter')
  await expect(office.getByText('Is the lane passable?').locator('..')).toContainText('no')
  await office.goto('/set-up')
  await office
    .getByRole('row', { name: /^Is the lane passable/ })
    .getByRole('button', { name: 'Do not ask' })
    .click()
  await expect(office.getByRole('row', { name: /^Is the lane passable/ })).toContainText(
    'Ask again',
  )
})
test('a technician who types the address of a customer comes back to the day', async ({
  browser,
}) => {
  const ines = await sitDown(browser, 'ines')
  await ines.goto('/customers')
  await expect(ines).toHaveURL(/\/field/)
})
