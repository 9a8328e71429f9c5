// Where a firm's places are: the yard, a table of postcodes, and sites that stand nowhere until somebody says where.
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { id, signedIn, type Client } from './client'

let owner: Client
let office: Client
let yard = ''
beforeAll(async () => {
  ;[owner, office] = await Promise.all([signedIn('owner'), signedIn('office')])
  yard = (await owner.ok('scheduleSetUp')).yard
})
afterAll(async () => {
  await owner.ok('forgetPostcodes')
  const shown = (await owner.ok('scheduleSetUp')).yard
  await owner.ok('keepYard', { body: { at: yard, shown } })
})
const add = (postcode: string) =>
  office.ok('newCustomer', {
    body: {
      ...{ id: id(), siteId: id(), name: 'Ursel Nowhere', line1: '1 Far End', town: '', postcode },
    },
  })
const site = async (made: Awaited<ReturnType<typeof add>>) =>
  (await office.ok('customer', { params: { id: made.customerId } })).sites[0]!
const openings = (siteId: string) =>
  office.ok('openings', { body: { siteId, durationSeconds: 1800 } })
const keep = (places: object[], dryRun = false) =>
  owner.ok('keepPostcodes', { body: { places, dryRun } })
const FAR = { postcode: 'zq9', town: 'Farend', lat: 42.61, lon: -75.12 }

describe('a table of postcodes', () => {
  it('places what stood nowhere, and what is entered later; tried dry it places nothing', async () => {
    const made = await add('ZQ9-77')
    const one = await site(made)
    expect(one.place).toBe('')
    expect((await openings(one.id)).placeKnown).toBe(false)
    const before = await office.ok('postcodes')
    expect(before).toMatchObject({ count: 0, missing: expect.arrayContaining(['ZQ9-77']) })
    const need = async () =>
      (await owner.ok('scheduleSetUp')).guide.find(({ code }) => code === 'sites')!
    expect(await need()).toMatchObject({ done: false, where: '#where' })
    expect(await keep([FAR], true)).toEqual({ sites: 1 })
    expect((await site(made)).place).toBe('')
    expect(await keep([FAR])).toEqual({ sites: 1 })
    // The same piece sent once more changes nothing.
    expect(await keep([FAR])).toEqual({ sites: 0 })
    expect((await site(made)).place).toBe('42.61000, -75.12000')
    expect(await openings(one.id)).toMatchObject({ placeKnown: true })
    const now = await office.ok('postcodes')
    expect([now.count, now.sitesWithout]).toEqual([1, before.sitesWithout - 1])
    const later = await site(await add('zq9 1'))
    expect(later.place).toBe('42.61000, -75.12000')
    // The whole postcode is more exact than its beginning.
    await keep([{ ...FAR, postcode: 'ZQ9 2', lat: 42.7 }])
    expect((await site(await add('ZQ9 2'))).place).toBe('42.70000, -75.12000')
  })
  it('changes nothing of an import, which is still taken back whole', async () => {
    const importId = id()
    const row = ['Ursel Imported', '3 Far End', 'ZQ4']
    const columns = ['name', 'site_address', 'site_postcode'] as const
    await office.ok('importPiece', {
      params: { id: importId },
      body: { fileName: 'far.csv', dry: false, first: 2, columns: [...columns], rows: [row] },
    })
    expect(await keep([{ ...FAR, postcode: 'ZQ4' }])).toEqual({ sites: 1 })
    expect(await office.ok('undoImport', { params: { id: importId } })).toMatchObject({ kept: 0 })
  })
  it('moves nothing that stands somewhere, and is taken away without it', async () => {
    await keep([FAR])
    const made = await add('ZQ9')
    await keep([{ ...FAR, lat: 43 }])
    expect((await site(made)).place).toBe('42.61000, -75.12000')
    expect(await owner.ok('forgetPostcodes')).toMatchObject({ count: 0 })
    expect((await site(made)).place).toBe('42.61000, -75.12000')
  })
  it('is refused where it says no place on the earth, whole', async () => {
    const wrong = [FAR, { ...FAR, postcode: 'ZQ8', lat: 91 }]
    const refused = await owner.send('keepPostcodes', { body: { places: wrong, dryRun: false } })
    expect(refused).toMatchObject({ status: 422, body: { errors: [{ path: 'places[1].lat' }] } })
    expect((await office.ok('postcodes')).count).toBe(0)
    const books = await signedIn('books')
    expect((await books.send('keepPostcodes', { body: { places: [FAR] } })).status).toBe(403)
  })
})
describe('a site', () => {
  it('is put where somebody says, stays there when its address is put right, and goes with another town unless it is said', async () => {
    const made = await add('ZQ7')
    const change = async (values: object) => {
      const { id: siteId, version } = await site(made)
      return office.send('changeSite', { params: { id: siteId }, body: { version, ...values } })
    }
    await change({ place: '42.0987, -76.8049' })
    expect((await site(made)).place).toBe('42.09870, -76.80490')
    await change({ line1: '2 Far End' })
    expect((await site(made)).place).toBe('42.09870, -76.80490')
    expect(await change({ place: 'by the mill' })).toMatchObject({
      ...{ status: 422, body: { errors: [{ path: 'place' }] } },
    })
    await change({ postcode: 'ZQ6', place: 'geo:42.2,-76.5' })
    expect((await site(made)).place).toBe('42.20000, -76.50000')
    await change({ postcode: 'ZQ5' })
    expect((await site(made)).place).toBe('')
  })
})
describe('the yard', () => {
  const put = async (at: string, shown?: string) =>
    owner.send('keepYard', {
      body: { at, shown: shown ?? (await owner.ok('scheduleSetUp')).yard },
    })
  it('is at its coordinates or in its postcode, and one moves it at a time', async () => {
    expect((await put('42.5, -75.5')).body.yard).toBe('42.50000, -75.50000')
    expect(await put('42.6, -75.5', 'somewhere else')).toMatchObject({
      ...{ status: 409, body: { code: 'stale', current: { at: '42.50000, -75.50000' } } },
    })
    await keep([FAR])
    expect((await put('zq9')).body.yard).toBe('42.61000, -75.12000')
    expect(await put('ZQ1')).toMatchObject({ status: 422, body: { errors: [{ path: 'at' }] } })
    expect((await put('')).body.yard).toBe('')
    // The history of the set-up has it, and puts it back.
    const { items, undoable } = await owner.ok('settingsHistory')
    const [last] = items
    expect(last!.text).toBe('Where the yard is was said')
    expect(undoable).toContain(last!.id)
    await owner.ok('undoSetting', { params: { entry: String(last!.id) } })
    expect((await owner.ok('scheduleSetUp')).yard).toBe('42.61000, -75.12000')
  })
  it('of nobody moves for whoever may not', async () => {
    const dispatch = await signedIn('dispatch')
    expect((await dispatch.send('keepYard', { body: { at: '1.5, 1.5', shown: '' } })).status).toBe(
      403,
    )
  })
})
