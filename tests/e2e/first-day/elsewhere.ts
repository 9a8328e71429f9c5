// A firm in another country, from its beginning to its first payment: nothing of another country's money, paper or days is seen.
import { execFileSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import { expect, test, type Page } from '@playwright/test'
import { chooseFrom, leavesAllInOrder, PHONE, quiet, setClock } from '../people'
import { counting } from './keys'

export interface Elsewhere {
  country: string
  timeZone: string
  /** per cent, and what an hour costs there with the tax inside */
  rate: string
  hour: string
  /** what an hour's work comes to, as it is said there */
  says: RegExp
  /** a day as it is written there */
  day: RegExp
}
/** What would be seen of a firm in the United States. */
const FOREIGN = /\$|\bUSD\b|\ben-[A-Z]|\bLetter\b|Nov 24|\b\d{1,2}:\d\d [AP]M\b/
const nothingForeign = async (page: Page) =>
  expect(await page.locator('body').innerText()).not.toMatch(FOREIGN)

export function firmElsewhere(there: Elsewhere): void {
  // What begins once is not tried again.
  test.describe.configure({ retries: 0 })
  test.use({ timezoneId: there.timeZone, locale: 'en-GB' })
  leavesAllInOrder({ stay: true })
  test(`a firm in ${there.country} begins, works and is paid`, async ({ browser }, info) => {
    test.setTimeout(300_000)
    setClock('2026-11-24T10:21')
    const context = await browser.newContext()
    const page = await context.newPage()
    const { type, press } = counting(page)
    await page.goto('/begin')
    // Where the window is, is proposed.
    await expect(page.getByText(`${there.country}: what is usual there`)).toBeVisible()
    await type(/^The code/, process.env.BEGIN_CODE!)
    await type('Name of the firm', 'Aoyagi Pumps')
    await type('Your name', 'Mei Aoyagi')
    await type('Your mail address', 'mei@aoyagi.test')
    await type(/^Password/, 'quiet otters swim')
    await press(page.getByText('I go to customers myself'))
    await type('Its rate, per cent', there.rate)
    await press('Begin')
    await expect(page).toHaveURL(/\/guide$/)
    await nothingForeign(page)

    await press('Begin with a short list')
    await type(/^What you charge/, there.hour)
    await press('Make the list')
    await press(page.getByRole('link', { name: 'Hours' }))
    await press('Change Mei Aoyagi')
    await press(page.getByRole('dialog').getByRole('button', { name: 'Keep', exact: true }))
    await expect(page.getByText('no hours yet')).toHaveCount(0)
    await nothingForeign(page)

    await page.goto('/calls/new')
    await page.getByLabel('Who is calling').fill('Ada Reed')
    await expect(page.getByRole('option', { name: /New customer/ })).toBeVisible()
    await page.keyboard.press('Enter')
    await type('Address of the site', '7 Heron Way')
    await type('Mail address', 'a@reed.test')
    await press('Keep this customer')
    await type('What is wrong', 'Drips')
    await type('Price to read out', 'swap')
    await expect(page.getByRole('list', { name: 'Found in the price book' })).toContainText(
      'Replace a small part',
    )
    await page.keyboard.press('Enter')
    await expect(page.getByText(there.says).first()).toBeVisible()
    await nothingForeign(page)
    await chooseFrom(page.getByLabel('Technician'), 'Mei Aoyagi')
    await chooseFrom(page.getByLabel('Start'), '14:30')
    await expect(page.getByRole('button', { name: /^Book .*14:30/ })).toContainText(there.day)
    await page.keyboard.press('Control+Enter')
    await expect(page).toHaveURL(/schedule/)
    await nothingForeign(page)

    const phone = await browser.newContext({
      ...{ viewport: PHONE, hasTouch: true, storageState: await context.storageState() },
    })
    const at = await phone.newPage()
    const onPhone = counting(at)
    await at.goto('/field')
    await onPhone.press(at.getByText('Ada Reed'))
    setClock('2026-11-24T14:30')
    await onPhone.press('Set off')
    await onPhone.press('I have arrived')
    setClock('2026-11-24T15:20')
    await onPhone.press(at.getByRole('button', { name: /^Tick off/ }))
    await nothingForeign(at)
    await onPhone.press('Finish')
    await onPhone.press('Bill')
    await onPhone.press(at.getByRole('button', { name: /^Make and send invoice/ }))
    const take = at.getByRole('button', { name: /^Take (?!payment)/ })
    await expect(take).toContainText(there.says)
    await nothingForeign(at)
    await onPhone.press(take)
    await expect(at.getByText('Nothing is open on I-')).toBeVisible()

    await page.goto('/invoices')
    await page.getByRole('link', { name: /I-\d+/ }).first().click()
    await expect(page.getByText(there.says).first()).toBeVisible()
    await nothingForeign(page)
    const invoice = page.url().split('/').at(-1)!
    const pdf = await context.request.get(`/api/v1/invoices/${invoice}.pdf`)
    const file = info.outputPath('invoice.pdf')
    writeFileSync(file, await pdf.body())
    expect(execFileSync('pdfinfo', [file], { encoding: 'utf8' })).toMatch(/595\.28 x 841\.89|A4/)
    const words = execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' })
    expect(words).toMatch(there.says)
    expect(words).not.toMatch(FOREIGN)
    for (const each of ['/unpaid', '/customers', '/price-book', '/schedule/week', '/set-up']) {
      await page.goto(each)
      await expect(page.getByRole('heading').first()).toBeVisible()
      await nothingForeign(page)
    }
    quiet(page)
    quiet(at)
    setClock('2026-11-24T10:21')
  })
}
