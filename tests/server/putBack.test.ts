// Lists that are set up one by one: two who change the same one, and each change put back from the history.
import { beforeAll, describe, expect, it } from 'vitest'
import type { Answer } from '../../shared/api'
import { database, id, signedIn, type Client } from './client'

let owner: Client
let office: Client
beforeAll(async () => {
  owner = await signedIn('owner')
  office = await signedIn('office')
})
const latest = async () => (await owner.ok('settingsHistory')).items[0]!
const undo = async (entry?: number) =>
  owner.send('undoSetting', { params: { entry: String(entry ?? (await latest()).id) } })
const statuses = (replies: { status: number }[]) => replies.map(({ status }) => status).sort()

describe('a question to callers', () => {
  type Question = Answer<'setUp'>['questions'][number]
  const asked = async (questionId: string) =>
    (await owner.ok('setUp')).questions.find((one) => one.id === questionId)!
  const keep = ({ id: questionId, ...shown }: Question, otherwise: Partial<Question>) =>
    office.send('keepQuestion', { body: { ...shown, ...otherwise, id: questionId, shown } })
  const added = async (text: string) => {
    const questionId = id()
    await office.ok('keepQuestion', { body: { id: questionId, text, kind: 'yes_no' } })
    return asked(questionId)
  }
  it('finds room, or is refused: what nobody would see is not kept', async () => {
    const db = await database()
    const { questions } = await owner.ok('setUp')
    await db.query(
      `INSERT INTO call_questions (id, text, kind, choices, position, retired)
      SELECT UUID(), CONCAT('Filler ', seq), 'text', '[]', 900, TRUE FROM seq_1_to_100 WHERE seq <= ?`,
      [100 - questions.length],
    )
    const body = { id: id(), text: 'One too many?', kind: 'yes_no' }
    const refused = await office.send('keepQuestion', { body })
    await db.query(`DELETE FROM call_questions WHERE text LIKE 'Filler %'`)
    await db.end()
    expect(refused).toMatchObject({ status: 422, body: { errors: [{ path: 'text' }] } })
    expect((await owner.ok('setUp')).questions).toEqual(questions)
  })
  it('comes last, and is worded otherwise by one at a time', async () => {
    const first = await added('Is there a gate?')
    const { questions } = await owner.ok('setUp')
    expect(questions.at(-1)!.id).toBe(first.id)
    expect(
      statuses(await Promise.all(['A', 'B'].map((one) => keep(first, { text: `${one} gate?` })))),
    ).toEqual([200, 409])
    expect((await asked(first.id)).text).toMatch(/^[AB] gate\?$/)
    expect((await owner.ok('setUp')).questions.at(-1)!.id).toBe(first.id)
    const now = await asked(first.id)
    expect(await keep(now, { kind: 'text' })).toMatchObject({ body: { code: 'field_in_use' } })
    await keep(now, { retired: true })
  })
  it('is put back as it was worded; a new one is asked no more', async () => {
    const one = await added('Is there a drive?')
    const { id: isNew } = await latest()
    await keep(one, { text: 'Is there a ford?' })
    expect((await latest()).changes).toEqual([
      { what: 'text', from: 'Is there a drive?', to: 'Is there a ford?' },
    ])
    expect((await undo(isNew)).status).toBe(409)
    expect((await undo()).status).toBe(200)
    expect((await asked(one.id)).text).toBe('Is there a drive?')
    expect((await undo(isNew)).status).toBe(200)
    expect(await asked(one.id)).toMatchObject({ text: 'Is there a drive?', retired: true })
  })
})
describe('a field of one’s own', () => {
  it('is called otherwise, put back, and changed by one at a time', async () => {
    const fieldId = id()
    const field = { subject: 'site', name: 'Pump', kind: 'text', choices: [], retired: false }
    await office.ok('keepField', { body: { ...field, id: fieldId } })
    const named = (name: string) =>
      office.send('keepField', { body: { ...field, name, id: fieldId, shown: field } })
    expect(statuses(await Promise.all(['Pump no.', 'Pump type'].map(named)))).toEqual([200, 409])
    expect((await undo()).status).toBe(200)
    const now = async () => (await owner.ok('setUp')).fields.find((one) => one.id === fieldId)!
    expect(await now()).toMatchObject(field)
    expect((await named('Pump')).status).toBe(200)
    await office.ok('keepField', {
      body: { ...field, id: fieldId, retired: true, shown: field },
    })
    expect((await latest()).text).toBe('Field “Pump” of sites retired')
    await undo()
    expect((await now()).retired).toBe(false)
    await office.ok('keepField', {
      body: { ...field, id: fieldId, retired: true, shown: field },
    })
  })
})
describe('a territory', () => {
  const named = async (territoryId: string) =>
    (await owner.ok('scheduleSetUp')).territories.find((one) => one.id === territoryId)
  const [territoryId, name] = [id(), 'The far hills']
  const add = () =>
    office.send('keepTerritory', { body: { id: territoryId, name, postcodes: '88100-88102' } })
  const stands = { name, postcodes: ['88100', '88101', '88102'] }
  it('that is new is there once, and taken out again', async () => {
    expect((await add()).status).toBe(200)
    const same = await office.send('keepTerritory', {
      body: { id: id(), name: 'the far HILLS', postcodes: '88200' },
    })
    expect(same).toMatchObject({ status: 422, body: { errors: [{ path: 'name' }] } })
    expect((await undo()).status).toBe(200)
    expect(await named(territoryId)).toBeUndefined()
    expect((await latest()).text).toBe('Territory The far hills was taken away')
    expect((await undo()).status).toBe(200)
    expect(await named(territoryId)).toMatchObject(stands)
  })
  it('is changed by one at a time, and put back with its postcodes', async () => {
    const change = (postcodes: string) =>
      office.send('keepTerritory', { body: { id: territoryId, name, postcodes, shown: stands } })
    expect(statuses(await Promise.all(['88100', '88101'].map(change)))).toEqual([200, 409])
    expect((await undo()).status).toBe(200)
    expect(await named(territoryId)).toMatchObject(stands)
  })
  it('is taken away while nobody serves it, by who may', async () => {
    const { technicians } = await office.ok('scheduleSetUp')
    const maud = technicians.find((one) => one.name.startsWith('Maud'))!
    const serve = async (territoryIds: string[]) => {
      const { version, ...now } = (await office.ok('scheduleSetUp')).technicians.find(
        (one) => one.id === maud.id,
      )!
      await office.ok('changeTechnician', {
        params: { id: maud.id },
        body: {
          version,
          territoryIds,
          hours: now.hours,
          skills: now.skills,
          licences: now.licences,
        },
      })
    }
    const drop = (who: Client, shown: object = stands) =>
      who.send('dropTerritory', { params: { id: territoryId }, body: { shown } })
    await serve([...maud.territoryIds, territoryId])
    const refused = await drop(office)
    expect([refused.status, refused.body.code]).toEqual([409, 'in_use'])
    expect(JSON.stringify(refused.body)).toContain('Maud')
    await serve(maud.territoryIds)
    expect((await drop(await signedIn('books'))).status).toBe(403)
    expect((await drop(office, { ...stands, postcodes: ['1'] })).status).toBe(409)
    expect((await drop(office)).status).toBe(200)
    expect((await drop(office)).status).toBe(404)
  })
})
describe('a holiday', () => {
  const on = async () =>
    (await owner.ok('scheduleSetUp')).holidays.find(({ date }) => date === '2026-12-23')?.name
  const keep = (name: string, shown = '') =>
    office.send('keepHoliday', { body: { date: '2026-12-23', name, shown } })
  it('is said by one at a time, and put back, as is taking it back', async () => {
    expect(statuses(await Promise.all(['Frost', 'Snow'].map((name) => keep(name))))).toEqual([
      200, 409,
    ])
    const name = (await on())!
    expect((await keep('', 'Rain')).status).toBe(409)
    expect((await keep('', name)).status).toBe(200)
    expect(await on()).toBeUndefined()
    expect((await undo()).status).toBe(200)
    expect(await on()).toBe(name)
    await undo()
    expect(await on()).toBeUndefined()
  })
})
describe('what customers are told of visits', () => {
  it('is put back with its words, and changed by one at a time', async () => {
    const { messages: shown } = await office.ok('scheduleSetUp')
    const say = (late: string) =>
      office.send('keepVisitMessages', {
        body: { ...shown, eve: !shown.eve, words: { ...shown.words, late }, shown },
      })
    const both = await Promise.all(['{who} comes late.', '{who} is late.'].map(say))
    expect(statuses(both)).toEqual([200, 409])
    expect((await latest()).changes.map(({ what }) => what).sort()).toEqual(['eve', 'late'])
    expect((await undo()).status).toBe(200)
    expect((await office.ok('scheduleSetUp')).messages).toEqual(shown)
  })
})
