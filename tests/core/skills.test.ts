// What somebody may do on a day: skills that stand on a licence end with it.
import { fc, test } from '@fast-check/vitest'
import { describe, expect, it } from 'vitest'
import { ended, skillsOn } from '../../core/dispatch/skillsOn'
import { visitWarnings } from '../../core/dispatch/visitWarnings'
import { placeOf } from '../../core/dispatch/placeOf'

describe('skills on a day', () => {
  const rosa = {
    skills: ['pumps', 'electric'],
    licences: [{ skill: 'electric', until: '2026-11-30' }],
  }
  it('the last day of a licence still counts, the next does not', () => {
    expect(skillsOn(rosa, '2026-11-30')).toEqual(['pumps', 'electric'])
    expect(skillsOn(rosa, '2026-12-01')).toEqual(['pumps'])
    expect(ended(rosa, 'electric', '2026-12-01')?.until).toBe('2026-11-30')
  })
  test.prop([
    fc.uniqueArray(fc.constantFrom('a', 'b', 'c')),
    fc.array(
      fc.record({
        skill: fc.constantFrom('a', 'b', 'c', 'd'),
        until: fc.constantFrom('2026-01-01', '2026-06-01', '2027-01-01'),
      }),
    ),
    fc.constantFrom('2026-01-01', '2026-03-01', '2026-12-01'),
  ])('never gives a skill that nobody has, and time only takes away', (skills, licences, date) => {
    const now = skillsOn({ skills, licences }, date)
    expect(now.every((s) => skills.some((k) => k === s))).toBe(true)
    expect(skillsOn({ skills, licences }, '2027-06-01').every((s) => now.includes(s))).toBe(true)
  })
  it('a warning tells a lost licence from a skill that was never there', () => {
    const facts = {
      working: [{ from: 0, to: 100 }],
      timeOff: [],
      others: [],
      wanted: ['electric', 'lab'],
      skills: ['pumps'],
      licences: rosa.licences,
    }
    expect(
      visitWarnings({ technicianId: 't', startAt: 10, endAt: 20 }, facts, null, {
        name: 'Rosa',
        day: (on) => `the ${on}`,
      }).map((w) => w.text),
    ).toEqual([
      'Rosa does not have lab among their skills',
      'Rosa’s licence for electric ended on the 2026-11-30',
    ])
  })
})
it('a place wants both coordinates; zero is one', () => {
  expect([
    placeOf({ lat: null, lon: 1 }),
    placeOf({ lat: 0, lon: null }),
    placeOf({ lat: 0, lon: 0 }),
  ]).toEqual([null, null, { lat: 0, lon: 0 }])
})
