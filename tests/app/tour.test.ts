// The tour: each place is on a page, each page shows its own in their order, and what is seen is kept for whoever is shown.
import { afterEach, describe, expect, it } from 'vitest'
import { stopsOn, TOUR_STOPS } from '~/tour/stops'
import { forgetTour, useTour } from '~/tour/useTour'

const SOURCES = import.meta.glob<string>('../../app/**/*.vue', {
  query: '?raw',
  import: 'default',
  eager: true,
})
const all = () => true
afterEach(forgetTour)

describe('the places', () => {
  it.each(TOUR_STOPS.map(({ place }) => place))('%s is in one component of the app', (place) => {
    const files = Object.entries(SOURCES).filter(([, text]) =>
      text.includes(`data-tour="${place}"`),
    )
    expect(files.map(([file]) => file)).toHaveLength(1)
  })
  it('each is named once, and says something', () => {
    const places = TOUR_STOPS.map(({ place }) => place)
    expect(new Set(places).size).toBe(places.length)
    for (const { title, says } of TOUR_STOPS) expect(says.length).toBeGreaterThan(title.length)
  })
  it('are those of the page, and of what this person may do', () => {
    const at = (path: string, may = all, seen: string[] = []) =>
      stopsOn(path, seen, may).map(({ place }) => place)
    expect(at('/calls/1')).toEqual([
      'call.who',
      'call.what',
      'call.price',
      'call.when',
      'call.book',
    ])
    expect(at('/calls/1', () => false)).toEqual([])
    expect(at('/calls')).toEqual([])
    expect(at('/field')).toEqual(['day.visits'])
    expect(at('/field/')).toEqual(['day.visits'])
    // What becomes of the work is shown to whoever saw its account.
    expect(at('/unpaid')).toEqual([])
    expect(at('/unpaid', all, ['work.account'])).toEqual(['home.run'])
  })
})
describe('what was seen', () => {
  it('is kept, put back by a place, and forgotten after the last', () => {
    const { seen, begin, pass, back, leave } = useTour()
    expect(seen.value).toBeNull()
    begin()
    pass('call.who')
    pass('call.what')
    expect(JSON.parse(localStorage.getItem('tour')!)).toEqual(['call.who', 'call.what'])
    back('call.what')
    expect(seen.value).toEqual(['call.who'])
    leave()
    expect([seen.value, localStorage.getItem('tour')]).toEqual([null, null])
    begin()
    pass(TOUR_STOPS.at(-1)!.place)
    expect(seen.value).toBeNull()
  })
})
