// npm run screenshots: redraws docs/screenshots/*.png from the demo data with the clock pinned.
import { spawn } from 'node:child_process'
import { mkdirSync } from 'node:fs'
import { chromium, type Page } from '@playwright/test'
import { chooseFrom } from '../tests/e2e/people'
import { startRig } from './lib/rig.mjs'

const rig = (await startRig('screenshots')) as { env: { TEST_URL: string }; stop(): Promise<void> }
const base = rig.env.TEST_URL
// The vans' devices tell where everybody is.
const vans = spawn(process.execPath, ['standins/positions/server.mjs'], {
  stdio: 'ignore',
  env: {
    ...process.env,
    ...rig.env,
    APP_URL: base,
    POSITIONS_PORT: '0',
    POSITIONS_EVERY_MS: '500',
  },
})
mkdirSync('docs/screenshots', { recursive: true })
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-gpu', '--font-render-hinting=none'],
})
async function as(who: string, phone = false): Promise<Page> {
  const context = await browser.newContext({
    viewport: phone ? { width: 390, height: 844 } : { width: 1280, height: 800 },
    locale: 'en-US',
    timezoneId: 'America/New_York',
    reducedMotion: 'reduce',
  })
  const page = await context.newPage()
  await page.goto(`${base}/sign-in`)
  await page.getByLabel('Mail address').fill(`${who}@demo.test`)
  await page.getByLabel('Password').fill('open-ledger')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.waitForURL((u) => !u.pathname.includes('sign-in'))
  return page
}
const shoot = async (page: Page, name: string) => {
  await page.waitForLoadState('networkidle').catch(() => {})
  await page.evaluate(() => document.fonts.ready)
  await page.screenshot({ path: `docs/screenshots/${name}.png` })
  process.stdout.write(`· ${name}\n`)
}
try {
  const office = await as('office')
  for (const [path, name, ready] of [
    ['/schedule', 'schedule', 'Ines Calloway'],
    ['/to-act-on', 'to-act-on', 'Everything that waits'],
    ['/to-bill', 'to-bill', 'Why it is here'],
    ['/unpaid', 'unpaid', 'agrees with the books'],
    ['/price-book', 'price-book', 'Type over a cost or a price'],
    ['/schedule/week', 'week', 'could take in all'],
    ['/schedule/map', 'map', 'seen 10:21'],
    ['/schedule/set-up', 'hours-and-areas', 'Every site lies in a territory'],
  ] as const) {
    await office.goto(base + path)
    await office.getByText(ready).first().waitFor()
    await shoot(office, name)
  }
  await office.goto(`${base}/calls/new`)
  await office.getByLabel('Who is calling').fill('hallam dairy')
  await office.getByRole('option', { name: /Hallam Dairy/ }).waitFor()
  await office.keyboard.press('Enter')
  await office.getByRole('button', { name: 'Someone else' }).waitFor()
  await office
    .getByLabel('What is wrong')
    .fill('No water since 6. Breaker trips when the pump starts.')
  await office.getByLabel('Price to read out').fill('control box 3 hp')
  await office.getByRole('list', { name: 'Found in the price book' }).waitFor()
  await office.keyboard.press('Enter')
  const site = office.locator('section.who').getByLabel('Where', { exact: true })
  await site.press('Enter')
  await office.getByRole('option').nth(1).click()
  // The openings follow the skill and the length a moment later.
  await Promise.all([
    office.waitForResponse((r) => r.url().endsWith('/openings')),
    chooseFrom(office.getByLabel('Takes'), '1:30'),
  ])
  await office.waitForLoadState('networkidle')
  await office.getByRole('button', { name: 'Hold', exact: true }).first().click()
  await office.getByRole('button', { name: 'held', exact: true }).waitFor()
  await shoot(office, 'call')
  await office.goto(`${base}/schedule/plan?date=2026-11-25`)
  await office.getByRole('button', { name: 'Propose a plan' }).click()
  await office.getByText('Proposed', { exact: true }).first().waitFor()
  await shoot(office, 'day-plan')
  await office.goto(`${base}/price-book`)
  await office.getByLabel('Code, name, category').fill('pressure tank 44 gal, steel')
  await office
    .getByRole('row')
    .filter({ hasText: 'Replace pressure tank 44 gal, steel' })
    .getByRole('link')
    .first()
    .click()
  await office.getByRole('table', { name: 'As a further one' }).waitFor()
  await shoot(office, 'price-entry')
  await office.goto(`${base}/quotes`)
  await office.getByRole('link', { name: /^Q-/ }).first().click()
  await office.getByText('Price held until').waitFor()
  await shoot(office, 'quote')
  await office.goto(`${base}/customers`)
  await office.getByRole('link', { name: 'Crossways Estate' }).click()
  await office.getByRole('img', { name: /Map of/ }).waitFor()
  await shoot(office, 'customer')
  await office.goto(`${base}/to-bill`)
  await office.locator('tbody tr', { hasText: 'T. Oduya' }).last().locator('a.num').click()
  await office.getByText('Before tax').waitFor()
  await shoot(office, 'work-order')
  await office.goto(`${base}/invoices`)
  await office.getByRole('button', { name: 'Overdue' }).click()
  await office.locator('tbody a.num').first().click()
  await office.getByText('Billed to').waitFor()
  const link = await office.getByRole('link', { name: 'The customer’s page' }).getAttribute('href')
  await shoot(office, 'invoice')
  const field = await as('ines', true)
  await field.getByRole('link', { name: /Open now/ }).waitFor()
  await shoot(field, 'field-day')
  await field.getByRole('link', { name: /Open now/ }).click()
  await field.getByRole('timer').waitFor()
  await field.getByRole('button', { name: '+ Price book' }).click()
  await field.getByLabel('Search the price book').fill('control box 1 hp')
  await field
    .getByRole('button', { name: /Replace control box 1 hp, standard/ })
    .first()
    .click()
  await field.getByText('Added:').waitFor()
  await field.getByRole('button', { name: 'Back to the lines' }).click()
  await field.getByText('Total with tax').waitFor()
  await shoot(field, 'field-visit')
  const customer = await (
    await browser.newContext({ viewport: { width: 390, height: 844 } })
  ).newPage()
  await customer.goto(link!)
  await shoot(customer, 'customer-page')
  await customer.goto(`${base}/request`)
  await shoot(customer, 'request')
} finally {
  vans.kill('SIGTERM')
  await browser.close()
  await rig.stop()
}
