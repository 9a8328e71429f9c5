// Lists as their users take them along: kept as a file, printed whole; who is where today; and what could not be had is said, and asked for again.
import { readFileSync } from 'node:fs'
import { expect, test } from '@playwright/test'
import Papa from 'papaparse'
import { quiet, sitDown, leavesAllInOrder } from './people'

test.describe.configure({ mode: 'serial' })
leavesAllInOrder({ stay: true })

test('a list is kept as a file: all of it, with its sums as numbers', async ({ browser }) => {
  const office = await sitDown(browser, 'office', '/invoices')
  await expect(office.getByText(/^50 of \d+$/)).toBeVisible()
  const [, count] = /of (\d+)/.exec((await office.getByText(/^50 of \d+$/).textContent())!)!
  const [download] = await Promise.all([
    office.waitForEvent('download'),
    office.getByRole('button', { name: 'Keep as CSV' }).click(),
  ])
  expect(download.suggestedFilename()).toBe('Invoices 2026-11-24.csv')
  const text = readFileSync((await download.path())!, 'utf8').replace(/^\ufeff/, '')
  // Read by a program of its own.
  const { data, errors } = Papa.parse<Record<string, string>>(text, {
    header: true,
    skipEmptyLines: true,
  })
  expect(errors).toEqual([])
  expect(data).toHaveLength(Number(count))
  expect(data[0]!.Invoice).toMatch(/^I-\d+$/)
  for (const row of data) expect(row.Total).toMatch(/^-?\d+\.\d\d$/)
})

test('what is filtered is what is kept', async ({ browser }) => {
  const office = await sitDown(browser, 'office', '/customers')
  await office.getByLabel('Name, town, number, tag').fill('castell')
  await expect(office.getByText(/^(\d+) of \1$/)).toBeVisible()
  const shown = await office.locator('tr.pick').count()
  const [download] = await Promise.all([
    office.waitForEvent('download'),
    office.getByRole('button', { name: 'Keep as CSV' }).click(),
  ])
  const lines = readFileSync((await download.path())!, 'utf8')
    .trim()
    .split('\r\n')
  expect(lines).toHaveLength(shown + 1)
})

test('a list is printed whole, without what surrounds it', async ({ browser }) => {
  const office = await sitDown(browser, 'office', '/sites')
  await expect(office.getByText(/^50 of \d+$/)).toBeVisible()
  await office.evaluate(() => {
    window.print = () => document.body.setAttribute('data-printed', 'yes')
  })
  await office.getByRole('button', { name: 'Print' }).click()
  await expect(office.locator('body[data-printed="yes"]')).toBeVisible()
  await expect(office.getByText(/^(\d+) of \1$/)).toBeVisible()
  await office.emulateMedia({ media: 'print' })
  await expect(office.getByRole('navigation', { name: 'The run' })).toBeHidden()
  await expect(office.getByRole('button', { name: 'Keep as CSV' })).toBeHidden()
  await expect(office.locator('tr.pick').first()).toBeVisible()
})

test('everybody who works today is seen with what they are at, and leads to their day', async ({
  browser,
}) => {
  const dispatch = await sitDown(browser, 'dispatch', '/on-site')
  const table = dispatch.getByRole('table', { name: 'Everybody today' })
  await expect(table.getByText(/^on site at /).first()).toBeVisible()
  const working = await table.getByText(/^(on site at|pause at) /).count()
  const run = dispatch.getByRole('navigation', { name: 'The run' }).getByRole('link', {
    name: /On site/,
  })
  await expect(run).toContainText(String(working))
  await table.getByRole('row').filter({ hasText: 'Ines' }).click()
  await expect(dispatch).toHaveURL(/\/schedule\/one\?technician=/)
  await expect(dispatch.getByText('Ines Calloway').first()).toBeVisible()
})

test('what a page could not be told is said at its edge, and asked for again', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office')
  await office.route('**/api/v1/set-up', (route) =>
    route.fulfill({
      status: 503,
      contentType: 'application/problem+json',
      body: JSON.stringify({ status: 503, code: 'busy', detail: 'The set-up is being written.' }),
    }),
  )
  await office.goto('/sites')
  const edge = office.getByRole('alert').filter({ hasText: 'A part of this page could not be had' })
  await expect(edge).toContainText('The set-up is being written.')
  // What did come is there all the same.
  await expect(office.locator('tr.pick').first()).toBeVisible()
  await office.unroute('**/api/v1/set-up')
  await edge.getByRole('button', { name: 'Ask again' }).click()
  await expect(edge).toBeHidden()
})

test('a call that cannot be had is not opened as an empty one', async ({ browser }) => {
  const office = await sitDown(browser, 'office', '/calls')
  await office.route('**/api/v1/calls/*', (route) =>
    route.request().method() === 'GET'
      ? route.fulfill({
          status: 503,
          contentType: 'application/problem+json',
          body: JSON.stringify({ status: 503, code: 'busy', detail: 'The calls are away.' }),
        })
      : route.continue(),
  )
  await office
    .getByRole('link', { name: /^(Go on|Answer|Call back)$/ })
    .first()
    .click()
  await expect(office.getByText('The calls are away.')).toBeVisible()
  await expect(office.getByLabel('What is wrong')).toHaveCount(0)
})
test('an address where nothing is says so, and leads to the start', async ({ browser }) => {
  const office = await sitDown(browser, 'office')
  await office.goto('/no-such-page')
  await expect(
    office.getByRole('heading', { name: 'There is nothing at this address' }),
  ).toBeVisible()
  await expect(office).toHaveTitle('There is nothing at this address · Open Ledger')
  await office.getByRole('button', { name: 'To the start' }).click()
  await expect(office.getByRole('navigation', { name: 'The run' })).toBeVisible()
  quiet(office, /no-such-page|404/)
})
