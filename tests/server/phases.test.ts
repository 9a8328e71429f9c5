// Phases of long work: named and filled in one act, each with its own sums; a visit that comes again stays in its phase.
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { closePool } from '../../server/db/pool'
import { callerNamed, type Client, id, setClock, signedIn } from './client'

let office: Client
beforeAll(async () => {
  setClock('2026-12-16T08:00')
  office = await signedIn('office')
})
afterAll(async () => {
  setClock('2026-11-24T10:21')
  await closePool()
})
async function longWork() {
  const { customerId, sites } = await callerNamed(office, 'fenn orchard')
  const [workOrderId, visitId] = [id(), id()]
  await office.ok('bookCall', {
    params: { id: id() },
    body: {
      ...{ workOrderId, visitId, customerId, siteId: sites[0]!.id },
      ...{ problem: 'New well, from the hole to the tap', reason: 'as agreed' },
    },
  })
  const line = (name: string, unitPrice: string) => ({
    ...{ id: id(), kind: 'other' as const, name, unitPrice, quantity: '1' },
  })
  const lines = [line('Dig the trench', '800.00'), line('Lay the pipe', '450.00')]
  const params = { id: workOrderId }
  const work = await office.ok('addLines', { params, body: { visitId: null, lines } })
  return { params, work, visitId, trench: lines[0]!.id, pipe: lines[1]!.id }
}
describe('phases of a work order', () => {
  it('have their own sums, and what is of none stands last', async () => {
    const { params, work, visitId, trench } = await longWork()
    expect(work.phases).toEqual([])
    const [dig, lay] = [id(), id()]
    const phases = [
      { id: dig, name: 'Digging' },
      { id: lay, name: 'Pipes' },
    ]
    const kept = await office.ok('keepPhases', {
      params,
      body: {
        ...{ version: work.version, phases },
        visits: [{ id: visitId, phaseId: lay }],
        lines: [{ id: trench, phaseId: dig }],
      },
    })
    expect(kept.phases.map(({ name, done, linesDone }) => [name, done.amount, linesDone])).toEqual([
      ['Digging', '800.00', 1],
      ['Pipes', '0.00', 0],
      ['', '450.00', 1],
    ])
    expect(kept.history[0]).toMatchObject({ text: 'Phases: Digging; Pipes' })
    // What is added at a visit is of its phase.
    const body = {
      visitId,
      lines: [
        { ...{ id: id(), kind: 'other' as const, name: 'Bend' }, quantity: '2', unitPrice: '10' },
      ],
    }
    const added = await office.ok('addLines', { params, body })
    expect(added.phases[1]).toMatchObject({ name: 'Pipes', done: { amount: '20.00' } })
    // A further visit goes on with the same phase.
    const [visit] = added.visits
    await office.ok('furtherVisit', {
      params: { id: visitId },
      body: { id: id(), version: visit!.version, durationSeconds: 3600, note: 'the other half' },
    })
    const after = await office.ok('workOrder', { params })
    expect(after.visits.map(({ phaseId }) => phaseId)).toEqual([lay, lay])
    // A phase that is taken out leaves what was of it in none.
    const left = await office.ok('keepPhases', {
      params,
      body: { version: after.version, phases: [phases[1]!], visits: [], lines: [] },
    })
    expect(left.phases.map(({ name, done }) => [name, done.amount])).toEqual([
      ['Pipes', '20.00'],
      ['', '1250.00'],
    ])
  })
  it('are refused twice, of an older state, and where nothing of that name is', async () => {
    const { params, work, pipe } = await longWork()
    const { version } = work
    const of = (...names: string[]) => names.map((name) => ({ id: id(), name }))
    const nothing = { visits: [], lines: [] }
    const refused = async (body: object, status: number) => {
      const reply = await office.send('keepPhases', {
        params,
        body: { ...nothing, ...body } as never,
      })
      expect(reply.status).toBe(status)
      return reply.body as { code: string; errors: { path: string }[] }
    }
    const twice = await refused({ version, phases: of('Dig', 'dig') }, 422)
    expect(twice.errors[0]!.path).toBe('phases[1].name')
    const nameless = await refused({ version, phases: of('') }, 422)
    expect(nameless.errors[0]!.path).toBe('phases[0].name')
    await refused({ version, phases: [], lines: [{ id: pipe, phaseId: id() }] }, 422)
    expect(await refused({ version: version - 1, phases: of('Dig') }, 409)).toMatchObject({
      code: 'stale',
    })
  })
  it('of one work order are not renamed or filled from another', async () => {
    const [mine, other] = [await longWork(), await longWork()]
    const phase = { id: id(), name: 'Digging' }
    const nothing = { visits: [], lines: [] }
    await office.ok('keepPhases', {
      params: mine.params,
      body: { version: mine.work.version, phases: [phase], ...nothing },
    })
    const stolen = await office.send('keepPhases', {
      params: other.params,
      body: { version: other.work.version, phases: [{ ...phase, name: 'Mine' }], ...nothing },
    })
    expect(stolen.status).toBeGreaterThanOrEqual(400)
    const foreign = { id: mine.trench, phaseId: null as string | null }
    const theirs = { id: id(), name: 'Theirs' }
    await office.ok('keepPhases', {
      params: other.params,
      body: {
        ...{ version: other.work.version, phases: [theirs], visits: [] },
        lines: [{ ...foreign, phaseId: theirs.id }],
      },
    })
    const after = await office.ok('workOrder', { params: mine.params })
    expect(after.phases.map(({ name }) => name)).toEqual(['Digging', ''])
    expect(after.lines.find(({ id: line }) => line === mine.trench)!.phaseId).toBeNull()
  })
})
