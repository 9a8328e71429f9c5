// Tasks: given about a work order, a quote or a customer, seen by whoever does them, in one place until they are ticked off.
import { beforeAll, describe, expect, it } from 'vitest'
import type { Answer } from '../../shared/api'
import { checkRun } from '../../server/waiting/checkRun'
import { atOneMoment } from '../../server/http/context'
import { id, setClock, signedIn, somethingToBill, type Client } from './client'

let office: Client
let ines: Client
let technician = ''
let me = ''
let work: Awaited<ReturnType<typeof somethingToBill>>
beforeAll(async () => {
  setClock('2026-11-24T10:21')
  office = await signedIn('office')
  ines = await signedIn('technician')
  technician = (await ines.ok('session')).person.id
  me = (await office.ok('session')).person.id
  work = await somethingToBill(office)
})
const give = (what: string, more: object = {}) =>
  office.ok('newTask', {
    body: {
      ...{ id: id(), about: 'work' as const, subjectId: work.workOrderId, what, ownerId: me },
      ...more,
    },
  })
const about = async () =>
  (await office.ok('tasks', { query: { about: 'work', subjectId: work.workOrderId } })).items
const placed = async (taskId: string) =>
  (await office.ok('toActOn')).places
    .find(({ place }) => place === 'tasks')!
    .items.find((item) => item.id === taskId)
const tick = (client: Client, task: Answer<'newTask'>, more: object = { done: true }) =>
  client.send('changeTask', { params: { id: task.id }, body: { version: task.version, ...more } })

describe('a task', () => {
  it('stands with what it is about and on the list of whoever does it, the first due first, until it is done', async () => {
    const later = await give('Order the pump', { on: '2026-12-04' })
    const some = await give('Ask after the colour')
    const first = await give('Ring the caretaker', { on: '2026-11-24' })
    const mine = async () =>
      (await office.ok('myTasks')).items.map((task) => task.id).filter((n) => ours.has(n))
    const ours = new Set([first.id, later.id, some.id])
    expect(await mine()).toEqual([first.id, later.id, some.id])
    expect(await placed(first.id)).toMatchObject({
      label: expect.stringMatching(/^Ring the caretaker, W-/) as string,
      reason: expect.stringContaining('due by Tue, Nov 24') as string,
      to: `/work/${work.workOrderId}`,
    })
    expect((await tick(office, first)).body).toMatchObject({ doneBy: expect.any(String) as string })
    expect(await mine()).toEqual([later.id, some.id])
    expect(await placed(first.id)).toBeUndefined()
    const [done] = (await about()).filter(({ doneAt }) => doneAt !== null)
    expect(done).toMatchObject({ id: first.id, late: false })
    const { history } = await office.ok('workOrder', { params: { id: work.workOrderId } })
    expect(history.map(({ text }) => text)).toContain('Done: Ring the caretaker')
    // Not after all.
    expect((await tick(office, done!, { done: false })).status).toBe(200)
    expect(await mine()).toContain(first.id)
    expect(await atOneMoment({ actor: null, ip: '' }, checkRun)).toEqual([])
  })
  it('is late once its day has passed', async () => {
    const task = await give('Send the drawing', { on: '2026-11-25' })
    setClock('2026-11-26T09:00')
    expect((await about()).find((one) => one.id === task.id)!.late).toBe(true)
    expect((await placed(task.id))!.reason).toContain('was due by Wed, Nov 25')
    setClock('2026-11-24T10:21')
  })
  it('of a technician is ticked off on the phone, and nothing else of it is theirs to change', async () => {
    const task = await give('Bring the key back', { ownerId: technician })
    expect((await ines.ok('myTasks')).items.map((one) => one.what)).toContain('Bring the key back')
    expect((await tick(ines, task, { what: 'Keep the key' })).status).toBe(403)
    expect((await tick(ines, task)).status).toBe(200)
    expect((await tick(ines, await give('Not hers'))).status).toBe(404)
  })
  it('is given on and put off, with what it was in the history; a change that was not seen is sent back', async () => {
    const task = await give('Price the filter')
    const on = '2026-12-01'
    expect((await tick(office, task, { ownerId: technician, on })).status).toBe(200)
    const { history } = await office.ok('workOrder', { params: { id: work.workOrderId } })
    expect(history[0]!.text).toMatch(/^To do now by Ines.*, by Tue, Dec 1, 2026: Price the filter$/)
    expect(history[0]!.changes.map(({ what }) => what)).toEqual(['owner', 'on'])
    expect(await tick(office, task)).toMatchObject({ status: 409, body: { code: 'stale' } })
  })
  it('is made once, about something that is there, by somebody of the firm, for a day to come', async () => {
    const taskId = id()
    await give('Once', { id: taskId })
    expect((await give('Once', { id: taskId })).id).toBe(taskId)
    const bad = async (more: object) =>
      (
        await office.send('newTask', {
          body: {
            ...{ id: id(), about: 'work', subjectId: work.workOrderId, what: 'x', ownerId: me },
            ...more,
          },
        })
      ).body
    expect((await bad({ subjectId: id() })).code).toBe('not_found')
    for (const [path, more] of [
      ['ownerId', { ownerId: id() }],
      ['on', { on: '2026-11-23' }],
      ['what', { what: '' }],
    ] as const)
      expect((await bad(more)).errors?.[0]?.path).toBe(path)
  })
  it('about a customer is still about them once they are merged', async () => {
    const person = async (name: string) => {
      const body = { id: id(), siteId: id(), name, line1: '1 Test Way' }
      return (await office.ok('newCustomer', { body })).customerId
    }
    const [kept, gone] = [await person('Tasked One'), await person('Tasked Two')]
    const task = await give('Ask for the billing address', { about: 'customer', subjectId: gone })
    const body = { id: id(), otherId: gone }
    await office.ok('merge', { params: { id: kept }, body })
    const query = { about: 'customer' as const, subjectId: kept }
    expect((await office.ok('tasks', { query })).items).toMatchObject([
      { id: task.id, subjectId: kept, label: 'Tasked One' },
    ])
  })
})
