// Every screen of every role, in two windows and on a phone, with rough hands: slow, lost and late answers, a colleague who changes the same,
// reloads, Back, double presses and keys. Whatever is done, nothing that is checked after each act may be broken.
import { spawnSync } from 'node:child_process'
import { chromium, type Browser } from '@playwright/test'
import { v7 } from 'uuid'
import type { Copy } from '../copy'
import { chanceOf, Person, type Chance, type Trial } from '../tools'
import { axe, faultsOf, Names, settle } from './checks'
import { act, type Sitting, type Typed } from './monkey'
import { openDesk, ROLES, type Who, type Desk } from './desk'

const ACTS_A_SITTING = 40
const LOOKED_AT_EVERY = 13
const CHANGED_EVERY = 5
const LAST_STEPS = 12
const MINUTE_MS = 60_000

/** A colleague, elsewhere, who changes what others have open. */
async function colleague(base: string, names: Names) {
  const office = await new Person(base, 'office@demo.test').signIn()
  const read = async (path: string) => {
    const { body } = await office.once('GET', `/api/v1${path}`)
    names.read(body)
    return body
  }
  const idsOf = async (path: string) =>
    ((await read(path)).items as { id: string }[]).map(({ id }) => id)
  const customers = await idsOf('/customers?limit=100')
  const work = await idsOf('/work-orders?limit=50')
  const places = [
    ...customers.slice(0, 30).map((id) => `/customers/${id}`),
    ...work.slice(0, 30).map((id) => `/work/${id}`),
    ...(await idsOf('/invoices?limit=20')).map((id) => `/invoices/${id}`),
    ...(await idsOf('/quotes?limit=20')).map((id) => `/quotes/${id}`),
    ...(await idsOf('/price-book/search?q=pump')).slice(0, 10).map((id) => `/price-book/${id}`),
  ]
  const change = async (chance: Chance): Promise<void> => {
    const id = chance.pick(customers)
    const { version } = await read(`/customers/${id}`)
    const officeNote = `changed ${chance.between(1, 1e6)}`
    await office.act('PATCH', `/customers/${id}`, { version, officeNote }, v7())
    const order = await read(`/work-orders/${chance.pick(work)}`)
    const line = (
      order.lines as { id: string; version: number; billed: { amount: string } }[]
    ).find(({ billed }) => Number(billed.amount) === 0)
    if (line)
      await office.act('PATCH', `/work-lines/${line.id}`, {
        version: line.version,
        quantity: String(chance.between(1, 4)),
      })
  }
  return { change, places }
}
type Colleague = Awaited<ReturnType<typeof colleague>>
/** What was typed once, and stands twice among what people make. */
async function doubled(copy: Copy, typed: readonly Typed[]): Promise<string[]> {
  const db = await copy.connect()
  try {
    const made = {
      contacts: 'name',
      sites: 'name',
      equipment: 'serial',
      collection_notes: 'text',
      call_questions: 'text',
      custom_fields: 'name',
    }
    const faults: string[] = []
    for (const [table, column] of Object.entries(made)) {
      const [rows] = await db.query(
        `SELECT ${column} AS text, COUNT(*) AS count FROM ${table} WHERE ${column} LIKE 'zq%' GROUP BY ${column} HAVING count > 1`,
      )
      for (const { text } of rows as { text: string }[])
        if (typed.some((one) => one.text === text))
          faults.push(`${text} was made twice in ${table}`)
    }
    return faults
  } finally {
    await db.end()
  }
}
interface Result {
  acts: number
  faults: string[]
  typed: Typed[]
}
/** Two people and a phone at their screens for a while. */
async function sit(
  browser: Browser,
  base: string,
  { chance, change, places, names }: Colleague & { chance: Chance; names: Names },
): Promise<Result> {
  const people: Who[] = [chance.pick(ROLES.slice(0, 4)), chance.pick(ROLES.slice(0, 4)), 'ines']
  const sitting: Sitting = { chance, steps: [], typed: [], places }
  const windows: Desk[] = []
  for (const who of people) windows.push(await openDesk(browser, base, who, chance))
  for (const window of windows)
    window.wentAnyway = () => {
      for (const one of sitting.typed) if (one.window === window && !one.isDraft) one.left = true
    }
  const faults: string[] = []
  for (let n = 0; n < ACTS_A_SITTING; n++) {
    const window = chance.pick(windows)
    const from = window.writes.length
    await act(window, sitting)
    if (n % CHANGED_EVERY === 0) await change(chance)
    await settle(window)
    const found = await faultsOf(window, sitting.typed, names, from)
    if (n % LOOKED_AT_EVERY === 0) found.push(...(await axe(window)))
    if (found.length)
      faults.push(...found.map((f) => `${f} | ${sitting.steps.slice(-LAST_STEPS).join('; ')}`))
  }
  for (const { context } of windows) await context.close()
  return { acts: ACTS_A_SITTING, faults, typed: sitting.typed }
}
export async function screens(copy: Copy, minutes: number, seed: number): Promise<Trial> {
  const chance = chanceOf(seed)
  const names = new Names()
  const elsewhere = await colleague(copy.base, names)
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-gpu'],
  })
  const until = Date.now() + minutes * MINUTE_MS
  const faults: string[] = []
  const typed: Typed[] = []
  let acts = 0
  try {
    do {
      const result = await sit(browser, copy.base, { ...elsewhere, chance, names })
      acts += result.acts
      faults.push(...result.faults)
      typed.push(...result.typed)
    } while (Date.now() < until)
  } finally {
    await browser.close()
  }
  const twice = await doubled(copy, typed)
  const books = spawnSync(process.execPath, ['--import', 'tsx', 'scripts/check-books.ts'], {
    env: { ...process.env, DATABASE_URL: copy.databaseUrl },
    encoding: 'utf8',
  })
  if (books.status !== 0) faults.push(`the books do not agree: ${books.stdout.slice(0, 300)}`)
  return {
    name: 'screens',
    acts,
    faults,
    lost: faults.filter((fault) => fault.includes('is nowhere')).length,
    doubled: twice.length,
    seed,
    typed: typed.length,
    minutes,
  }
}
