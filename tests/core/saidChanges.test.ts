// What the history says of a change: its old and its new value, in words.
import { describe, expect, it } from 'vitest'
import { saidChanges } from '../../core/text/saidChanges'
import { sayContact } from '../../core/visits/workContacts'

const words = { day: (d: string) => `day(${d})`, at: (i: string) => `at(${i})` }
const said = (data: object) => saidChanges(data, words)
const PERSON = '01938f2e-0000-7000-8000-000000000001'

describe('the changes that an entry of the history holds', () => {
  it.each<[object, ReturnType<typeof saidChanges>]>([
    [{}, []],
    [{ name: 'Pump', done: true }, []],
    [{ title: { from: 'A', to: 'A' } }, []],
    [
      { unitPrice: { from: '12.00', to: '9.00' } },
      [{ what: 'unit price', from: '12.00', to: '9.00' }],
    ],
    [{ changes: { note: { from: '', to: 'Ring' } } }, [{ what: 'note', from: '', to: 'Ring' }]],
    [
      { change: { from: { town: 'A', id: PERSON }, to: { town: 'B' } } },
      [{ what: 'town', from: 'A', to: 'B' }],
    ],
    [{ technicianId: { from: null, to: PERSON }, state: { from: 'a', to: 'b' } }, []],
    [
      { durationSeconds: { from: 3600, to: 5400 } },
      [{ what: 'duration', from: '1:00 h', to: '1:30 h' }],
    ],
    [
      { startAt: { from: null, to: '2026-12-02T14:00:00.000Z' } },
      [{ what: 'start at', from: '', to: 'at(2026-12-02T14:00:00.000Z)' }],
    ],
    [
      { on: { from: '2026-12-02', to: true } },
      [{ what: 'on', from: 'day(2026-12-02)', to: 'yes' }],
    ],
    [{ tags: { from: ['a'], to: ['a', 'b'] } }, [{ what: 'tags', from: 'a', to: 'a; b' }]],
    [
      { contact: { to: { name: 'Ann', phone: '1' } } },
      [{ what: 'contact', from: '', to: 'Ann, 1' }],
    ],
    // Of a row only what was sent was changed.
    [
      { change: { from: { name: 'Barn', line1: '1 Road' }, to: { name: 'Mill' } } },
      [{ what: 'name', from: 'Barn', to: 'Mill' }],
    ],
    [
      { changes: { ownPrices: { from: { [PERSON]: '9.00' }, to: {} } } },
      [{ what: 'own prices', from: '9.00', to: '' }],
    ],
    // A span of days is no change of anything.
    [{ from: '2026-12-02', until: '2026-12-04' }, []],
  ])('of %j are %j', (data, changes) => expect(said(data)).toEqual(changes))
})

describe('a contact in a line', () => {
  it.each([
    [{ name: '', phone: '1', role: 'tenant' }, ''],
    [{ name: 'Ann', phone: '' }, 'Ann'],
    [{ name: 'Ann', phone: '1', role: 'tenant' }, 'Ann (tenant), 1'],
  ])('of %j is “%s”', (who, line) => expect(sayContact(who)).toBe(line))
})
