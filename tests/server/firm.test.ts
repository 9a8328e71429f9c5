// Who the firm is: what stands on papers from now on; what was made before stays as it was.
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Answer } from '../../shared/api'
import { id, signedIn, somethingToBill, type Client } from './client'

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
  const { version: _, timeZones: _z, currency: _c, ...before } = was
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
