// Roles of the firm's own: made, given to people, given more or less, taken away, put back; what each then may.
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Answer } from '../../shared/api'
import { database, id, signedIn, type Client } from './client'

let owner: Client
let office: Client
let foreman: Client
beforeAll(async () => {
  owner = await signedIn('owner')
  office = await signedIn('office')
  foreman = await signedIn({ email: 'rosa@demo.test' })
})
afterAll(async () => {
  const db = await database()
  await db.query(`UPDATE people SET own_role = NULL`)
  await db.query(`UPDATE company SET limits = '{}', grants = '{}', own_roles = '[]'`)
  await db.end()
})
type Rights = Answer<'limits'>
const rights = () => owner.ok('limits')
const roleNamed = (name: string, { roles }: Rights) => roles.find((role) => role.name === name)!
const make = (name: string, base = 'technician', by = owner) =>
  by.send('keepRole', { body: { name, base: base as 'office' } })
const rosa = async () =>
  (await owner.ok('staff')).items.find(({ email }) => email.startsWith('rosa'))!
async function give(ownRole: string, role: 'technician' | 'office' = 'technician') {
  const { id: personId, version, name, email, phone, bookable, seesCost } = await rosa()
  const body = {
    ...{ id: personId, version, name, email, phone, bookable, seesCost },
    role,
    ownRole,
  }
  return owner.send('keepPerson', { body })
}
const may = async () => (await foreman.ok('session')).person.may
const undo = async (text: string) => {
  const { items, undoable } = await owner.ok('settingsHistory')
  const entry = items.find((one) => one.text === text)!
  expect(undoable).toContain(entry.id)
  return owner.send('undoSetting', { params: { entry: String(entry.id) } })
}

describe('a role of the firm’s own', () => {
  it('begins as one of ours, and is given to somebody', async () => {
    expect((await make('Foreman')).status).toBe(200)
    const role = roleNamed('Foreman', await rights())
    expect(role).toMatchObject({ role: 'foreman', base: 'technician', lowerPercent: 10 })
    const before = await may()
    expect((await give(role.role)).status).toBe(200)
    expect(await rosa()).toMatchObject({
      role: 'technician',
      ownRole: 'foreman',
      roleName: 'Foreman',
    })
    const me = await foreman.ok('session')
    expect([me.person.role, me.person.roleName]).toEqual(['technician', 'Foreman'])
    expect(await may()).toEqual(before)
  })
  it('is given what those that it begins as are not, and goes further alone', async () => {
    const given = (await rights()).given.find(({ permission }) => permission === 'costs.see')!
    const roles = [...given.roles, 'foreman']
    const far = { role: 'foreman', lowerPercent: 25, belowCost: true, mendsTime: false }
    await owner.ok('keepLimits', {
      body: { roles: [far], given: [{ permission: 'costs.see', roles }] },
    })
    expect(await may()).toContain('costs.see')
    expect((await foreman.ok('session')).person.seesCost).toBe(true)
    const technician = await signedIn('technician')
    expect((await technician.ok('session')).person.may).not.toContain('costs.see')
    expect(roleNamed('Foreman', await rights())).toMatchObject(far)
    expect(roleNamed('technician', await rights()).lowerPercent).toBe(10)
    const gone = { ...far, role: 'nobody' }
    const refused = await owner.send('keepLimits', { body: { roles: [gone], given: [] } })
    expect(refused).toMatchObject({ status: 422, body: { errors: [{ path: 'roles[0].role' }] } })
  })
  it('is called otherwise by one who saw what it is called; two of one name are refused', async () => {
    const called = (name: string, shown: string) =>
      owner.send('keepRole', { body: { code: 'foreman', name, base: 'technician', shown } })
    expect((await called('Master', 'Forewoman')).body.code).toBe('stale')
    expect((await called('Master', 'Foreman')).status).toBe(200)
    const [last] = (await owner.ok('settingsHistory')).items
    // As it is called already: nothing happened.
    expect((await called('Master', 'Master')).status).toBe(200)
    expect((await owner.ok('settingsHistory')).items[0]).toEqual(last)
    expect((await foreman.ok('session')).person.roleName).toBe('Master')
    for (const name of ['master', 'Office'])
      expect(await make(name)).toMatchObject({ status: 422, body: { errors: [{ path: 'name' }] } })
    expect((await make('Lead', 'owner')).status).toBe(422)
    expect((await make('Lead', 'office', office)).status).toBe(403)
  })
  it('is another than what somebody is only where it begins as that', async () => {
    for (const answer of [await give('foreman', 'office'), await give('nobody')])
      expect(answer).toMatchObject({ status: 422, body: { errors: [{ path: 'role' }] } })
  })
  it('is not taken away while somebody has it, and comes back with what was given to it', async () => {
    const drop = (shown = 'Master') => owner.send('dropRole', { body: { code: 'foreman', shown } })
    const worn = await drop()
    expect([worn.status, worn.body.code]).toEqual([409, 'in_use'])
    expect(worn.body.detail).toContain((await rosa()).name)
    expect((await give('')).status).toBe(200)
    expect((await drop('Foreman')).body.code).toBe('stale')
    expect((await drop()).status).toBe(200)
    expect((await drop()).status).toBe(404)
    expect(JSON.stringify(await rights())).not.toContain('foreman')
    expect((await undo('Role “Master” was taken away')).status).toBe(200)
    const back = await rights()
    expect(roleNamed('Master', back)).toMatchObject({ lowerPercent: 25 })
    expect(back.given.find(({ permission }) => permission === 'costs.see')!.roles).toContain(
      'foreman',
    )
    expect((await undo('Role “Master” was taken away')).status).toBe(409)
  })
  it('is put back by whoever may change rights alone: the office takes back nothing that the owner said', async () => {
    const { given } = await rights()
    const taken = given.find(({ permission }) => permission === 'payments.take')!
    const roles = taken.roles.filter((one) => one !== 'office')
    await owner.ok('keepLimits', { body: { roles: [], given: [{ ...taken, roles }] } })
    const [entry] = (await owner.ok('settingsHistory')).items
    expect(entry!.text).toBe('What each role may do, and how far alone, was changed')
    const params = { entry: String(entry!.id) }
    expect((await office.ok('settingsHistory')).undoable).not.toContain(entry!.id)
    expect((await office.send('undoSetting', { params })).status).toBe(403)
    expect((await owner.send('undoSetting', { params })).status).toBe(200)
    expect((await rights()).given).toEqual(given)
  })
  it('is not given by somebody who may not do as much', async () => {
    const given = (await rights()).given.find(({ permission }) => permission === 'access.change')!
    const allow = (roles: string[]) =>
      owner.ok('keepLimits', {
        body: { roles: [], given: [{ permission: 'access.change', roles }] },
      })
    await allow([...given.roles, 'office'])
    const body = {
      ...{ id: id(), name: 'Abel Thorn', email: `abel-${id().slice(-8)}@demo.test` },
      ...({ role: 'technician', ownRole: 'foreman', bookable: false, seesCost: false } as const),
    }
    const taken = await rights()
    const takes = taken.given.find(({ permission }) => permission === 'payments.take')!
    await owner.ok('keepLimits', {
      body: {
        roles: [],
        given: [
          { permission: 'payments.take', roles: takes.roles.filter((one) => one !== 'office') },
        ],
      },
    })
    expect((await office.send('keepPerson', { body })).status).toBe(403)
    await owner.ok('keepLimits', { body: { roles: [], given: [takes] } })
    expect((await office.send('keepPerson', { body })).status).toBe(200)
    await allow(given.roles)
  })
})
