// Who the firm is: what stands on papers from now on; what was made before stays as it was.
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Answer } from '../../shared/api'
import sharp from 'sharp'
import { Client, id, signedIn, somethingToBill } from './client'

let owner: Client
let was: Answer<'firm'>
beforeAll(async () => {
  owner = await signedIn('owner')
  was = await owner.ok('firm')
})
const change = async (values: object) => {
  const { version } = await owner.ok('firm')
  return owner.send('changeFirm', { body: { version, ...values } })
}
afterAll(async () => {
  const { version: _, timeZones: _z, currency: _c, logoId: _l, ...before } = was
  await change(before)
})
const billed = async () => {
  const { workOrderId } = await somethingToBill(owner)
  return owner.ok('makeInvoice', { params: { id: workOrderId }, body: { id: id() } })
}

describe('what the firm’s papers say', () => {
  it('is changed for papers that are made from then on, part by part', async () => {
    const before = await billed()
    const now = (await change({ name: 'Reed & Daughters', phone: '6075550142' })).body
    expect(now).toMatchObject({
      ...{ name: 'Reed & Daughters', phone: '(607) 555-0142', line1: was.line1 },
    })
    const after = await billed()
    expect(after.paper.seller).toMatchObject({ name: 'Reed & Daughters', phone: '(607) 555-0142' })
    const old = await owner.ok('invoice', { params: { id: before.id } })
    expect(old.paper.seller.name).toBe(was.name)
  })
  it('has a registration, an account that can be one, and whom cheques name', async () => {
    const account = { iban: 'gb82 west 1234 5698 7654 32', bic: 'WESTGB22', chequeName: 'Reed' }
    const now = (await change({ ...account, registration: 'Larkmoor 4711' })).body
    expect(now).toMatchObject({ iban: 'GB82WEST12345698765432', registration: 'Larkmoor 4711' })
    const { paper } = await billed()
    expect(paper.payTo).toContain('IBAN GB82 WEST 1234 5698 7654 32, BIC WESTGB22\nCheques to Reed')
    expect(paper.seller.registration).toBe('Larkmoor 4711')
    for (const [part, value] of [
      ['iban', 'GB82WEST12345698765431'],
      ['bic', 'WEST'],
    ])
      expect(await change({ [part!]: value })).toMatchObject({
        ...{ status: 422, body: { errors: [{ path: part }] } },
      })
  })
  it('has a logo, drawn anew, which papers from before do not get and those with it keep', async () => {
    const png = await sharp({
      create: { width: 3000, height: 900, channels: 3, background: '#1d5c47' },
    })
      .png()
      .toBuffer()
    const logo = async (data: string) => {
      const { version } = await owner.ok('firm')
      return owner.send('keepLogo', { body: { version, data } })
    }
    const before = await billed()
    const { logoId } = (await logo(png.toString('base64'))).body as { logoId: string }
    const nobody = new Client()
    const shown = await nobody.send('logo', { params: { id: logoId } })
    expect((await sharp(shown.bytes).metadata()).width).toBe(900)
    const after = await billed()
    expect([before.paper.seller.logoId, after.paper.seller.logoId]).toEqual([null, logoId])
    await logo('')
    const { paper } = await owner.ok('invoice', { params: { id: after.id } })
    expect(paper.seller.logoId).toBe(logoId)
    const drawn = await owner.send('invoicePdf', { params: { id: after.id } })
    expect(drawn.bytes.includes('/Subtype /Image')).toBe(true)
    const plain = await owner.send('invoicePdf', { params: { id: before.id } })
    expect(plain.bytes.includes('/Subtype /Image')).toBe(false)
    expect((await logo(Buffer.from('no picture').toString('base64'))).status).toBe(422)
  })
  it('says when invoices fall due that nobody agreed otherwise on', async () => {
    await change({ terms: { kind: 'receipt' } })
    const { paper } = await billed()
    expect(paper.dueOn).toBe(paper.issueOn)
  })
  it('is refused to whoever read it before somebody else changed it, with what stands there', async () => {
    const { version } = await owner.ok('firm')
    await change({ town: 'Withy Cross' })
    const late = await owner.send('changeFirm', { body: { version, town: 'Stonebeck' } })
    expect(late).toMatchObject({
      status: 409,
      body: { code: 'stale', current: { town: 'Withy Cross' } },
    })
  })
  it('says how days are written, in a zone of the country', async () => {
    expect((await change({ locale: 'en-GB', timeZone: 'America/Chicago' })).body).toMatchObject({
      ...{ locale: 'en-GB', timeZone: 'America/Chicago', currency: 'USD' },
    })
    expect((await owner.ok('session')).company).toMatchObject({ locale: 'en-GB' })
    await change({ locale: was.locale, timeZone: was.timeZone })
  })
  it('has prices that mean what they meant when they were told', async () => {
    expect(await change({ taxMode: 'included' })).toMatchObject({
      ...{ status: 422, body: { errors: [{ path: 'taxMode' }] } },
    })
  })
  it('has a name, and a mail address that can be one', async () => {
    for (const [wrong, path] of [
      [{ name: ' ' }, 'name'],
      [{ email: 'nowhere' }, 'email'],
      [{ terms: { kind: 'someday' } }, 'terms.kind'],
      [{ locale: 'no such way' }, 'locale'],
      [{ timeZone: 'Asia/Tokyo' }, 'timeZone'],
    ] as const)
      expect(await change(wrong)).toMatchObject({ status: 422, body: { errors: [{ path }] } })
  })
})

describe('what was set up', () => {
  const latest = async () => {
    const { items, undoable } = await owner.ok('settingsHistory')
    return { entry: items[0]!, undoable }
  }
  const undo = (entry: number, who: Client = owner) =>
    who.send('undoSetting', { params: { entry: String(entry) } })
  it('is said, from what to what, and put back in one act, which is said, too', async () => {
    const { town } = await owner.ok('firm')
    await change({ town: 'High Tarn', email: 'tarn@example.com' })
    const { entry, undoable } = await latest()
    expect(entry.changes).toContainEqual({ what: 'town', from: town, to: 'High Tarn' })
    expect(undoable).toContain(entry.id)
    expect((await undo(entry.id)).status).toBe(200)
    expect((await owner.ok('firm')).town).toBe(town)
    const after = await latest()
    expect(after.entry.id).not.toBe(entry.id)
    expect(after.entry.changes).toContainEqual({ what: 'town', from: 'High Tarn', to: town })
  })
  it('is put back only while it is as it was left', async () => {
    await change({ town: 'High Tarn' })
    const { entry } = await latest()
    await change({ town: 'Fenny Marsh' })
    expect(await undo(entry.id)).toMatchObject({ status: 409, body: { code: 'stale' } })
    // What else was changed since is in nobody’s way.
    const last = (await latest()).entry
    await change({ postcode: '04109' })
    expect((await undo(last.id)).status).toBe(200)
    expect(await owner.ok('firm')).toMatchObject({ town: 'High Tarn', postcode: '04109' })
  })
  it.each([
    ['keepWarranty', { months: 7 }, async () => (await owner.ok('setUp')).warrantyMonths],
    [
      'keepBilledTime',
      {
        ...{ way: 'up', stepMinutes: 30, leastMinutes: 60 },
        shown: { way: 'nearest', stepMinutes: 6, leastMinutes: 6 },
      },
      async () => (await owner.ok('setUp')).billedTime,
    ],
    ['keepSources', { add: 'a kite' }, async () => (await owner.ok('setUp')).sources],
    [
      'keepStateLabels',
      { labels: [{ state: 'paused', label: 'resting' }] },
      async () => (await owner.ok('session')).company.stateLabels,
    ],
    [
      'keepLimits',
      {
        roles: [{ role: 'dispatch', lowerPercent: 37, belowCost: true, mendsTime: true }],
        given: [{ permission: 'visits.rates', roles: ['owner', 'dispatch'] }],
      },
      async () => owner.ok('limits'),
    ],
  ] as const)('%s is put back whole', async (route, body, read) => {
    const before = await read()
    await owner.ok(route, { body })
    expect(await read()).not.toEqual(before)
    const { entry } = await latest()
    expect((await undo(entry.id)).status).toBe(200)
    expect(await read()).toEqual(before)
  })
  it('is put back by whoever might change it, and by nobody else', async () => {
    await owner.ok('keepLimits', {
      body: {
        roles: [{ role: 'books', lowerPercent: 11, belowCost: false, mendsTime: false }],
        given: [],
      },
    })
    const { entry } = await latest()
    const office = await signedIn('office')
    expect((await undo(entry.id, office)).status).toBe(403)
    expect((await (await signedIn('books')).ok('settingsHistory')).undoable).toEqual([])
    await undo(entry.id)
  })
  it('is nothing where no such entry is, or it is of something else', async () => {
    expect((await undo(999_999_999)).status).toBe(404)
    expect((await owner.send('undoSetting', { params: { entry: 'x' } })).status).toBe(404)
    expect((await undo(1)).status).toBe(404)
  })
})
