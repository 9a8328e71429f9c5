// The phone, measured: taps from setting off to the money, the day on a slow processor, a visit with pictures.
import { randomUUID } from 'node:crypto'
import { chromium, type Browser, type BrowserContext, type Page } from '@playwright/test'
import sharp from 'sharp'
import { v7 } from 'uuid'
import type { Answer, RouteName } from '../shared/api'
import { NOW } from './lib/rig.mjs'
import { round, tell, type Bench, type Rig } from './lib/tell'

const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true } as const
const PHOTO_PX = [4000, 3000] as const
const launch = () =>
  chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-gpu'],
  })
const signIn = (context: BrowserContext, who: string) =>
  context.request.post('/api/v1/session', {
    data: { email: `${who}@demo.test`, password: 'open-ledger' },
    headers: { 'Idempotency-Key': randomUUID() },
  })
async function technician(browser: Browser, base: string, who: string): Promise<Page> {
  const context = await browser.newContext({ ...PHONE, baseURL: base, reducedMotion: 'reduce' })
  await signIn(context, who)
  await context.addInitScript(() => localStorage.setItem('signed-in', '1'))
  return context.newPage()
}
/** What a route answers that is asked with no more than its address. */
const read = async <N extends RouteName>(context: BrowserContext, address: string) =>
  (await (await context.request.get(`/api/v1${address}`)).json()) as Answer<N>
/** A visit of today with one task on it, booked for a technician by the office. */
async function visitWithTask(browser: Browser, base: string, technicianId: string) {
  const office = await browser.newContext({ baseURL: base })
  await signIn(office, 'office')
  const { items: known } = await read<'matches'>(office, '/matches?q=lowfold')
  const { customerId } = known[0]!
  const { sites } = await read<'caller'>(office, `/callers/${customerId}`)
  const { items: entries } = await read<'searchPriceBook'>(
    office,
    '/price-book/search?q=diagnostic',
  )
  const visitId = v7()
  const booked = await office.request.post(`/api/v1/calls/${v7()}/book`, {
    data: {
      ...{ workOrderId: v7(), visitId, customerId, siteId: sites[0]!.id, technicianId },
      ...{ problem: 'No water at the tap', override: true, reason: 'Measured' },
      ...{ date: NOW.slice(0, 10), start: '16:30' },
      entries: [{ entryId: entries[0]!.id, quantity: '1' }],
    },
    headers: { 'Idempotency-Key': randomUUID() },
  })
  if (!booked.ok()) throw new Error(await booked.text())
  await office.close()
  return visitId
}
async function fieldTaps(rig: Rig): Promise<void> {
  const browser = await launch()
  const page = await technician(browser, rig.env.TEST_URL!, 'rosa')
  const { person } = await read<'session'>(page.context(), '/session')
  const visitId = await visitWithTask(browser, rig.env.TEST_URL!, person.id)
  await page.goto(`/field/visits/${visitId}`)
  let taps = 0
  const tap = async (name: string | RegExp) => {
    await page.getByRole('button', { name }).first().click()
    taps++
  }
  await tap('Set off')
  await tap('I have arrived')
  await tap(/^Tick off/)
  await tap('Show the customer')
  const box = (await page.getByLabel('Signature').boundingBox())!
  await page.mouse.move(box.x + 30, box.y + 90)
  await page.mouse.down()
  await page.mouse.move(box.x + 200, box.y + 40, { steps: 8 })
  await page.mouse.up()
  taps++
  await page.getByLabel('Your name').click()
  taps++
  await page.keyboard.type('W. Thrapp')
  await tap(/^I agree to/)
  await page.getByText(/signed for/).waitFor()
  await tap('Finish')
  await tap(/^Bill$/)
  await tap(/^Make and send invoice/)
  await tap(/^Take \$/)
  await page.getByText('Nothing is open on I-').waitFor()
  tell({
    name: 'field-taps',
    unit: 'taps',
    what: 'from setting off to paid in cash, one task, a signature, the name typed',
    values: [taps],
    reference: 11,
  })
  await browser.close()
}
const SLOW = 6
async function fieldCold(rig: Rig): Promise<void> {
  const browser = await launch()
  const seen: number[] = []
  const awake: number[] = []
  for (let i = 0; i < 5; i++) {
    const page = await technician(browser, rig.env.TEST_URL!, 'maud')
    const session = await page.context().newCDPSession(page)
    await session.send('Emulation.setCPUThrottlingRate', { rate: SLOW })
    const started = performance.now()
    const sinceThen = () => (performance.now() - started) / 1000
    await page.goto('/field', { waitUntil: 'commit' })
    await page.locator('ol li').first().waitFor()
    seen.push(sinceThen())
    await page.getByRole('button', { name: 'Sign out' }).waitFor()
    awake.push(sinceThen())
    await page.context().close()
  }
  const phone = `on a phone whose processor is ${SLOW} times slower, nothing kept`
  tell({
    name: 'field-cold',
    unit: 's',
    what: `the day is seen, and its links lead, ${phone}`,
    values: seen,
    reference: 1.5,
    ofMedian: true,
  })
  tell({
    name: 'field-awake',
    unit: 's',
    what: `its buttons do what they say, ${phone}`,
    values: awake,
  })
  await browser.close()
}
async function visitPhotos(rig: Rig): Promise<void> {
  const browser = await launch()
  const page = await technician(browser, rig.env.TEST_URL!, 'ines')
  await page.goto('/field')
  await page.getByRole('link', { name: /Open now/ }).click()
  await page.getByText('Add photos').waitFor()
  const [width, height] = PHOTO_PX
  const noise = sharp({
    create: {
      width,
      height,
      channels: 3,
      background: '#888',
      noise: { type: 'gaussian', mean: 128, sigma: 30 },
    },
  })
  const buffer = await noise.jpeg({ quality: 70 }).toBuffer()
  for (let i = 0; i < 3; i++) {
    const sent = page.waitForResponse((r) => r.url().endsWith('/photos') && r.ok())
    await page
      .locator('input[type=file]')
      .setInputFiles({ name: `${v7()}.jpg`, mimeType: 'image/jpeg', buffer })
    await sent
  }
  await page.locator('.pics img').nth(2).waitFor()
  const address = page.url()
  const fresh = await technician(browser, rig.env.TEST_URL!, 'ines')
  await fresh.goto('/field')
  await fresh.getByRole('link', { name: /Open now/ }).waitFor()
  let bytes = 0
  fresh.on('response', (answer) => {
    void answer
      .request()
      .sizes()
      .then((s) => (bytes += s.responseBodySize))
      .catch(() => {})
  })
  await fresh.goto(address)
  await fresh.locator('.pics img').nth(2).waitFor()
  await fresh.waitForTimeout(1000)
  tell({
    name: 'visit-photos',
    unit: 'kB',
    what: `a visit with three photos of ${round(buffer.length / 1e6)} MB, opened`,
    values: [bytes / 1000],
    reference: 300,
  })
  await browser.close()
}
export const fieldBenches: Record<string, Bench> = {
  'field-taps': { rig: true, run: fieldTaps },
  'field-cold': { rig: true, run: fieldCold },
  'visit-photos': { rig: true, run: visitPhotos },
}
