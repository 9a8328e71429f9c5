// The whole path as one story: a call is booked, dispatched, worked, priced, signed, invoiced, paid, and what is not paid is chased.
import { expect, test, type Page } from '@playwright/test'
import {
  boxOf,
  chooseFrom,
  enter,
  findAnything,
  moneyIn,
  quiet,
  setClock,
  sitDown,
  stop,
  leavesAllInOrder,
} from './people'

leavesAllInOrder()
test('from a telephone call to money in the bank', async ({ browser }) => {
  test.setTimeout(400_000)
  setClock('2026-11-24T10:21')
  const office = await sitDown(browser, 'office')
  const dispatch = await sitDown(browser, 'dispatch')
  const rosa = await sitDown(browser, 'rosa')
  const books = await sitDown(browser, 'books')

  await test.step('call: by keyboard, with a customer who is not known', async () => {
    await office.keyboard.press('n')
    await expect(office.getByLabel('Who is calling')).toBeFocused()
    await office.getByLabel('Who is calling').fill('Wilhelmina Thrapp')
    await expect(office.getByRole('option', { name: /New customer/ })).toBeVisible()
    await office.keyboard.press('Enter')
    await office.getByLabel('Telephone').fill('(607) 555-0188')
    await office.getByLabel('Address of the site').fill('7 Heron Way')
    await office.getByLabel('Town').fill('Withy Cross')
    await office.getByLabel('Mail address').fill('thrapp@example.com')
    await office.getByRole('button', { name: 'Keep this customer' }).click()
    await expect(office.getByLabel('What is wrong')).toBeFocused()
    await office.keyboard.type('Pump starts and stops every minute')
    await office.getByLabel('Price to read out').fill('presure switch 40/60')
    await expect(office.getByRole('list', { name: 'Found in the price book' })).toContainText(
      'Replace pressure switch 40/60',
    )
    await office.getByLabel('Price to read out').press('Enter')
    await expect(office.getByText('With a care agreement')).toBeVisible()
  })
  await test.step('call: a reload in the middle loses nothing', async () => {
    await expect(office.getByRole('status').filter({ hasText: 'kept as you type' })).toBeVisible()
    await office.reload()
    await expect(office.getByLabel('What is wrong')).toHaveValue(
      'Pump starts and stops every minute',
    )
    await expect(office.locator('.who b', { hasText: 'Wilhelmina Thrapp' })).toBeVisible()
    await expect(office.getByText('Replace pressure switch 40/60').first()).toBeVisible()
  })
  let number = ''
  await test.step('call: one key books it', async () => {
    await chooseFrom(office.getByLabel('Technician'), 'Rosa Illing')
    await chooseFrom(office.getByLabel('Start'), '15:30')
    await chooseFrom(office.getByLabel('Takes'), '1:00')
    await expect(office.getByRole('button', { name: /Book Tue, Nov 24 15:30, Rosa/ })).toBeVisible()
    await office.keyboard.press('Control+Enter')
    await expect(office).toHaveURL(/schedule/)
    number = /W-\d+/.exec(await office.getByText(/Booked as W-\d+/).innerText())![0]
  })
  const onBoard = (page: Page) => page.locator('[data-visit]', { hasText: 'Wilhelmina Thrapp' })
  await test.step('schedule: the dispatcher sees it at once, moves it by keyboard, takes that back', async () => {
    await expect(onBoard(dispatch)).toBeVisible()
    const before = await onBoard(dispatch).getAttribute('aria-label')
    await onBoard(dispatch).focus()
    await dispatch.keyboard.press('ArrowRight')
    await dispatch.locator('[data-trying]').waitFor()
    await dispatch.keyboard.press('Enter')
    await expect(onBoard(office)).toHaveAttribute('aria-label', /15:45/)
    await dispatch.keyboard.press('Control+z')
    await expect(onBoard(office)).toHaveAttribute('aria-label', before!)
  })
  await test.step('on site: what was open before is finished first; set off, arrive, pause, go on', async () => {
    await expect(rosa.getByText('Wilhelmina Thrapp')).toBeVisible()
    setClock('2026-11-24T15:05')
    await rosa.getByText('Wilhelmina Thrapp').click()
    await rosa.getByRole('button', { name: 'Set off' }).click()
    await expect(rosa.getByText('Driving since 15:05')).toBeVisible()
    setClock('2026-11-24T15:26')
    await rosa.getByRole('button', { name: 'I have arrived' }).click()
    await expect(rosa.getByText('On site since 15:26')).toBeVisible()
    await expect(rosa.getByText('drove 21 min')).toBeVisible()
    await rosa.getByRole('button', { name: 'Pause' }).click()
    setClock('2026-11-24T15:36')
    await rosa.getByRole('button', { name: 'Go on' }).click()
    await expect(stop(office, 'On site')).toContainText('4')
  })
  await test.step('price: from the price book, with a price for this work order only', async () => {
    await rosa.getByRole('button', { name: '+ Price book' }).click()
    await rosa.getByLabel('Search the price book').fill('relief valve ¾ 75')
    await rosa.getByRole('button', { name: /Relief valve ¾ in, 75 psi P-/ }).click()
    await expect(rosa.getByText('Added: Relief valve')).toBeVisible()
    await rosa.getByRole('button', { name: 'Back to the lines' }).click()
    await rosa.getByRole('button', { name: /^Relief valve/ }).click()
    await rosa.getByLabel('Quantity').fill('2')
    await rosa.getByLabel('Each, on this work order only').fill('40.00')
    await rosa.getByRole('button', { name: 'Keep' }).click()
    await expect(rosa.getByRole('button', { name: /^Relief valve/ })).toContainText('80.00')
    await rosa.getByRole('button', { name: /^Replace pressure switch/ }).click()
    await rosa.getByRole('button', { name: 'Done', exact: true }).click()
    await expect(rosa.getByText('promised, not done yet')).toHaveCount(0)
    await expect(rosa.getByText('With a care agreement')).toBeVisible()
    await expect(rosa.getByText(/cost/i)).toHaveCount(0)
  })
  let total = 0
  await test.step('agree: the customer reads, signs and types a name', async () => {
    await rosa.getByRole('button', { name: 'Show the customer' }).click()
    total = moneyIn(await rosa.getByRole('button', { name: /I agree to/ }).innerText())
    await rosa.getByLabel('Your name').fill('W. Thrapp')
    await rosa.getByRole('button', { name: /I agree to/ }).click()
    await expect(rosa.getByText('Sign in the box first.').first()).toBeVisible()
    const box = await boxOf(rosa.getByLabel('Signature'))
    await rosa.mouse.move(box.x + 30, box.y + 90)
    await rosa.mouse.down()
    for (const [x, y] of [
      [90, 40],
      [140, 120],
      [200, 50],
      [260, 100],
    ] as const)
      await rosa.mouse.move(box.x + x, box.y + y, { steps: 4 })
    await rosa.mouse.up()
    await rosa.getByRole('button', { name: /I agree to/ }).click()
    await expect(rosa.getByText(/✓ W. Thrapp signed for/)).toBeVisible()
  })
  await test.step('account: minutes that no line covers are found, and charged', async () => {
    setClock('2026-11-24T17:40')
    await rosa.getByRole('button', { name: 'Finish' }).click()
    await expect(rosa.getByText(/minutes were worked that no line charges for/)).toBeVisible()
    const charge = rosa.getByRole('button', { name: /^Charge/ })
    total += moneyIn(await charge.innerText()) * 1.04
    await charge.click()
    await expect(rosa.getByText(/minutes were worked/)).toHaveCount(0)
    await expect(stop(office, 'To bill')).toContainText('$')
  })
  await test.step('invoice: one act makes and sends it', async () => {
    await rosa.getByRole('button', { name: 'Bill', exact: true }).click()
    const make = rosa.getByRole('button', { name: /Make and send invoice/ })
    // The minutes came after the signature.
    await make.click()
    await expect(rosa.getByText(/More is billed than the customer agreed to/).first()).toBeVisible()
    await rosa.getByLabel('Why it is billed all the same').fill('It took longer, they watched')
    expect(moneyIn(await make.innerText())).toBeCloseTo(total, 1)
    await make.click()
    await expect(rosa.getByRole('heading', { name: /Invoice I-\d+/ })).toBeVisible()
    await expect(rosa.getByText(/Mail to thrapp@example.com/)).toBeVisible()
  })
  await test.step('payment: cash 100.00 and a cheque for the rest, which is proposed', async () => {
    // The sheet is there already: whoever bills at the door is paid there.
    await rosa.getByLabel('Amount').fill('100.00')
    await rosa.getByRole('button', { name: 'Take $100.00' }).click()
    await expect(rosa.getByText('$100.00 by cash, receipt R-')).toBeVisible()
    const rest = await rosa.getByLabel('Amount').inputValue()
    expect(Number(rest)).toBeGreaterThan(0)
    await rosa.getByRole('button', { name: /^Take \$/ }).click()
    await expect(rosa.getByText('Write the number of the cheque.')).toBeVisible()
    await rosa.getByLabel('Number of the cheque').fill('1182')
    await rosa.getByRole('button', { name: /^Take \$/ }).click()
    await expect(rosa.getByText('Nothing is open on I-')).toBeVisible()
    await rosa.getByRole('button', { name: 'Done' }).click()
    await expect(rosa.getByText('paid · open $0.00')).toBeVisible()
  })
  await test.step('account: four columns that agree, who signed, what happened', async () => {
    await findAnything(office, number)
    await expect(office.getByRole('option').first()).toContainText(number)
    await office.keyboard.press('Enter')
    await expect(office.getByRole('heading', { name: new RegExp(number) })).toContainText('closed')
    const sums = (
      await office.getByRole('table', { name: 'The account' }).locator('.double').allInnerTexts()
    ).map(moneyIn)
    expect(sums[1]).toBe(sums[2])
    expect(sums[2]).toBe(sums[3])
    await expect(office.getByText('W. Thrapp', { exact: true })).toBeVisible()
    for (const said of [
      'Call taken',
      'Set off',
      'Arrived',
      'Signed by W. Thrapp',
      'Invoice I-',
      'paid by cheque (1182)',
    ])
      await expect(office.locator('aside')).toContainText(said)
  })
  await test.step('mail: the receipt and the invoice are in the list, delivered', async () => {
    await office.goto('/messages')
    await office.getByRole('textbox', { name: 'Address, subject, customer' }).fill('thrapp')
    await expect(
      office.getByRole('row', { name: /thrapp@.*invoice I-\d+.*invoice PDF.*delivered/i }),
    ).toBeVisible()
    await expect(office.getByRole('row', { name: /thrapp@.*receipt R-\d+/ }).first()).toBeVisible()
  })
  await test.step('unpaid: promise, reminder, payment; every figure follows', async () => {
    await expect(books.getByText('agrees with the books')).toBeVisible()
    await books.getByRole('row', { name: /Crossways Estate/ }).click()
    const side = books.getByRole('complementary', { name: 'Crossways Estate' })
    await side.getByRole('button', { name: 'Promised…' }).click()
    await enter(books.getByLabel('By', { exact: true }), '2026-12-04')
    await books.getByLabel('In their words').fill('after the fair')
    await books.getByRole('button', { name: 'Note it' }).click()
    await expect(side).toContainText('after the fair')
    await expect(books.getByRole('row', { name: /Crossways Estate/ })).toContainText('Promised')
    await side.getByRole('button', { name: /^Reminder/ }).click()
    await expect(books.getByLabel('Text')).toHaveValue(/I-\d+, due/)
    await books.getByRole('button', { name: 'Send this reminder' }).click()
    await expect(side).toContainText('Reminder sent')
    const owed = moneyIn(await books.locator('.buckets .double').innerText())
    await side.getByRole('button', { name: 'Paid now…' }).click()
    await books.getByLabel('Amount').fill('50.00')
    await books.getByRole('button', { name: 'Take $50.00' }).click()
    await expect(books.getByText('$50.00 by cash, receipt')).toBeVisible()
    await expect
      .poll(async () => moneyIn(await books.locator('.buckets .double').innerText()))
      .toBeCloseTo(owed - 50, 2)
    await expect(books.getByText('agrees with the books')).toBeVisible()
  })
  for (const page of [office, dispatch, rosa, books]) quiet(page, /status of (409|422)/)
  setClock('2026-11-24T10:21')
})

test('a customer pays by card on the private page, also without JavaScript', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office', '/invoices')
  await office.getByRole('button', { name: 'Open', exact: true }).click()
  await office.getByRole('row', { name: /sent/ }).first().getByRole('link').click()
  const link = await office.getByRole('link', { name: 'The customer’s page' }).getAttribute('href')
  const customer = await (
    await browser.newContext({ javaScriptEnabled: false, viewport: { width: 390, height: 844 } })
  ).newPage()
  await customer.goto(link!)
  const pay = async (card: string) => {
    await customer.getByRole('button', { name: /Pay \$.* by card/ }).click()
    await customer.getByLabel('Card number').fill(card)
    await customer.getByRole('button', { name: /^Pay/ }).click()
  }
  await pay('9000 0000 0000 0027')
  await expect(customer.getByText('The card was declined.')).toBeVisible()
  await pay('9000 0000 0000 0019')
  await expect(customer.getByText('This invoice is paid. Thank you.')).toBeVisible()
  await expect(office.getByText(/by card T/)).toBeVisible()
  await expect(office.getByText('paid', { exact: true }).first()).toBeVisible()
})
