// The firm's own kinds of work: one more, one otherwise, and work that has them.
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Answer } from '../../shared/api'
import { callerNamed, database, id, signedIn, somethingToBill, type Client } from './client'

let owner: Client
let office: Client
beforeAll(async () => {
  ;[owner, office] = await Promise.all([signedIn('owner'), signedIn('office')])
})
afterAll(async () => {
  const db = await database()
  await db.query(`UPDATE company SET work_kinds = ?`, [JSON.stringify(usual)])
  await db.end()
})
type Kind = Answer<'workKinds'>['items'][number]
const all = async () => (await owner.ok('workKinds')).items
const named = async (name: string) => (await all()).find((kind) => kind.name === name)!
const asShown = ({ code: _, gone: _of, ...kind }: Kind) => kind
let usual: Kind[] = []
const keep = (kind: Kind | null, said: object, by = owner) =>
  by.send('keepWorkKind', {
    body: {
      ...{ code: kind?.code ?? '', shown: kind && asShown(kind) },
      ...{
        ...(kind ? asShown(kind) : { minutes: 60, skills: [], charges: [], retired: false }),
        ...said,
      },
    },
  })
const book = async (kind: string, more: object = {}) => {
  const match = await callerNamed(office, 'lowfold')
  return office.send('bookCall', {
    params: { id: id() },
    body: {
      ...{ workOrderId: id(), visitId: id(), customerId: match.customerId, kind },
      ...{ siteId: match.sites[0]!.id, problem: 'Smells of gas', ...more },
    },
  })
}

describe('a kind of work', () => {
  it('is added, booked, called otherwise, and retired; work that has it keeps it', async () => {
    usual = await all()
    expect((await book('leak_search')).status).toBe(422)
    await keep(null, { name: 'Leak search', minutes: 90, skills: ['gas', 'gas'] })
    const leak = await named('Leak search')
    expect(leak).toMatchObject({ code: 'leak_search', minutes: 90, skills: ['gas'] })
    const booked = await book('leak_search')
    expect(booked.status).toBe(200)
    await keep(leak, { name: 'Gas leak', retired: true })
    expect((await owner.ok('session')).company.workKinds).toContainEqual({
      ...{ code: 'leak_search', name: 'Gas leak', minutes: 90, skills: ['gas'], retired: true },
      charges: [],
    })
    const { workOrderId } = await somethingToBill(office)
    const change = async (kind: string) => {
      const { version } = await office.ok('workOrder', { params: { id: workOrderId } })
      return office.send('writeWorkOrder', { params: { id: workOrderId }, body: { version, kind } })
    }
    expect((await change('leak_search')).status).toBe(200)
    const { history } = await office.ok('workOrder', { params: { id: workOrderId } })
    const said = history.find(({ text }) => text === 'Changed the kind of work')!
    expect(JSON.stringify(said.changes)).toContain('Gas leak')
    expect(await change('warranty')).toMatchObject({
      ...{ status: 422, body: { errors: [{ path: 'kind' }] } },
    })
    expect((await change('made_up')).status).toBe(422)
    const counted = await office.ok('callsCounted', { query: { by: 'kind' } })
    expect(counted.items.map(({ name }) => name)).toContain('Gas leak')
  })
  it('is changed by one at a time, and none is called like another', async () => {
    const service = await named('service')
    const [one, other] = await Promise.all([
      keep(service, { name: 'Yearly visit' }),
      keep(service, { minutes: 45 }),
    ])
    expect([one.status, other.status].sort()).toEqual([200, 409])
    const now = (await all()).find(({ code }) => code === 'service')!
    expect(await keep(now, { name: 'REPAIR' })).toMatchObject({
      ...{ status: 422, body: { errors: [{ path: 'name' }] } },
    })
    const same = await Promise.all([1, 2].map(() => keep(null, { name: 'Drain camera' })))
    expect(same.map(({ status }) => status).sort()).toEqual([200, 422])
    const repair = (await all()).find(({ code }) => code === 'repair')!
    expect((await keep(repair, { retired: true })).status).toBe(422)
    const books = await signedIn('books')
    expect((await keep(repair, { name: 'Repair' }, books)).status).toBe(403)
  })
  it('charges what is usual: read out, or left out for a reason that is kept', async () => {
    const { items } = await owner.ok('searchPriceBook', { query: { kind: 'charge' } })
    const [charge, other] = items
    const strange = await keep(null, { name: 'Drain search', charges: [id()] })
    expect(strange).toMatchObject({ status: 422, body: { errors: [{ path: 'charges' }] } })
    const charges = [charge!.id, charge!.id, other!.id]
    expect((await keep(null, { name: 'Drain search', charges })).status).toBe(200)
    const drain = await named('Drain search')
    expect(drain.charges).toEqual([charge!.id, other!.id])

    const forgotten = await book(drain.code)
    expect(forgotten).toMatchObject({ status: 422, body: { errors: [{ path: 'leftOut' }] } })
    expect(JSON.stringify(forgotten.body)).toContain(charge!.name)
    const entries = [{ entryId: charge!.id, quantity: '1' }]
    const leftOut = (reason: string) => [{ entryId: other!.id, reason }]
    expect((await book(drain.code, { entries })).status).toBe(422)
    expect((await book(drain.code, { entries, leftOut: leftOut(' ') })).status).toBe(422)
    const booked = await book(drain.code, { entries, leftOut: leftOut('On the way anyway') })
    expect(booked.status).toBe(200)
    const { lines, history } = await office.ok('workOrder', {
      params: { id: String(booked.body.workOrderId) },
    })
    expect(lines.map(({ name }) => name)).toEqual([charge!.name])
    expect(history.map(({ text }) => text)).toContain(
      `“${other!.name}” is not charged: On the way anyway`,
    )
    // Work of another kind has nothing usual; what is gone from the book is charged by nobody.
    expect((await book('service')).status).toBe(200)
    const db = await database()
    await db.query('UPDATE price_entries SET retired = TRUE WHERE id = ?', [other!.id])
    try {
      expect((await book(drain.code, { entries })).status).toBe(200)
      expect((await named('Drain search')).gone).toBe(1)
      expect((await keep(await named('Drain search'), { minutes: 30 })).status).toBe(200)
    } finally {
      await db.query('UPDATE price_entries SET retired = FALSE WHERE id = ?', [other!.id])
      await db.end()
    }
  })
  it('is put back from the history, while nobody changed it since', async () => {
    const before = await all()
    await keep(null, { name: 'Chimney' })
    const { items, undoable } = await owner.ok('settingsHistory')
    const entry = items.find(({ text }) => text === 'Kinds of work were changed')!
    expect(undoable).toContain(entry.id)
    await owner.ok('undoSetting', { params: { entry: String(entry.id) } })
    expect(await all()).toEqual(before)
  })
})
