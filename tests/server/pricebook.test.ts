// The price book: why a price is what it is, what follows from a change, changes as acts, two people at one entry.
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Answer } from '../../shared/api'
import { callerNamed, type Client, id, setClock, signedIn } from './client'

let office: Client
let labour: Answer<'pricing'>['labour'][number]
beforeAll(async () => {
  setClock('2026-11-24T10:21')
  office = await signedIn('office')
  labour = (await office.ok('pricing')).labour[0]!
})
afterAll(() => setClock('2026-11-24T10:21'))
const blank = {
  description: '',
  technicianNote: '',
  synonyms: '',
  unit: 'each',
  seconds: 0,
  furtherSeconds: 0,
  skills: [],
  pinned: false,
  labourId: null as string | null,
  sundriesRate: null,
  supplier: '',
  partNumber: '',
  incomeCode: '',
  activeFrom: null as string | null,
  activeTo: null as string | null,
  retired: false,
  pricing: 'rule',
  cost: '0',
  price: '0',
  furtherPrice: null as string | null,
  parts: [] as { partId: string; quantity: string }[],
}
let n = 0
const part = async (cost: string, over: object = {}) => {
  const entryId = id()
  await office.ok('keepPriceEntry', {
    params: { id: entryId },
    body: {
      ...blank,
      version: 0,
      kind: 'part',
      code: `X-${++n}`,
      category: 'Tried',
      name: `Tried part ${n}`,
      taxClass: 'goods',
      cost,
      ...over,
    },
  })
  return entryId
}
const task = async (partId: string, over: object = {}) => {
  const entryId = id()
  await office.ok('keepPriceEntry', {
    params: { id: entryId },
    body: {
      ...blank,
      version: 0,
      kind: 'task',
      code: `X-${++n}`,
      category: 'Tried',
      name: `Tried task ${n}`,
      taxClass: 'work',
      seconds: 7200,
      furtherSeconds: 3600,
      labourId: labour.id,
      parts: [{ partId, quantity: '2' }],
      ...over,
    },
  })
  return entryId
}
const entry = (entryId: string) => office.ok('priceEntry', { params: { id: entryId } })
const again = (e: Answer<'priceEntry'>, over: object = {}) =>
  office.send('keepPriceEntry', {
    params: { id: e.id },
    body: {
      ...blank,
      version: e.version,
      kind: e.kind,
      code: e.code,
      category: e.category,
      name: e.name,
      taxClass: e.taxClass,
      seconds: e.seconds,
      furtherSeconds: e.furtherSeconds,
      labourId: e.labourId,
      pricing: e.pricing,
      cost: e.cost,
      price: e.price,
      furtherPrice: e.furtherPrice,
      parts: e.parts.map((p) => ({ partId: p.partId, quantity: p.quantity })),
      ...over,
    },
  })
const wish = (over: object) => ({
  kind: 'part',
  category: 'Tried',
  rule: 'price_percent',
  percent: '4',
  ...over,
})
const prices = async () =>
  new Map(
    (await office.ok('priceBook', { query: { limit: '200', category: 'Tried' } })).items.map(
      (e) => [e.id, [e.price, e.furtherPrice, e.cost].join(' ')],
    ),
  )

describe('one entry', () => {
  it('says what its price is made of, and the parts of it sum to it', async () => {
    const t = await entry(await task(await part('109.95')))
    // Common practice of the trade: 109.95 × 1.5 = 164.93; two of them, two hours, 3 % sundries, up to a whole.
    expect(t.parts[0]!.price).toBe('164.93')
    for (const why of [t.why, t.whyFurther!])
      expect(why.reasons.reduce((sum, r) => sum + Math.round(Number(r.amount) * 100), 0)).toBe(
        Math.round(Number(why.price) * 100),
      )
    expect(t.why.reasons.map((r) => r.code)).toEqual(['labour', 'part', 'sundries', 'rounding'])
    expect(t).toMatchObject({
      price: t.why.price,
      furtherPrice: t.whyFurther!.price,
      pricing: 'rule',
    })
    expect(Number(t.whyFurther!.price)).toBeLessThan(Number(t.price))
  })
  it('is worked out here, whatever the screen said that it costs', async () => {
    expect((await entry(await part('10', { price: '99999' }))).price).toBe('22.00')
  })
  it.each([
    ['code', { code: '' }],
    ['code', { code: 'L-STD' }],
    ['name', { name: '' }],
    ['taxClass', { taxClass: 'nothing' }],
    ['activeTo', { activeFrom: '2026-12-02', activeTo: '2026-12-01' }],
    ['cost', { cost: '1,5' }],
    ['parts', { parts: [{ partId: 'SELF', quantity: '1' }] }],
  ])('refuses a wrong %s at its place', async (path, over) => {
    const other = await part('1')
    const body = JSON.parse(
      JSON.stringify({
        ...blank,
        version: 0,
        kind: 'part',
        code: `X-${++n}`,
        category: 'Tried',
        name: 'Wrong one',
        taxClass: 'goods',
        ...over,
      }).replace('SELF', other),
    ) as object
    const reply = await office.send('keepPriceEntry', { params: { id: id() }, body })
    expect([reply.status, reply.body.errors?.[0]?.path]).toEqual([422, path])
  })
  it('two people change one: the second is told, with what the first made of it', async () => {
    const seen = await entry(await part('10'))
    expect((await again(seen, { name: 'By the first' })).status).toBe(200)
    const second = await again(seen, { name: 'By the second' })
    expect([
      second.status,
      second.body.code,
      (second.body.current as { name: string }).name,
    ]).toEqual([409, 'stale', 'By the first'])
  })
  it('what is retired is not sold any more, and is still there; what is not yet on sale is not found', async () => {
    const e = await entry(await part('10', { name: 'Zirconium flange' }))
    const found = async () =>
      (await office.ok('searchPriceBook', { query: { q: 'zirconium' } })).items.length
    expect(await found()).toBe(1)
    await again(e, { name: e.name, activeFrom: '2026-12-01' })
    expect(await found()).toBe(0)
    setClock('2026-12-01T08:00')
    expect(await found()).toBe(1)
    setClock('2026-11-24T10:21')
    expect((await again(await entry(e.id), { retired: true })).status).toBe(200)
    expect(
      (await office.ok('priceBook', { query: { q: 'zirconium', retired: 'yes' } })).items.map(
        (i) => i.id,
      ),
    ).toEqual([e.id])
    expect((await entry(e.id)).name).toBe('Zirconium flange')
  })
  it('what is named alike is said while it is typed', async () => {
    const { alike } = await office.ok('tryPrice', {
      body: {
        id: id(),
        kind: 'task',
        name: 'Replace pressure tank 44 gal',
        pricing: 'fixed',
        price: '100',
      },
    })
    expect(alike.map((a) => a.name)).toContain('Replace pressure tank 44 gal, steel')
  })
  it('costs are for those who see them, and nobody else changes them', async () => {
    const dispatch = await signedIn('dispatch')
    const e = await part('40')
    const shown = await dispatch.ok('priceEntry', { params: { id: e } })
    expect([shown.cost, shown.margin, shown.why.reasons.map((r) => r.code)]).toEqual([
      null,
      null,
      ['markup'],
    ])
    expect((await dispatch.send('keepPriceEntry', { params: { id: e }, body: {} })).status).toBe(
      403,
    )
  })
})
describe('a change of prices', () => {
  it('a part that costs more takes the tasks along that it is in, in one act with its history', async () => {
    const p = await part('100')
    const t = await entry(await task(p))
    await again(await entry(p), { cost: '120' })
    const after = await entry(t.id)
    expect(Number(after.price)).toBeGreaterThan(Number(t.price))
    expect(after.price).toBe(after.why.price)
    expect(after.history[0]).toMatchObject({
      was: { price: t.price },
      became: { price: after.price },
    })
  })
  it('a part that was retired stays inside its task, and stops no change of prices', async () => {
    const p = await part('100')
    const t = await entry(await task(p))
    expect((await again(await entry(p), { retired: true })).status).toBe(200)
    expect((await again(t, { seconds: 10_800 })).status).toBe(200)
    expect(
      (await office.ok('previewPrices', { body: wish({ percent: '4' }) })).rows.some(
        (r) => r.id === p,
      ),
    ).toBe(false)
    expect((await entry(t.id)).why.reasons.some((r) => r.code === 'part')).toBe(true)
  })
  it('a fixed price stays where its parts cost more, and shows what it gives away', async () => {
    const p = await part('100')
    const t = await task(p, { pricing: 'fixed', price: '500' })
    await again(await entry(p), { cost: '200' })
    const after = await entry(t)
    expect([after.price, after.why.reasons.at(-1)!.code]).toEqual(['500.00', 'fixed'])
  })
  it('is looked at first; nothing changes before; made, and taken back, every row is as it was', async () => {
    const p = await part('50')
    await task(p)
    const before = await prices()
    const preview = await office.ok('previewPrices', { body: wish({}) })
    expect(preview.changed).toBeGreaterThan(0)
    expect(preview.follow).toBeGreaterThan(0)
    expect(preview.rows.find((r) => r.id === p)).toMatchObject({
      was: { price: '90.00' },
      becomes: { price: '93.60', pricing: 'fixed' },
      difference: '3.60',
    })
    expect(await prices()).toEqual(before)
    const act = { id: id(), title: 'four more', stamp: preview.stamp, ...wish({}) }
    const made = await office.ok('changePrices', { body: act })
    expect([made.state, made.entries]).toEqual(['applied', preview.changed + preview.follow])
    // Asked twice, done once.
    expect(await office.ok('changePrices', { body: act })).toEqual(made)
    expect((await entry(p)).price).toBe('93.60')
    expect(await office.ok('undoPrices', { params: { id: act.id } })).toMatchObject({
      left: 0,
      batch: { state: 'undone' },
    })
    expect(await prices()).toEqual(before)
  })
  it('twice, and both taken back, leaves every row as it was; in the wrong order, what stands on the other is left and counted', async () => {
    await part('70')
    const before = await prices()
    const once = async (percent: string) => {
      const w = wish({ percent })
      const act = id()
      await office.ok('changePrices', {
        body: { id: act, stamp: (await office.ok('previewPrices', { body: w })).stamp, ...w },
      })
      return act
    }
    const [first, second] = [await once('10'), await once('-5')]
    expect((await office.ok('undoPrices', { params: { id: first } })).left).toBeGreaterThan(0)
    await office.ok('undoPrices', { params: { id: second } })
    expect(await prices()).not.toEqual(before)
    const third = await once('3')
    await office.ok('undoPrices', { params: { id: third } })
    const fourth = [await once('7'), await once('2')]
    const middle = await prices()
    await office.ok('undoPrices', { params: { id: fourth[1]! } })
    await office.ok('undoPrices', { params: { id: fourth[0]! } })
    expect(await prices()).not.toEqual(middle)
  })
  it('is refused when the book changed since it was looked at', async () => {
    const { stamp } = await office.ok('previewPrices', { body: wish({}) })
    await part('5')
    const reply = await office.send('changePrices', { body: { id: id(), stamp, ...wish({}) } })
    expect([reply.status, reply.body.code]).toEqual([409, 'stale'])
  })
  it('from a day on: it waits, holds from the first minute of its day, and what was sent keeps its price', async () => {
    const p = await part('50')
    const c = await callerNamed(office, 'lowfold')
    const work = async () => {
      const ids = { workOrderId: id(), visitId: id() }
      await office.ok('bookCall', {
        params: { id: id() },
        body: { ...ids, customerId: c.customerId, siteId: c.sites[0]!.id, problem: 'Prices' },
      })
      return await office.ok('addLines', {
        params: { id: ids.workOrderId },
        body: { lines: [{ id: id(), entryId: p, quantity: '1' }] },
      })
    }
    const old = await work()
    const w = { ids: [p], rule: 'set', price: '99' }
    const made = await office.ok('changePrices', {
      body: {
        id: id(),
        holdsFrom: '2026-12-05',
        stamp: (await office.ok('previewPrices', { body: w })).stamp,
        ...w,
      },
    })
    expect(made.state).toBe('waiting')
    expect((await work()).lines[0]!.unitPrice).toBe('90.00')
    setClock('2026-12-05T00:01')
    expect((await work()).lines[0]!.unitPrice).toBe('99.00')
    setClock('2026-11-24T10:21')
    expect((await office.ok('workOrder', { params: { id: old.id } })).lines[0]!.unitPrice).toBe(
      '90.00',
    )
    expect((await office.ok('priceChanges')).items.find((b) => b.id === made.id)!.state).toBe(
      'applied',
    )
  })
  it('asks once about an odd percentage, and about selling below cost; refuses what makes no sense', async () => {
    expect(
      (await office.ok('previewPrices', { body: wish({ percent: '65' }) })).questions[0],
    ).toMatch(/65 % is unusual/)
    expect(
      (await office.ok('previewPrices', { body: wish({ percent: '-60' }) })).questions.join(),
    ).toMatch(/below their cost/)
    expect(
      (await office.send('previewPrices', { body: wish({ percent: '-101' }) })).body.errors?.[0]
        ?.path,
    ).toBe('percent')
    expect(
      (await office.send('previewPrices', { body: wish({ percent: '' }) })).body.errors?.[0]?.path,
    ).toBe('percent')
    expect(
      (await office.send('previewPrices', { body: { rule: 'set', price: '5' } })).body.errors?.[0]
        ?.path,
    ).toBe('kind')
  })
  it('the effect on the last twelve months is what was sold times the difference', async () => {
    const p = await part('50')
    const c = await callerNamed(office, 'lowfold')
    const ids = { workOrderId: id(), visitId: id() }
    await office.ok('bookCall', {
      params: { id: id() },
      body: { ...ids, customerId: c.customerId, siteId: c.sites[0]!.id, problem: 'Sold' },
    })
    await office.ok('addLines', {
      params: { id: ids.workOrderId },
      body: { lines: [{ id: id(), entryId: p, quantity: '3' }] },
    })
    const preview = await office.ok('previewPrices', {
      body: { ids: [p], rule: 'set', price: '100' },
    })
    expect([preview.effect.amount, preview.soldLines, preview.rows[0]!.sold]).toEqual([
      '30.00',
      1,
      '3',
    ])
    // Three at 90.00, less the care agreement's 5 % on parts.
    expect((await entry(p)).sold).toMatchObject({
      lines: 1,
      quantity: '3',
      net: { amount: '256.50' },
    })
  })
})
describe('the rules', () => {
  it('change the prices that follow them, in one act that is taken back; a supplier’s markup stands over the one for all', async () => {
    const [own, other] = [await part('10', { supplier: 'Northmoor' }), await part('10')]
    const { markups, sundriesRate, minimum, rounding, ending, year } = await office.ok('pricing')
    const keep = (more: object[]) =>
      office.send('keepPricing', {
        body: {
          id: id(),
          markups: [...markups, ...more],
          sundriesRate,
          minimum,
          rounding,
          ending,
          year,
        },
      })
    expect(
      (
        await keep([
          { scope: 'supplier', name: 'Northmoor', tiers: [{ fromCost: '0', multiplier: '3' }] },
        ])
      ).status,
    ).toBe(200)
    expect([(await entry(own)).price, (await entry(other)).price]).toEqual(['30.00', '22.00'])
    expect((await entry(own)).why.reasons[1]!.text).toBe('× 3: cost from 0, supplier Northmoor')
    expect(
      (await keep([{ scope: 'category', name: '', tiers: [{ fromCost: '0', multiplier: '3' }] }]))
        .body.errors?.[0]?.path,
    ).toBe(`markups[${markups.length}].name`)
    expect(
      (
        await keep([
          {
            scope: 'supplier',
            name: 'A',
            tiers: [
              { fromCost: '0', multiplier: '3' },
              { fromCost: '0.0', multiplier: '2' },
            ],
          },
        ])
      ).body.errors?.[0]?.path,
    ).toBe(`markups[${markups.length}].tiers`)
    const act = (await office.ok('priceChanges')).items.find(
      (b) => b.title === 'Rules of prices changed',
    )!
    await keep([])
    expect((await entry(own)).price).toBe('22.00')
    // The older act stands under a newer one; the newest is taken back with its rules, and each price says what its reasons say.
    const refused = await office.send('undoPrices', { params: { id: act.id } })
    expect([refused.status, refused.body.code]).toEqual([409, 'rules_changed'])
    const newest = (await office.ok('priceChanges')).items.find(
      (b) => b.title === 'Rules of prices changed',
    )!
    await office.ok('undoPrices', { params: { id: newest.id } })
    const back = await entry(own)
    expect([back.price, back.why.price]).toEqual(['30.00', '30.00'])
    await office.ok('undoPrices', { params: { id: act.id } })
    expect([(await entry(own)).price, (await office.ok('pricing')).markups.length]).toEqual([
      '22.00',
      markups.length,
    ])
  })
})
