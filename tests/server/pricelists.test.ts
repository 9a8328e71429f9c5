// The depth of the price book: price lists in and out, assemblies as lines, prices by precedence and time of day, suppliers, pins, usage.
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { readCsv } from '../../core/formats/readCsv'
import type { Answer } from '../../shared/api'
import {
  callerNamed,
  type Client,
  database,
  id,
  setClock,
  signedIn,
  somethingToBill,
  textOfPdf,
} from './client'

let office: Client
let ines: Client
beforeAll(async () => {
  setClock('2026-11-24T10:21')
  office = await signedIn('office')
  ines = await signedIn('technician')
})
afterAll(() => setClock('2026-11-24T10:21'))
const book = async (client = office) => (await client.ok('wholeBook')).items
const found = async (code: string, client = office) =>
  (await book(client)).find((e) => e.code === code)!
const blank = {
  description: '',
  technicianNote: '',
  synonyms: '',
  unit: 'each',
  seconds: 0,
  furtherSeconds: 0,
  skills: [],
  pinned: false,
  labourId: null,
  sundriesRate: null,
  supplier: '',
  partNumber: '',
  incomeCode: '',
  activeFrom: null,
  activeTo: null,
  retired: false,
  pricing: 'rule',
  cost: '0',
  price: '0',
  furtherPrice: null,
  parts: [],
}
const make = async (over: object) => {
  const entryId = id()
  await office.ok('keepPriceEntry', {
    params: { id: entryId },
    body: { ...blank, version: 0, kind: 'part', category: 'Listed', taxClass: 'goods', ...over },
  })
  return entryId
}
/** Everything that the book says of itself, as a file would. */
const csv = async () => (await office.send('exportCsv', { params: { what: 'price-book' } })).text
const PLAIN = { taxClass: 'goods', category: '', fixed: 'keep', vanished: 'keep' }
async function stage(head: string[], columns: (string | null)[], rows: string[][], supplier = '') {
  const listId = id()
  for (let i = 0; i < rows.length; i += 2000)
    await office.ok('stagePrices', {
      params: { id: listId },
      body: {
        supplier,
        head,
        fileName: 'tried.csv',
        columns,
        rows: rows.slice(i, i + 2000).map((cells, j) => ({ row: i + j + 2, cells })),
      },
    })
  return listId
}
const look = (listId: string, over: object = {}) =>
  office.ok('lookAtPrices', { params: { id: listId }, body: { ...PLAIN, ...over } })
const take = async (listId: string, over: object = {}) =>
  office.ok('takePrices', {
    params: { id: listId },
    body: { ...PLAIN, ...over, stamp: (await look(listId, over)).stamp },
  })

/** The smallest signature. */
const DOT =
  'data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=='

describe('a price list', () => {
  it('of our own, taken in as it was given out, changes nothing', async () => {
    const before = await csv()
    const table = readCsv(before)
    const seen = await look(await stage(table.head, table.head, table.rows))
    expect(seen.counts).toMatchObject({
      new: 0,
      changed: 0,
      wrong: 0,
      same: table.rows.length,
      vanished: 0,
    })
    expect(await csv()).toBe(before)
  })
  it('of a supplier: matched by part numbers, bad rows left out, costs take prices along, and all of it is taken back', async () => {
    const [a, b] = [
      await make({
        code: 'LI-1',
        name: 'Listed one',
        cost: '10',
        supplier: 'Brookside',
        partNumber: 'B-1',
      }),
      await make({
        code: 'LI-2',
        name: 'Listed two',
        cost: '10',
        pricing: 'fixed',
        price: '31',
        supplier: 'Brookside',
        partNumber: 'B-2',
      }),
    ]
    const gone = await make({
      code: 'LI-3',
      name: 'Listed three',
      cost: '5',
      supplier: 'Brookside',
      partNumber: 'B-3',
    })
    const before = await csv()
    const rows = [
      ['B-1', '', '$12.00'],
      ['B-2', '', '20'],
      ['B-4', 'Listed four', '3.50'],
      ['B-5', 'Listed five', 'on request'],
      ['', 'nameless', '1'],
    ]
    const listId = await stage(
      ['Part no', 'Item', 'Net'],
      ['part_number', 'name', 'cost'],
      rows.map((r) =>
        r[1] === '' ? [r[0]!, r[0] === 'B-1' ? 'Listed one' : 'Listed two', r[2]!] : r,
      ),
      'Brookside',
    )
    const seen = await look(listId)
    expect([seen.counts, seen.wrong.map((w) => w.row), seen.vanished.map((v) => v.id)]).toEqual([
      { new: 1, changed: 2, same: 0, wrong: 2, vanished: 1 },
      [5, 6],
      [gone],
    ])
    // A fixed price with a new cost stays, and what the rule would make of it is said. 20 × 1.8 (common practice of the trade: cost × its step).
    expect(seen.prices.rows.find((r) => r.id === b)).toMatchObject({
      becomes: { price: '31.00', cost: '20' },
      proposed: '36.00',
    })
    expect(await csv()).toBe(before)
    const done = await take(listId, { vanished: 'retire' })
    expect(done.counts).toMatchObject({ new: 1, changed: 2, wrong: 2 })
    expect((await found('LI-1')).price).toBe('26.40')
    expect([await found('B-4').then((e) => e.price), await found('LI-3')]).toEqual([
      '7.70',
      undefined,
    ])
    // Asked again, it is done once.
    expect(
      (
        await office.ok('takePrices', {
          params: { id: listId },
          body: { ...PLAIN, stamp: seen.stamp },
        })
      ).state,
    ).toBe('taken')
    expect((await office.ok('undoPriceImport', { params: { id: listId } })).left).toBe(0)
    expect(await csv()).toBe(before)
    expect((await office.ok('priceEntry', { params: { id: a } })).cost).toBe('10')
  })
  it('lets fixed prices follow the rule where that is wanted', async () => {
    await make({ code: 'LI-6', name: 'Listed six', cost: '10', pricing: 'fixed', price: '31' })
    await take(await stage(['code', 'cost'], ['code', 'cost'], [['LI-6', '20']]), {
      fixed: 'by_rule',
    })
    expect((await found('LI-6')).price).toBe('36.00')
  })
  it('taken back, keeps what somebody changed since, and what is used is retired, not deleted', async () => {
    const listId = await stage(
      ['code', 'name', 'cost'],
      ['code', 'name', 'cost'],
      [
        ['LI-7', 'Listed seven', '4'],
        ['LI-8', 'Listed eight', '4'],
      ],
    )
    await take(listId)
    const used = await found('LI-7')
    const { workOrderId } = await somethingToBill(office)
    await office.ok('addLines', {
      params: { id: workOrderId },
      body: { lines: [{ id: id(), entryId: used.id, quantity: '1' }] },
    })
    const changed = await office.ok('priceEntry', { params: { id: (await found('LI-8')).id } })
    await office.ok('keepPriceEntry', {
      params: { id: changed.id },
      body: {
        ...blank,
        version: changed.version,
        kind: 'part',
        code: 'LI-8',
        category: 'Listed',
        name: 'Mine now',
        taxClass: 'goods',
        cost: '4',
      },
    })
    expect((await office.ok('undoPriceImport', { params: { id: listId } })).left).toBe(1)
    expect([
      (await found('LI-8')).name,
      await found('LI-7'),
      (await office.ok('priceEntry', { params: { id: used.id } })).retired,
    ]).toEqual(['Mine now', undefined, true])
  })
  it('is refused when the book changed since it was looked at, and changes nothing', async () => {
    const listId = await stage(
      ['code', 'name', 'cost'],
      ['code', 'name', 'cost'],
      [['LI-9', 'Listed nine', '4']],
    )
    const { stamp } = await look(listId)
    await make({ code: 'LI-10', name: 'Meanwhile', cost: '1' })
    expect(
      (await office.send('takePrices', { params: { id: listId }, body: { ...PLAIN, stamp } })).body
        .code,
    ).toBe('stale')
    expect(await found('LI-9')).toBeUndefined()
  })
  it.each([
    ['columns', { columns: ['name', 'cost'] }],
    ['supplier', { columns: ['part_number', 'cost'] }],
    ['columns', { columns: ['code', 'code'] }],
  ])('wants %s', async (path, over) => {
    const refused = await office.send('stagePrices', {
      params: { id: id() },
      body: {
        supplier: '',
        head: ['a', 'b'],
        fileName: 'x.csv',
        rows: [{ row: 2, cells: ['x', '1'] }],
        ...over,
      },
    })
    expect([refused.status, refused.body.errors?.[0]?.path]).toEqual([422, path])
  })
  it('remembers what the columns of a source mean', async () => {
    const head = ['Odd heading', 'Other']
    await stage(head, ['code', 'cost'], [['LI-1', '1']], 'Brookside')
    expect(
      await office.ok('columnMeaning', {
        body: { supplier: 'Brookside', head: ['Other', 'New', 'Odd heading'] },
      }),
    ).toEqual({ known: true, columns: ['cost', null, 'code'] })
    expect((await office.ok('columnMeaning', { body: { supplier: 'Nobody', head } })).known).toBe(
      false,
    )
  })
})
describe('an assembly', () => {
  it('follows what is inside it, and becomes lines that are each their own', async () => {
    const [one, two] = [
      await make({ code: 'AS-1', name: 'Inside one', cost: '10' }),
      await make({ code: 'AS-2', name: 'Inside two', cost: '100' }),
    ]
    const set = await make({
      code: 'AS-3',
      kind: 'assembly',
      name: 'Set of two',
      parts: [
        { partId: one, quantity: '2' },
        { partId: two, quantity: '1' },
      ],
      price: '1',
    })
    // 2 × 22.00 and 100 × 1.5
    expect(await office.ok('priceEntry', { params: { id: set } })).toMatchObject({
      price: '194.00',
      cost: '120',
      standsIn: [],
    })
    const e = await office.ok('priceEntry', { params: { id: one } })
    await office.ok('keepPriceEntry', {
      params: { id: one },
      body: {
        ...blank,
        version: e.version,
        kind: 'part',
        code: 'AS-1',
        category: 'Listed',
        name: 'Inside one',
        taxClass: 'goods',
        cost: '20',
      },
    })
    expect((await office.ok('priceEntry', { params: { id: set } })).price).toBe('222.00')
    // This customer's level takes 5 % off parts: 216.00 and 450.00 in the book.
    const { workOrderId } = await somethingToBill(office)
    const work = await office.ok('addLines', {
      params: { id: workOrderId },
      body: { lines: [{ id: id(), entryId: set, quantity: '3' }] },
    })
    expect(work.lines.slice(1).map((l) => [l.name, l.quantity, l.net.amount])).toEqual([
      ['Inside one', '6', '205.20'],
      ['Inside two', '3', '427.50'],
    ])
    const line = work.lines[1]!
    const changed = await office.ok('changeLine', {
      params: { id: line.id },
      body: { version: line.version, unitPrice: '40' },
    })
    expect([
      changed.lines[1]!.priceFrom,
      changed.lines[2]!.net.amount,
      (await found('AS-1')).price,
    ]).toEqual(['typed here', '427.50', '36.00'])
  })
  it.each([
    ['parts', { parts: [] }],
    ['parts[0].partId', { parts: [{ partId: 'A-1', quantity: '1' }] }],
  ])('refuses at %s', async (path, over) => {
    const inside = (await found('A-1')).id
    const refused = await office.send('keepPriceEntry', {
      params: { id: id() },
      body: JSON.parse(
        JSON.stringify({
          ...blank,
          version: 0,
          kind: 'assembly',
          code: `AS-${id().slice(-6)}`,
          category: 'x',
          name: 'x',
          taxClass: 'goods',
          ...over,
        }).replace('"A-1"', `"${inside}"`),
      ),
    })
    expect([refused.status, refused.body.errors?.[0]?.path]).toEqual([422, path])
  })
})
describe('what a line costs', () => {
  const read = async (over: object) =>
    (
      await office.ok('tryLines', {
        body: { lines: [{ entryId: (await found('L-STD')).id, quantity: '1' }], ...over },
      })
    ).lines[0]!
  it('by the time of day: evening, weekend, holiday, and a night that goes over midnight', async () => {
    expect(
      [await read({}), await read({ date: '2026-11-24', start: '10:00' })].map((l) => l.net.amount),
    ).toEqual(['128.00', '128.00'])
    // 128.00 × 1.25 and × 1.5
    expect(await read({ date: '2026-11-24', start: '19:00' })).toMatchObject({
      net: { amount: '160.00' },
      priceFrom: 'price book, Evening × 1.25 on labour',
    })
    expect(
      [
        await read({ date: '2026-11-25', start: '05:00' }),
        await read({ date: '2026-11-28', start: '10:00' }),
      ].map((l) => l.net.amount),
    ).toEqual(['160.00', '192.00'])
  })
  it('a level stands beneath the lines, not in them', async () => {
    const hallam = await callerNamed(office, 'hallam dairy')
    const task = await found('T-168')
    const got = await office.ok('tryLines', {
      body: { customerId: hallam.customerId, lines: [{ entryId: task.id, quantity: '1' }] },
    })
    expect([got.own, got.lines[0]!.net.amount]).toEqual([true, task.price])
    expect(Number(got.net.amount)).toBeCloseTo(Number(task.price) - Number(got.saving.amount), 2)
  })
  it('a task costs more by its labour alone', async () => {
    const task = await found('T-168')
    const net = async (over: object) =>
      Number(
        (
          await office.ok('tryLines', {
            body: { lines: [{ entryId: task.id, quantity: '1' }], ...over },
          })
        ).net.amount,
      )
    expect((await net({ date: '2026-11-28', start: '10:00' })) - (await net({}))).toBeCloseTo(
      (task.seconds / 3600) * 64,
      2,
    )
  })
  it('something that is not in the book: a name and a price of its own, a cost from those who see costs, a name that may change here', async () => {
    const { workOrderId } = await somethingToBill(office)
    const add = async (client: Client, over: object) =>
      (
        await client.ok('addLines', {
          params: { id: workOrderId },
          body: {
            lines: [
              {
                id: id(),
                name: 'Odd adapter',
                kind: 'part',
                quantity: '2',
                unitPrice: '18.20',
                ...over,
              },
            ],
          },
        })
      ).lines.at(-1)!
    const dispatch = await signedIn('dispatch')
    const [seen, unseen] = [
      await add(office, { cost: '7.5' }),
      await add(dispatch, { cost: '7.5' }),
    ]
    expect([seen.unitCost, seen.unitPrice, seen.priceFrom, seen.taxClass]).toEqual([
      '7.50',
      '18.20',
      'typed here',
      'goods',
    ])
    const after = await office.ok('workOrder', { params: { id: workOrderId } })
    expect(after.lines.find((l) => l.id === unseen.id)?.unitCost).toBe('0.00')
    expect((await add(office, { kind: 'labour' })).taxClass).toBe('work')
    const changed = await office.ok('changeLine', {
      params: { id: seen.id },
      body: { version: seen.version, name: 'Brass adapter' },
    })
    expect(changed.lines.find((l) => l.id === seen.id)).toMatchObject({
      name: 'Brass adapter',
      unitPrice: '18.20',
      priceFrom: 'typed here',
    })
    expect(
      (
        await office.send('changeLine', {
          params: { id: seen.id },
          body: { version: seen.version + 1, name: '' },
        })
      ).body.errors?.[0]?.path,
    ).toBe('name')
    expect(
      (
        await office.send('addLines', {
          params: { id: workOrderId },
          body: { lines: [{ id: id(), name: 'No price', kind: 'part', quantity: '1' }] },
        })
      ).body.errors?.[0]?.path,
    ).toBe('lines[0].name')
  })
  it('on a quote, the cost of something that is not in the book stays when lines are sent back as they are', async () => {
    const c = await callerNamed(office, 'lowfold')
    const begun = await office.ok('beginQuote', {
      body: {
        id: id(),
        customerId: c.customerId,
        siteId: c.sites[0]!.id,
        title: 'Odd things',
        lines: [
          {
            id: id(),
            name: 'Odd adapter',
            kind: 'part',
            quantity: '1',
            unitPrice: '20',
            cost: '8',
          },
        ],
      },
    })
    const [line] = begun.lines
    const again = await office.ok('changeQuote', {
      params: { id: begun.id },
      body: {
        version: begun.version,
        lines: [
          {
            id: line!.id,
            name: line!.name,
            kind: 'part',
            quantity: '3',
            unitPrice: line!.unitPrice,
          },
        ],
      },
    })
    expect([line!.unitCost, again.lines[0]!.unitCost, again.lines[0]!.quantity]).toEqual([
      '8.00',
      '8.00',
      '3',
    ])
  })
  it('goodwill on a line or on all that is not billed, as an amount or a percentage, to the unit; what is billed stays', async () => {
    const { workOrderId } = await somethingToBill(office, '100.00')
    const add = async (unitPrice: string) =>
      (
        await office.ok('addLines', {
          params: { id: workOrderId },
          body: {
            lines: [{ id: id(), name: `At ${unitPrice}`, kind: 'other', quantity: '1', unitPrice }],
          },
        })
      ).lines.at(-1)!
    await office.ok('makeInvoice', { params: { id: workOrderId }, body: { id: id() } })
    const [a] = [await add('33.33'), await add('33.33'), await add('33.34')]
    const off = (discount: string, client = office) =>
      client.send('discountLines', { params: { id: workOrderId }, body: { discount } })
    const seen = async () =>
      (await office.ok('workOrder', { params: { id: workOrderId } })).lines.map(
        (l) => l.discount.amount,
      )
    const billed = (await seen())[0]!
    expect((await off('10 %')).status).toBe(200)
    // A tenth of 100.00 in three parts that sum to it.
    expect(await seen()).toEqual([billed, '3.33', '3.33', '3.34'])
    expect((await off('50')).status).toBe(200)
    expect((await seen()).slice(1).reduce((n, d) => n + Number(d), 0)).toBeCloseTo(50, 10)
    for (const wrong of ['100.01', 'a lot', '101 %'])
      expect((await off(wrong)).body.errors?.[0]?.path).toBe('discount')
    expect((await off('1', ines)).status).toBe(403)
    // What was taken off stays when the line is marked.
    const first = (await office.ok('workOrder', { params: { id: workOrderId } })).lines.find(
      (l) => l.id === a!.id,
    )!
    const marked = await office.ok('changeLine', {
      params: { id: first.id },
      body: { version: first.version, done: false },
    })
    expect(marked.lines.find((l) => l.id === first.id)!.discount).toEqual(first.discount)
    const now = (await office.ok('workOrder', { params: { id: workOrderId } })).lines.find(
      (l) => l.id === a!.id,
    )!
    const changed = await office.ok('changeLine', {
      params: { id: now.id },
      body: { version: now.version, discount: '50 %' },
    })
    // Half of 33.33 is 16.665.
    expect(changed.lines.find((l) => l.id === a!.id)).toMatchObject({
      discount: { amount: '16.67' },
      net: { amount: '16.66' },
    })
    expect(
      (
        await office.send('changeLine', {
          params: { id: now.id },
          body: { version: now.version + 1, discount: 'half' },
        })
      ).body.errors?.[0]?.path,
    ).toBe('discount')
  })
  it('goodwill comes besides the level, which stays; a level is never taken off a price that was agreed, also when the line is changed', async () => {
    const customer = await callerNamed(office, 'hallam')
    const [ids, labour] = [{ workOrderId: id(), visitId: id() }, await found('L-STD')]
    await office.ok('bookCall', {
      params: { id: id() },
      body: {
        ...ids,
        customerId: customer.customerId,
        siteId: customer.sites[0]!.id,
        problem: 'Goodwill',
      },
    })
    const add = async () =>
      (
        await office.ok('addLines', {
          params: { id: ids.workOrderId },
          body: { lines: [{ id: id(), entryId: labour.id, quantity: '1' }] },
        })
      ).lines.at(-1)!
    // 15 % of 128.00 by the agreement; a tenth of the 108.80 that are left.
    expect((await add()).discount.amount).toBe('19.20')
    const less = await office.ok('discountLines', {
      params: { id: ids.workOrderId },
      body: { discount: '10 %', words: 'came late' },
    })
    expect(less.lines.map((l) => [l.discount.amount, l.net.amount])).toEqual([['30.08', '97.92']])
    // Each is named as what it is, to the office and on the paper.
    expect(less.lines[0]!.off.map(({ why, amount }) => [why, amount.amount])).toEqual([
      ['by Care agreement', '19.20'],
      ['came late', '10.88'],
    ])
    expect(less.history[0]!.text).toMatch(/10 %\): came late$/)
    const { signatures } = await office.ok('sign', {
      params: { id: ids.workOrderId },
      body: { id: id(), name: 'Somebody', image: DOT, shownTotal: less.price.total.amount },
    })
    const signed = await office.ok('signedPaper', { params: { id: signatures[0]!.id } })
    expect(signed.lines[0]!.beneath).toBe('less $19.20 by Care agreement, less $10.88 came late')
    expect(
      (
        await office.ok('discountLines', {
          params: { id: ids.workOrderId },
          body: { discount: '0' },
        })
      ).lines[0]!.discount.amount,
    ).toBe('19.20')
    const work = await office.ok('workOrder', { params: { id: ids.workOrderId } })
    await office.ok('keepWorkRates', {
      params: { id: ids.workOrderId },
      body: { version: work.version, rates: [{ entryId: labour.id, price: '99' }] },
    })
    const agreed = await add()
    const two = await office.ok('changeLine', {
      params: { id: agreed.id },
      body: { version: agreed.version, quantity: '2' },
    })
    expect(two.lines.find((l) => l.id === agreed.id)).toMatchObject({
      discount: { amount: '0.00' },
      net: { amount: '198.00' },
      priceFrom: 'agreed for this work order',
    })
    // What the level takes off follows the line.
    const own = two.lines[0]!
    expect(
      (
        await office.ok('changeLine', {
          params: { id: own.id },
          body: { version: own.version, quantity: '2', discount: own.discount.amount },
        })
      ).lines[0]!.discount.amount,
    ).toBe('38.40')
  })
  it('minutes that no line covers are priced as the hours of their visit are: by the time of day, less the level', async () => {
    const customer = await callerNamed(office, 'hallam')
    expect(customer.level).toBe('Care agreement')
    const ids = { workOrderId: id(), visitId: id() }
    const rosa = (await office.ok('schedule')).technicians.find((t) =>
      t.name.startsWith('Rosa'),
    )!.id
    await office.ok('bookCall', {
      params: { id: id() },
      body: {
        ...ids,
        customerId: customer.customerId,
        siteId: customer.sites[0]!.id,
        problem: 'In the evening',
        date: '2026-11-26',
        start: '19:00',
        technicianId: rosa,
        override: true,
      },
    })
    for (const [time, act] of [
      ['18:45', 'set_off'],
      ['19:00', 'arrive'],
      ['20:00', 'finish'],
    ] as const) {
      setClock(`2026-11-26T${time}`)
      await office.ok('clock', { params: { id: ids.visitId }, body: { act } })
    }
    const { time } = await office.ok('workOrder', { params: { id: ids.workOrderId } })
    const charged = (
      await office.ok('chargeTime', { params: { id: ids.workOrderId }, body: { lineId: id() } })
    ).lines.at(-1)!
    setClock('2026-11-24T10:21')
    // An hour at 128.00 × 1.25; the agreement takes 15 % off.
    expect([time.uncoveredSeconds, time.charge.amount]).toEqual([3600, '136.00'])
    expect(charged).toMatchObject({
      unitPrice: '160.00',
      net: { amount: '136.00' },
      priceFrom: 'price book, Evening × 1.25 on labour',
      coversSeconds: 3600,
    })
  })
  it('the work order’s rate stands over the customer’s, the customer’s over the book, what is typed over all', async () => {
    const labour = (await found('L-STD')).id
    const customer = await callerNamed(office, 'broadmere')
    const ids = { workOrderId: id(), visitId: id() }
    await office.ok('bookCall', {
      params: { id: id() },
      body: {
        ...ids,
        customerId: customer.customerId,
        siteId: customer.sites[0]!.id,
        problem: 'Rates',
      },
    })
    const add = async (over: object = {}) =>
      (
        await office.ok('addLines', {
          params: { id: ids.workOrderId },
          body: { lines: [{ id: id(), entryId: labour, quantity: '1', ...over }] },
        })
      ).lines.at(-1)!
    expect(await add()).toMatchObject({
      unitPrice: '118.00',
      bookPrice: '128.00',
      priceFrom: 'agreed with this customer',
    })
    const work = await office.ok('workOrder', { params: { id: ids.workOrderId } })
    expect(work.rates.find((r) => r.entryId === labour)).toMatchObject({
      book: '128.00',
      customer: '118',
      workOrder: null,
    })
    await office.ok('keepWorkRates', {
      params: { id: ids.workOrderId },
      body: { version: work.version, rates: [{ entryId: labour, price: '99' }] },
    })
    expect(await add()).toMatchObject({
      unitPrice: '99.00',
      priceFrom: 'agreed for this work order',
    })
    expect(await add({ unitPrice: '70' })).toMatchObject({
      unitPrice: '70.00',
      priceFrom: 'typed here',
    })
    expect(
      (
        await office.send('keepWorkRates', {
          params: { id: ids.workOrderId },
          body: { version: 1, rates: [] },
        })
      ).body.code,
    ).toBe('stale')
    expect(
      (
        await office.send('keepWorkRates', {
          params: { id: ids.workOrderId },
          body: {
            version: work.version + 3,
            rates: [{ entryId: (await found('P-1001')).id, price: '1' }],
          },
        })
      ).body.errors?.[0]?.path,
    ).toBe('rates[0].entryId')
  })
})
describe('suppliers', () => {
  const search = (key: string, q: string) =>
    office.ok('supplierProducts', { params: { key }, query: { q } })
  it('a catalogue is searched, and the same thing compared at both', async () => {
    expect((await office.ok('suppliers')).items.map((s) => s.id)).toEqual(['northmoor', 'tarnside'])
    const { items } = await search('northmoor', 'check valve 1 in')
    expect(items.length).toBeGreaterThan(2)
    const both = await office.ok('compareSuppliers', { params: { key: items[0]!.makerNumber } })
    const there = both.items.filter((o) => o.stock > 0).map((o) => Number(o.cost))
    expect([new Set(both.items.map((o) => o.supplierId)).size, there]).toEqual([
      both.items.length,
      [...there].sort((a, b) => a - b),
    ])
  })
  it('a basket becomes lines at cost times our markup; what the book knows is its entry', async () => {
    const known = (await search('northmoor', 'NM-10001')).items[0]!
    const other = (await search('tarnside', 'torque arrestor')).items[0]!
    expect([known.entry?.code, other.entry ?? null]).toEqual(['P-1001', null])
    const { workOrderId } = await somethingToBill(office)
    const work = await office.ok('addBasket', {
      params: { id: workOrderId },
      body: {
        items: [
          { id: id(), supplierId: 'northmoor', partNumber: known.partNumber, quantity: '1' },
          { id: id(), supplierId: 'tarnside', partNumber: other.partNumber, quantity: '2' },
        ],
      },
    })
    const [a, b] = work.lines.slice(1)
    expect([a!.unitPrice, a!.partNumber, b!.unitPrice, b!.supplier, b!.quantity]).toEqual([
      known.price,
      known.partNumber,
      other.price,
      'Tarnside Trade',
      '2',
    ])
    expect([Number(a!.unitCost), Number(b!.unitCost)]).toEqual([
      Number(known.cost),
      Number(other.cost),
    ])
  })
  it('what was bought stays with a quote’s line when the quote is changed', async () => {
    const customer = await callerNamed(office, 'lowfold')
    const quote = await office.ok('beginQuote', {
      body: {
        id: id(),
        customerId: customer.customerId,
        siteId: customer.sites[0]!.id,
        title: 'Bought',
        lines: [],
      },
    })
    const product = (await search('tarnside', 'heat tape')).items[0]!
    const bought = await office.ok('addQuoteBasket', {
      params: { id: quote.id },
      body: {
        version: quote.version,
        items: [
          { id: id(), supplierId: 'tarnside', partNumber: product.partNumber, quantity: '1' },
        ],
      },
    })
    const line = bought.lines[0]!
    const changed = await office.ok('changeQuote', {
      params: { id: quote.id },
      body: {
        version: bought.version,
        lines: [
          {
            id: line.id,
            entryId: null,
            kind: 'part',
            name: line.name,
            quantity: '3',
            unitPrice: line.unitPrice,
          },
        ],
      },
    })
    expect([changed.lines[0]!.quantity, Number(changed.lines[0]!.unitCost)]).toEqual([
      '3',
      Number(product.cost),
    ])
  })
  it('a number that is not theirs is said at its place', async () => {
    const { workOrderId } = await somethingToBill(office)
    const refused = await office.send('addBasket', {
      params: { id: workOrderId },
      body: { items: [{ id: id(), supplierId: 'northmoor', partNumber: 'NM-0', quantity: '1' }] },
    })
    expect([refused.status, refused.body.errors?.[0]?.path]).toEqual([422, 'items[0].partNumber'])
  })
  it('whoever does not see costs sees what we sell at', async () => {
    const db = await database()
    await db.query('UPDATE people SET sees_cost = FALSE WHERE email = "piet@demo.test"')
    try {
      const piet = await signedIn({ email: 'piet@demo.test' })
      const { items } = await piet.ok('supplierProducts', {
        params: { key: 'northmoor' },
        query: { q: 'NM-10001' },
      })
      expect([
        items[0]!.cost,
        Number(items[0]!.price) > 0,
        (await piet.ok('wholeBook')).items.every((e) => e.cost === null),
      ]).toEqual([null, true, true])
    } finally {
      await db.query('UPDATE people SET sees_cost = TRUE WHERE email = "piet@demo.test"')
      await db.end()
    }
  })
})
describe('the browser’s copy of the book', () => {
  it('is sent once for each state of the book, compressed', async () => {
    const first = await ines.raw('GET', '/api/v1/price-book/whole', undefined, {
      'Accept-Encoding': 'gzip',
    })
    const { stamp } = first.body as unknown as Answer<'wholeBook'>
    const again = await ines.ok('wholeBook', { query: { stamp } })
    expect([first.headers.get('content-encoding'), again.same, again.items]).toEqual([
      'gzip',
      true,
      [],
    ])
    await make({ code: 'WB-1', name: 'Whole one', cost: '1' })
    expect((await ines.ok('wholeBook', { query: { stamp } })).same).toBe(false)
  })
  it('has what a person keeps at hand, for that person', async () => {
    const entry = (await found('T-269')).id
    await ines.ok('pinEntry', { params: { id: entry }, body: { on: true } })
    await ines.ok('pinEntry', { params: { id: entry }, body: { on: true } })
    expect([
      (await ines.ok('wholeBook')).mine.includes(entry),
      (await office.ok('wholeBook')).mine.includes(entry),
    ]).toEqual([true, false])
    await ines.ok('pinEntry', { params: { id: entry }, body: { on: false } })
    expect((await ines.ok('wholeBook')).mine).not.toContain(entry)
  })
})
describe('how the book is used', () => {
  it('says what sells, and what nobody sells', async () => {
    const usage = await office.ok('bookUsage')
    const sum = usage.sold.map((s) => Number(s.net.amount))
    expect([sum.length > 20, sum]).toEqual([true, [...sum].sort((a, b) => b - a)])
    const sold = new Set(usage.sold.map((s) => s.id))
    expect(usage.dormant.filter((d) => sold.has(d.id))).toEqual([])
    expect(
      usage.alike.some((g) => g.entries.some((e) => e.name === 'Relief valve 100 psi, ¾ in')),
    ).toBe(true)
  })
  it('hours as they were worked become those of the book, the further ones in proportion, and prices follow', async () => {
    const [labour] = (await office.ok('pricing')).labour
    const task = await make({
      code: 'HW-1',
      kind: 'task',
      name: 'Timed task',
      taxClass: 'work',
      seconds: 7200,
      furtherSeconds: 3600,
      labourId: labour!.id,
    })
    const before = Number((await office.ok('priceEntry', { params: { id: task } })).price)
    await office.ok('takeHours', { body: { id: id(), entries: [{ id: task, seconds: 3600 }] } })
    const after = await office.ok('priceEntry', { params: { id: task } })
    expect([
      after.seconds,
      after.furtherSeconds,
      Number(after.price) < before,
      after.history[0]!.title,
    ]).toEqual([3600, 1800, true, 'Hours as they were worked'])
  })
  it('retires and brings back', async () => {
    const one = await make({ code: 'RT-1', name: 'Retire me', cost: '1' })
    expect((await office.ok('retireEntries', { body: { ids: [one], retired: true } })).count).toBe(
      1,
    )
    expect(await found('RT-1')).toBeUndefined()
    expect((await office.ok('retireEntries', { body: { ids: [one], retired: false } })).count).toBe(
      1,
    )
    expect(await found('RT-1')).toBeDefined()
  })
})
describe('pictures and paper', () => {
  const PNG =
    'data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=='
  it('a picture is kept with its entry, and taken away', async () => {
    const one = await make({ code: 'PI-1', name: 'Pictured', cost: '1' })
    expect(
      (
        await office.send('keepPricePicture', {
          params: { id: one },
          body: { version: 1, data: 'data:image/png;base64,PHN2Zz4=' },
        })
      ).body.code,
    ).toBe('not_a_picture')
    const kept = await office.ok('keepPricePicture', {
      params: { id: one },
      body: { version: 1, data: PNG },
    })
    expect(
      (await ines.send('pricePicture', { params: { id: kept.pictureId! } })).headers.get(
        'content-type',
      ),
    ).toBe('image/png')
    expect(
      (
        await office.send('keepPricePicture', {
          params: { id: one },
          body: { version: 1, data: '' },
        })
      ).body.code,
    ).toBe('stale')
    expect(
      (
        await office.ok('keepPricePicture', {
          params: { id: one },
          body: { version: kept.version, data: '' },
        })
      ).pictureId,
    ).toBeNull()
  })
  it('the book as a PDF, by category and level, with pictures', async () => {
    const levels = (await office.ok('setUp')).levels.map((l) => l.id)
    const paper = await office.send('bookPdf', {
      query: { category: 'Tank', levels: levels.join(','), pictures: 'yes' },
    })
    expect([paper.status, paper.text.slice(0, 5)]).toEqual([200, '%PDF-'])
    expect((await office.send('bookPdf', { query: { levels: id() } })).status).toBe(404)
    expect((await office.send('bookPdf', { query: { ours: 'no' } })).body.errors).toMatchObject([
      { path: 'levels' },
    ])
  })
  it('an assembly on paper costs at a level what its lines cost at that level, and a level alone hides our price', async () => {
    const [labour, agreement] = [
      await found('L-STD'),
      (await office.ok('setUp')).levels.find((l) => /agreement/i.test(l.name))!,
    ]
    await make({
      code: 'AS-P',
      kind: 'assembly',
      name: 'Papered hours',
      category: 'Paper only',
      parts: [{ partId: labour.id, quantity: '3' }],
    })
    const words = async (query: object) =>
      textOfPdf(
        (
          await office.send('bookPdf', {
            query: { category: 'Paper only', levels: agreement.id, ...query },
          })
        ).bytes,
      )
    const [ours, theirs] = [
      3 * Number(labour.price),
      3 * (Number(labour.price) - Number(labour.agreementSaving.amount)),
    ]
    expect(theirs).toBeLessThan(ours)
    expect(await words({})).toMatch(
      new RegExp(`Papered hours\\s+\\$${ours.toFixed(2)}\\s+\\$${theirs.toFixed(2)}`),
    )
    expect(await words({ ours: 'no' })).toMatch(
      new RegExp(`Papered hours\\s+\\$${theirs.toFixed(2)}`),
    )
  })
})
describe('prices typed one by one', () => {
  const preview = (each: object[], client = office) =>
    client.ok('previewPrices', { body: { rule: 'each', each } })
  it('a price that is typed is fixed; a cost takes a price by the rule along; both are looked at first', async () => {
    const [a, b] = [
      await make({ code: 'GR-1', name: 'Grid one', cost: '10' }),
      await make({ code: 'GR-2', name: 'Grid two', cost: '10' }),
    ]
    const seen = await preview([
      { id: a, price: '23' },
      { id: b, cost: '11' },
    ])
    expect(seen.rows.map((r) => [r.becomes.price, r.becomes.pricing])).toEqual([
      ['23.00', 'fixed'],
      ['24.20', 'rule'],
    ])
    expect((await found('GR-1')).price).toBe('22.00')
  })
  it('a new cost of a part is one of the task that it stands in, whose fixed price is proposed anew; hours count in the margin', async () => {
    const labour = await found('L-STD')
    const part = await make({ code: 'GR-9', name: 'Inner part', cost: '10' })
    const task = await make({
      code: 'GT-9',
      kind: 'task',
      name: 'Outer task',
      taxClass: 'work',
      seconds: 3600,
      furtherSeconds: 3600,
      labourId: labour.id,
      pricing: 'fixed',
      price: '250',
      furtherPrice: '250',
      cost: '777',
      parts: [{ partId: part, quantity: '2' }],
    })
    const before = await office.ok('priceEntry', { params: { id: task } })
    // Two parts at 10.00 and an hour at 41.50 leave 188.50 of 250.00.
    expect([before.cost, before.costs, before.margin]).toEqual([
      '20',
      { material: '20.00', labour: '41.50' },
      '0.754',
    ])
    const seen = await preview([{ id: part, cost: '15' }])
    const row = seen.rows.find((r) => r.id === task)!
    expect([
      row.follows,
      row.was.cost,
      row.becomes.cost,
      row.becomes.price,
      row.marginWas,
      row.marginBecomes,
    ]).toEqual([true, '20', '30', '250.00', '0.754', '0.714'])
    // By the rule: an hour at 128.00 and two at 15.00 × 2.2, 3 % sundries, up to a whole.
    expect(row.proposed).toBe('200.00')
    expect(await ines.send('priceEntry', { params: { id: task } }).then((r) => r.status)).toBe(403)
  })
  it('what is asked about stands first, and says why', async () => {
    const [even, odd] = [
      await make({ code: 'GR-7', name: 'Even', cost: '10' }),
      await make({ code: 'GR-8', name: 'Odd', cost: '10' }),
    ]
    const seen = await preview([
      { id: even, price: '23' },
      { id: odd, price: '9' },
    ])
    expect(seen.rows.map((r) => [r.code, r.odd])).toEqual([
      ['GR-8', ['far', 'below']],
      ['GR-7', []],
    ])
  })
  it('more than two fifths up or down, and less than the cost, are asked about', async () => {
    const one = await make({ code: 'GR-3', name: 'Grid three', cost: '10' })
    const asked = async (price: string) => (await preview([{ id: one, price }])).questions.length
    // From 22.00: 30.80 is two fifths more, and 9.00 is less than the cost and two fifths down.
    expect([
      await asked('30.80'),
      await asked('30.81'),
      await asked('13.20'),
      await asked('13.19'),
      await asked('9'),
    ]).toEqual([0, 1, 0, 1, 2])
  })
  it('a fixed price with a new cost keeps, or follows the rule from then on', async () => {
    const one = await make({
      code: 'GR-4',
      name: 'Grid four',
      cost: '10',
      pricing: 'fixed',
      price: '25',
    })
    expect((await preview([{ id: one, cost: '20' }])).rows[0]).toMatchObject({
      becomes: { price: '25.00', pricing: 'fixed' },
      proposed: '36.00',
    })
    expect((await preview([{ id: one, cost: '20', byRule: true }])).rows[0]).toMatchObject({
      becomes: { price: '36.00', pricing: 'rule' },
      proposed: null,
    })
  })
  it('whoever does not see costs changes none, in the grid or by a list', async () => {
    const one = await make({ code: 'GR-5', name: 'Grid five', cost: '10' })
    const db = await database()
    await db.query(`UPDATE company SET grants = '{"costs.see": ["books"]}'`)
    try {
      const owner = await signedIn('office')
      expect((await preview([{ id: one, cost: '99' }], owner)).rows).toEqual([])
      const listId = id()
      await owner.ok('stagePrices', {
        params: { id: listId },
        body: {
          supplier: '',
          head: ['code', 'cost', 'name'],
          fileName: 'x.csv',
          columns: ['code', 'cost', 'name'],
          rows: [{ row: 2, cells: ['GR-5', '99', 'Renamed'] }],
        },
      })
      const { stamp } = await owner.ok('lookAtPrices', { params: { id: listId }, body: PLAIN })
      await owner.ok('takePrices', { params: { id: listId }, body: { ...PLAIN, stamp } })
      const csvOfOwner = (
        await owner.send('exportCsv', { params: { what: 'price-book' } })
      ).text.split('\r\n')[0]
      expect(csvOfOwner).not.toContain('cost')
    } finally {
      await db.query(`UPDATE company SET grants = '{}'`)
      await db.end()
    }
    expect(await office.ok('priceEntry', { params: { id: one } })).toMatchObject({
      cost: '10',
      name: 'Renamed',
      price: '22.00',
    })
  })
  it('an entry that is gone is said at its place', async () => {
    const refused = await office.send('previewPrices', {
      body: { rule: 'each', each: [{ id: id(), price: '1' }] },
    })
    expect([refused.status, refused.body.errors?.[0]?.path]).toEqual([422, 'each[0].id'])
  })
})
describe('pricing by the time of day', () => {
  it.each([
    ['times[0].to', { from: '10:00', to: '10:00' }],
    ['times[0].from', { from: '25:00' }],
    ['times[0].days', { days: [] }],
    ['times[0].name', { name: '' }],
    ['times[0].factor', { factor: 'twice' }],
  ])('refuses at %s', async (path, over) => {
    const rules = await office.ok('pricing')
    const refused = await office.send('keepPricing', {
      body: {
        id: id(),
        markups: rules.markups,
        sundriesRate: rules.sundriesRate,
        minimum: rules.minimum,
        rounding: rules.rounding,
        times: [{ name: 'Night', days: [1], from: '22:00', to: '06:00', factor: '1.5', ...over }],
      },
    })
    expect([refused.status, refused.body.errors?.[0]?.path]).toEqual([422, path])
    expect((await office.ok('pricing')).times.map((t) => t.name)).toEqual([
      'Evening',
      'Weekend',
      'Holiday',
    ])
  })
  it('what a visit at night is sold keeps where its price came from, also when only its quantity changes', async () => {
    const customer = await callerNamed(office, 'lowfold')
    const ids = { workOrderId: id(), visitId: id() }
    await office.ok('bookCall', {
      params: { id: id() },
      body: {
        ...ids,
        customerId: customer.customerId,
        siteId: customer.sites[0]!.id,
        problem: 'At night',
        date: '2026-12-05',
        start: '10:00',
        technicianId: null,
        durationSeconds: 3600,
        override: true,
      },
    })
    const line = (
      await office.ok('addLines', {
        params: { id: ids.workOrderId },
        body: {
          visitId: ids.visitId,
          lines: [{ id: id(), entryId: (await found('L-STD')).id, quantity: '1' }],
        },
      })
    ).lines[0]!
    expect(line).toMatchObject({
      unitPrice: '192.00',
      bookPrice: '128.00',
      priceFrom: 'price book, Weekend × 1.5 on labour',
    })
    const more = (
      await office.ok('changeLine', {
        params: { id: line.id },
        body: { version: line.version, quantity: '2' },
      })
    ).lines[0]!
    expect(more).toMatchObject({
      unitPrice: '192.00',
      quantity: '2',
      priceFrom: 'price book, Weekend × 1.5 on labour',
    })
  })
})
