// A form keeps what was typed: it knows what it began with, what changed, and what of it was refused where.
import { describe, expect, it } from 'vitest'
import { useForm } from '~/base/useForm'
import { Problem } from '~/lib/api'

const refused = (...paths: string[]) =>
  new Problem('That cannot be.', {
    status: 422,
    code: 'invalid',
    errors: paths.map((path) => ({ path, message: `${path} is wrong` })),
  })

describe('what it began with', () => {
  it('is its own: neither the source nor the form changes the other', () => {
    const source = { name: 'Vane', tags: ['a'] }
    const form = useForm(source)
    form.values.tags.push('b')
    expect(source.tags).toEqual(['a'])
    expect(form.changed).toBe(true)
  })
  it('is no change, nor is what was typed and taken back', () => {
    const form = useForm({ name: 'Vane' })
    expect(form.changed).toBe(false)
    form.values.name = 'Vance'
    expect(form.changed).toBe(true)
    form.values.name = 'Vane'
    expect(form.changed).toBe(false)
  })
  it('is no change where its parts are named in another order', () => {
    const form = useForm({ own: { x: '1', y: '2' } })
    form.values.own = { y: '2', x: '1' }
    expect(form.changed).toBe(false)
  })
  it('begins anew with some values, the others as they stand', () => {
    const form = useForm({ name: '', kind: 'part' })
    form.values.kind = 'task'
    form.values.name = 'Valve'
    form.begin({ name: '' })
    expect(form.values).toEqual({ name: '', kind: 'task' })
    expect(form.changed).toBe(false)
  })
})
describe('what changed elsewhere', () => {
  it('is followed where nobody typed; what was typed stays, and is still a change', () => {
    const form = useForm({ date: '2026-11-24', time: '08:00', crew: ['a'] })
    form.values.time = '09:30'
    form.follow({ date: '2026-11-25', time: '08:15', crew: ['a', 'b'] })
    expect(form.values).toEqual({ date: '2026-11-25', time: '09:30', crew: ['a', 'b'] })
    expect(form.changed).toBe(true)
    form.values.time = '08:15'
    expect(form.changed).toBe(false)
  })
})
describe('its act', () => {
  it('keeps what was sent, not what was typed meanwhile', async () => {
    const form = useForm({ note: 'one' })
    form.values.note = 'two'
    let answer = (_: string) => {}
    const sent = form.send(() => new Promise<string>((resolve) => (answer = resolve)))
    await Promise.resolve()
    expect([form.busy, form.unkept]).toEqual([true, false])
    form.values.note = 'three'
    answer('done')
    expect(await sent).toBe('done')
    expect([form.busy, form.changed, form.unkept]).toEqual([false, true, true])
  })
  it('begins the form anew where it says so', async () => {
    const form = useForm({ text: '', kind: 'yes_no' })
    Object.assign(form.values, { text: 'Is there a dog?', kind: 'text' })
    await form.send(
      () => Promise.resolve(),
      () => ({ text: '' }),
    )
    expect(form.values).toEqual({ text: '', kind: 'text' })
    expect(form.changed).toBe(false)
  })
  it('begins it anew, but for what was typed meanwhile', async () => {
    const form = useForm({ text: '' })
    form.values.text = 'first'
    const work = () => Promise.resolve(void (form.values.text = 'second'))
    await form.send(work, () => ({ text: '' }))
    expect([form.values.text, form.unkept]).toEqual(['second', true])
  })
  it('leaves a form alone that is about something else by then', async () => {
    const form = useForm({ id: 'a', name: '' })
    form.values.name = 'North'
    const work = () => Promise.resolve(form.begin({ id: 'b', name: 'South' }))
    await form.send(work, () => ({ id: '', name: '' }))
    expect([form.values, form.changed]).toEqual([{ id: 'b', name: 'South' }, false])
  })
  it('that failed keeps nothing, and leaves what was typed', async () => {
    const form = useForm({ note: '' })
    form.values.note = 'typed'
    expect(await form.send(() => Promise.reject(refused('note')))).toBeUndefined()
    expect([form.values.note, form.changed, form.unkept]).toEqual(['typed', true, true])
    expect(form.wrong('note')).toBe('note is wrong')
  })
  it('is not done twice at once', async () => {
    const form = useForm({ note: '' })
    let done = 0
    const work = () => Promise.resolve(done++)
    await Promise.all([form.send(work), form.send(work)])
    expect(done).toBe(1)
  })
})
describe('what was refused', () => {
  it('is said at the first field that it is about', async () => {
    const form = useForm({ from: '', fromTime: '' })
    await form.send(() => Promise.reject(refused('fromTime')))
    expect(form.wrong('from', 'fromTime')).toBe('fromTime is wrong')
    expect(form.wrong('to')).toBe('')
  })
  it('is said beneath where a part of it has no field to stand at', async () => {
    const form = useForm({ name: '' })
    const takeAway = form.place('name')
    await form.send(() => Promise.reject(refused('name')))
    expect(form.unplaced).toBeNull()
    await form.send(() => Promise.reject(refused('name', 'version')))
    expect(form.unplaced?.message).toBe('That cannot be.')
    await form.send(() => Promise.reject(refused('name')))
    takeAway()
    expect(form.unplaced?.message).toBe('That cannot be.')
  })
  it('is forgotten when the act is done again', async () => {
    const form = useForm({ name: '' })
    await form.send(() => Promise.reject(refused('name')))
    await form.send(() => Promise.resolve())
    expect(form.problem).toBeNull()
  })
})
