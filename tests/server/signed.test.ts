// What a customer signed is a paper of its own: kept as it was, beside the next one; what comes after it is not agreed, and is billed only with a reason.
import { createHash } from 'node:crypto'
import { beforeAll, describe, expect, it } from 'vitest'
import type { Answer } from '../../shared/api'
import { database, id, signedIn, somethingToBill, type Client } from './client'

let office: Client
let workOrderId = ''
const image =
  'data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=='
const params = () => ({ id: workOrderId })
const work = () => office.ok('workOrder', { params: params() })
type Work = Answer<'workOrder'>
const sign = async (name: string, more: object = {}) =>
  office.ok('sign', {
    params: params(),
    body: { id: id(), name, image, shownTotal: (await work()).price.total.amount, ...more },
  })
const add = (name: string, unitPrice: string) =>
  office.ok('addLines', {
    params: params(),
    body: { lines: [{ id: id(), name, kind: 'other', quantity: '1', unitPrice, done: true }] },
  })
const paperOf = ({ signatures }: Work, n: number) =>
  office.ok('signedPaper', { params: { id: signatures[n]!.id } })
beforeAll(async () => {
  office = await signedIn('office')
  workOrderId = (await somethingToBill(office)).workOrderId
})

describe('a signature', () => {
  it('is kept with the lines, sums and words that were signed, who signed for whom, and a fingerprint of it all', async () => {
    const signed = await sign('Ada Vane', { company: 'Vane Ltd', role: 'manager' })
    const paper = await paperOf(signed, 0)
    expect(paper).toMatchObject({
      title: `Agreed before the work, ${signed.number}`,
      lines: [{ amount: '$100.00' }],
      notes: [
        'I agree to this work at this price.',
        expect.stringMatching(/^Signed by Ada Vane, manager, for Vane Ltd, before /) as string,
      ],
    })
    expect(paper.sums.at(-1)).toMatchObject({ label: 'Total', strong: true })
    const db = await database()
    const [[kept]] = (await db.query('SELECT shown, image, hash FROM signatures WHERE id = ?', [
      signed.signatures[0]!.id,
    ])) as unknown as [[{ shown: string; image: Buffer; hash: string }]]
    await expect(
      db.query(`UPDATE signatures SET shown = '{}' WHERE id = ?`, [signed.signatures[0]!.id]),
    ).rejects.toThrow('kept as it was')
    await expect(
      db.query('DELETE FROM signatures WHERE id = ?', [signed.signatures[0]!.id]),
    ).rejects.toThrow('kept as it was')
    await db.end()
    const text = typeof kept.shown === 'string' ? kept.shown : JSON.stringify(kept.shown)
    const print = createHash('sha256').update(text).update(kept.image).digest('hex')
    expect([kept.hash, paper.conditions]).toEqual([
      print,
      `Kept as it was signed: SHA-256 ${print}`,
    ])
  })
  it('leaves what came after it not agreed, by how much; the next one agrees to it, and the first stays as it was', async () => {
    await add('Extra valve', '45.00')
    const extra = await work()
    expect(extra.lines.map((l) => l.notAgreed.amount)).toEqual(['0.00', '45.00'])
    expect([extra.totals.notAgreed.amount, extra.bill.beyond.amount]).toEqual(['45.00', '45.00'])
    const both = await sign('Bo Vane', { purpose: 'after' })
    expect([both.totals.notAgreed.amount, both.signatures.map((s) => s.name)]).toEqual([
      '0.00',
      ['Ada Vane', 'Bo Vane'],
    ])
    const [first, second] = [await paperOf(both, 0), await paperOf(both, 1)]
    expect([first.lines.length, second.lines.length, second.title]).toEqual([
      1,
      2,
      `Work received, ${both.number}`,
    ])
  })
  it('leaves a line that grew not agreed by what it grew', async () => {
    const { lines } = await work()
    const line = lines[1]!
    await office.ok('changeLine', {
      params: { id: line.id },
      body: { version: line.version, unitPrice: '60.00' },
    })
    expect((await work()).lines.map((l) => l.notAgreed.amount)).toEqual(['0.00', '15.00'])
  })
})
it('more than was agreed is billed with a reason only, which stands in the history', async () => {
  const bill = (beyond: string) =>
    office.send('makeInvoice', { params: params(), body: { id: id(), to: [], beyond } })
  const refused = await bill('')
  expect([refused.status, refused.body.code, refused.body.errors]).toEqual([
    409,
    'not_agreed',
    [
      {
        path: 'beyond',
        message: 'More is billed than the customer agreed to. Show it to them, or say why.',
      },
    ],
  ])
  expect((await bill('agreed on the telephone')).status).toBe(200)
  expect((await work()).history.map((h) => h.text).join('\n')).toContain(
    'Billed $15.00 that was not agreed: agreed on the telephone',
  )
})
it('where nothing was ever agreed, nothing is beyond it', async () => {
  const { workOrderId: other } = await somethingToBill(office)
  const { totals } = await office.ok('workOrder', { params: { id: other } })
  expect(totals.notAgreed.amount).toBe('0.00')
  const body = { id: id(), to: [] }
  expect((await office.send('makeInvoice', { params: { id: other }, body })).status).toBe(200)
})
