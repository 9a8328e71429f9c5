// What a firm takes over from its books before: open invoices, credits, balances, numbers that go on.
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { transaction } from '../../server/db/pool'
import { checkBooks } from '../../server/ledger/checkBooks'
import type { Answer } from '../../shared/api'
import { id, signedIn, somethingToBill, type Client } from './client'
import { hledgerBalances } from './hledger'

let owner: Client
let today: string
beforeAll(async () => {
  owner = await signedIn('owner')
  ;({ today } = await owner.ok('session'))
})
const clean = async () => (await transaction(checkBooks)).filter((r) => r.wrong.length)
const COLUMNS = ['number', 'customer', 'issued', 'due', 'total', 'open', 'email'] as const
const daysAgo = (days: number): string =>
  new Date(Date.parse(today) - days * 86_400_000).toISOString().slice(0, 10)
/** Rows of a file, as its columns have them. */
const bring = (rows: string[][], more: object = {}, importId = id()) =>
  owner.send('bringOpenItems', {
    params: { id: importId },
    body: {
      ...{ fileName: 'open.csv', dry: false, on: today, columns: COLUMNS },
      rows: rows.map((cells, i) => ({ at: i + 2, cells })),
      ...more,
    },
  })
const states = ({ body }: Awaited<ReturnType<typeof bring>>) =>
  (body as unknown as Answer<'bringOpenItems'>).rows.map(({ state }) => state)
const unpaidOf = async (name: string) =>
  (await owner.ok('unpaid')).customers.find((c) => c.name === name)
const undo = (importId: string) => owner.ok('undoOpenItems', { params: { id: importId } })
const invoiceNumbered = async (number: string) =>
  (await owner.ok('invoices', { query: { q: number } })).items.find((i) => i.number === number)

describe('open invoices from the books before', () => {
  const NAME = 'Tolland Dairy'
  /** the days that each is past due, and what is open of it */
  const LATE = [
    ...[-30, -1, 0, 1, 30, 31, 60, 61, 90, 91, 400].map((late, i) => [late, 100 + i] as const),
  ]
  let rows: string[][]
  beforeAll(() => {
    rows = LATE.map(([late, open], i) => [
      ...[`T-${700 + i}`, NAME, daysAgo(late + 40), daysAgo(late), '1000.00', `${open}.25`, ''],
    ])
    rows.push(['TC-9', NAME, daysAgo(50), '', '', '(60.00)', ''])
  })
  const importId = id()
  it('are tried dry, row by row, and nothing is changed', async () => {
    const before = await owner.ok('unpaid')
    const tried = await bring(
      [
        ...rows.slice(0, 2),
        [...['T-700', 'Somebody', daysAgo(9), '', '', '5.00', '']],
        [...['T-990', NAME, daysAgo(9), '', '', '0', '']],
        [...['T-991', '', daysAgo(9), '', '', 'much', '']],
        rows.at(-1)!,
      ],
      { dry: true },
    )
    expect(states(tried)).toEqual(['new', 'new', 'double', 'settled', 'wrong', 'credit'])
    expect(tried.body).toMatchObject({
      ...{ added: 3, skipped: 3, open: { amount: '201.50' }, credits: { amount: '60.00' } },
    })
    const answer = tried.body as unknown as Answer<'bringOpenItems'>
    expect(answer.rows.filter((row) => row.newCustomer).map(({ number }) => number)).toEqual([
      ...['T-700', 'T-701', 'TC-9'],
    ])
    expect((await owner.ok('unpaid')).totals).toEqual(before.totals)
    expect(await invoiceNumbered('T-700')).toBeUndefined()
  })
  it('age from the first morning as the file says, and the books agree with hledger', async () => {
    const before = await hledgerBalances(owner)
    expect(states(await bring(rows, {}, importId))).toEqual([...LATE.map(() => 'new'), 'credit'])
    const sum = (from: number, to: number) =>
      LATE.filter(([late]) => late > from && late <= to)
        .reduce((all, [, open]) => all + open + 0.25, 0)
        .toFixed(2)
    const { oldestLate, current, d1_30, d31_60, d61_90, over90, credits } = (await unpaidOf(NAME))!
    expect({ oldestLate, credits: credits.amount }).toEqual({ oldestLate: 400, credits: '60.00' })
    expect([current, d1_30, d31_60, d61_90, over90].map(({ amount }) => amount)).toEqual([
      ...[sum(-99, 0), sum(0, 30), sum(30, 60), sum(60, 90), sum(90, 999)],
    ])
    expect((await owner.ok('unpaid')).agrees).toBe(true)
    const after = await hledgerBalances(owner)
    const openCents = LATE.reduce((all, [, open]) => all + open * 100 + 25, 0)
    expect(after['Assets:Receivable']! - before['Assets:Receivable']!).toBe(openCents)
    expect((after['Equity:Opening balances'] ?? 0) - (before['Equity:Opening balances'] ?? 0)).toBe(
      6000 - openCents,
    )
    expect(await clean()).toEqual([])
  })
  it('are not in what stood open before they were counted here', async () => {
    const yesterday = await owner.ok('unpaid', { query: { on: daysAgo(1) } })
    expect(yesterday.customers.find((c) => c.name === NAME)).toBeUndefined()
    expect(yesterday.agrees).toBe(true)
  })
  it('are taken over once, however often they are sent', async () => {
    expect(new Set(states(await bring(rows, {}, importId)))).toEqual(new Set(['double']))
    expect((await owner.ok('customers', { query: { q: NAME } })).total).toBe(1)
  })
  it('are found by the number that the customer knows, and say what was paid before', async () => {
    const found = (await invoiceNumbered('T-703'))!
    const { paper, open, state } = await owner.ok('invoice', { params: { id: found.id } })
    expect({ open: open.amount, state }).toEqual({ open: '103.25', state: 'sent' })
    expect(paper).toMatchObject({
      ...{ number: 'T-703', total: { amount: '1000.00' }, payable: { amount: '103.25' } },
      paidBefore: { amount: '896.75' },
    })
  })
  it('are taken back but for what was paid since, and can come again', async () => {
    const paid = (await invoiceNumbered('T-701'))!
    const payment = {
      ...{ id: id(), customerId: paid.customerId, method: 'transfer', amount: '101.25' },
      invoiceIds: [paid.id],
    }
    await owner.ok('pay', { body: payment })
    expect(await undo(importId)).toEqual({ removed: rows.length - 1, kept: 1 })
    expect(await invoiceNumbered('T-701')).toMatchObject({ state: 'paid' })
    expect(await unpaidOf(NAME)).toBeUndefined()
    expect(await clean()).toEqual([])
    expect(await owner.send('undoOpenItems', { params: { id: importId } })).toMatchObject({
      ...{ status: 409, body: { code: 'undone_already' } },
    })
    const again = id()
    expect(states(await bring(rows.slice(0, 3), {}, again))).toEqual(['new', 'double', 'new'])
    expect(await undo(again)).toEqual({ removed: 2, kept: 0 })
  })
  it('make no customer where somebody says so, nor where several have the name', async () => {
    const row = ['T-800', 'Nobody Such', daysAgo(3), '', '', '5.00', '']
    expect(states(await bring([row], { makeCustomers: false }))).toEqual(['wrong'])
    const made = [id(), id()]
    for (const [i, importId] of made.entries())
      await bring(
        [[`T-81${i}`, 'Twice Named', daysAgo(3), '', '', '5.00', `twice${i}@x.test`]],
        {},
        importId,
      )
    // The second had a mail of its own, and the same name: it is the same customer.
    expect((await owner.ok('customers', { query: { q: 'Twice Named' } })).total).toBe(1)
    for (const importId of made) await undo(importId)
  })
  it('have no number that will be one of ours', async () => {
    const { items } = await owner.ok('numbers')
    const next = items.find(({ kind }) => kind === 'invoice')!.example
    const tried = await bring([[next, 'Nobody Such', daysAgo(3), '', '', '5.00', '']], {
      dry: true,
    })
    expect(tried.body).toMatchObject({
      rows: [{ state: 'wrong', problems: [{ field: 'number' }] }],
    })
  })
  it('say which column, and from which day', async () => {
    const row = [...rows[0]!]
    for (const [more, path] of [
      [{ columns: ['number', 'customer', 'issued', null, null, null, null] }, 'columns'],
      [{ columns: ['number', 'customer', 'issued', 'open', 'open', null, null] }, 'columns'],
      [{ on: daysAgo(-1) }, 'on'],
    ] as const)
      expect(await bring([row], more)).toMatchObject({ status: 422, body: { errors: [{ path }] } })
    // Made in our time, by the books before: they cannot both be right.
    expect(states(await bring([row], { on: daysAgo(100), dry: true }))).toEqual(['wrong'])
  })
})

describe('opening balances', () => {
  const keep = async (amounts: Record<string, string>, shown?: object[]) => {
    const now = await owner.ok('broughtForward')
    return owner.send('keepOpening', {
      body: {
        on: daysAgo(20),
        amounts: now.accounts.map(({ account }) => ({ account, amount: amounts[account] ?? '0' })),
        shown: shown ?? now.accounts,
      },
    })
  }
  afterAll(() => keep({}))
  it('stand in the books on their day, and once', async () => {
    const before = await hledgerBalances(owner)
    const { opening } = await owner.ok('broughtForward')
    await keep({ bank: '900.00', tax: '200.00' })
    const kept = await keep({ bank: '1000.00', tax: '250.00', cash: '50.00' })
    const inAll = (Number(opening.amount) + 800).toFixed(2)
    expect(kept.body).toMatchObject({ on: daysAgo(20), opening: { amount: inAll } })
    const after = await hledgerBalances(owner)
    const grew = (name: string) => (after[name] ?? 0) - (before[name] ?? 0)
    expect([
      grew('Assets:Bank'),
      grew('Assets:Cash on hand'),
      grew('Liabilities:Tax payable'),
    ]).toEqual([100_000, 5000, -25_000])
    expect(grew('Equity:Opening balances')).toBe(-80_000)
    expect(await clean()).toEqual([])
  })
  it('are refused to whoever saw others, and where they are none', async () => {
    const { accounts } = await owner.ok('broughtForward')
    const late = accounts.map((a) => ({ ...a, amount: '1.00' }))
    expect(await keep({ bank: '5' }, late)).toMatchObject({ status: 409, body: { code: 'stale' } })
    expect(await keep({ bank: 'much' })).toMatchObject({
      ...{ status: 422, body: { errors: [{ path: 'amounts[0].amount' }] } },
    })
  })
})

describe('numbers', () => {
  const series = async () =>
    (await owner.ok('numbers')).items.find(({ kind }) => kind === 'invoice')!
  const keep = async (change: object) => {
    const { example: _, ...now } = await series()
    return owner.send('keepNumbers', { body: { ...now, ...change } })
  }
  const bill = async () => {
    const { workOrderId } = await somethingToBill(owner)
    return owner.ok('makeInvoice', { params: { id: workOrderId }, body: { id: id() } })
  }
  let was: Awaited<ReturnType<typeof series>>
  beforeAll(async () => {
    was = await series()
  })
  afterAll(async () => {
    const { prefix, width, yearly, next } = was
    await keep({ prefix, width, yearly, next })
  })
  it('go on where the books before stopped, with nothing between', async () => {
    const year = today.slice(0, 4)
    const kept = await keep({ prefix: 'B{year}-', width: 5, next: 10_483, yearly: true })
    expect(kept.status).toBe(200)
    expect((await series()).example).toBe(`B${year}-10483`)
    expect((await bill()).paper.number).toBe(`B${year}-10483`)
    expect((await bill()).paper.number).toBe(`B${year}-10484`)
    expect(await clean()).toEqual([])
  })
  it('are given once: none that is there comes again', async () => {
    const { next } = await series()
    expect(await keep({ next: next - 1 })).toMatchObject({
      ...{ status: 422, body: { errors: [{ path: 'next' }] } },
    })
    const { prefix, width, yearly } = was
    expect(await keep({ prefix, width, yearly, next: was.next - 1 })).toMatchObject({ status: 422 })
  })
  it('that would repeat themselves next year, or are no numbers, are refused', async () => {
    expect(await keep({ prefix: 'B-', yearly: true })).toMatchObject({
      ...{ status: 422, body: { errors: [{ path: 'yearly' }] } },
    })
    expect(await keep({ prefix: 'B !', yearly: false })).toMatchObject({
      ...{ status: 422, body: { errors: [{ path: 'prefix' }] } },
    })
  })
  it('are changed by one at a time', async () => {
    const both = await Promise.all([keep({ next: 20_000 }), keep({ next: 30_000 })])
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409])
  })
})
