// The schedule's board: acts that are taken back and done again beside others, places that are tried by keys, warnings that come late or not at all.
import { flushPromises } from '@vue/test-utils'
import { beforeAll, beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick, ref } from 'vue'
import { routeOf, type Answer } from '~~/shared/api'
import { useBoardKeys } from '~/dispatch/day/useBoardKeys'
import { useTrying } from '~/dispatch/day/useTrying'
import type { Visit } from '~/dispatch/day/useDay'
import { catalogueOfRoutes, type Problem } from '~/lib/api'
import type { Trying } from '~/lib/boardDay'
import { useBoard } from '~/stores/board'
import { useScheduleFilter } from '~/stores/scheduleFilter'
import { sampleOf } from './sample'
import { answers, later } from './server'
import { within } from './within'

beforeAll(() => catalogueOfRoutes())
const A = '0192d4e0-0000-7000-8000-00000000000a'
const B = '0192d4e0-0000-7000-8000-00000000000b'
const INES = '0192d4e0-0000-7000-8000-0000000000aa'
const PIET = '0192d4e0-0000-7000-8000-0000000000bb'
const at = (hour: number) => `2026-11-24T${String(hour).padStart(2, '0')}:00:00.000Z`
const visit = (over: Partial<Visit> = {}): Visit => ({
  ...(sampleOf(routeOf('placeVisit').answer!) as Visit),
  id: A,
  version: 1,
  state: 'planned',
  technicianId: INES,
  startAt: at(14),
  durationSeconds: 3600,
  crewIds: [],
  alongIds: [],
  locked: false,
  ...over,
})
/** What the server makes of a placement: the place as asked for, one version on. */
const placed = (body: unknown, version: number) => ({ ...visit(), ...(body as object), version })
const refusal = (code: string) => ({ status: 409, body: { code, detail: 'Somebody was faster.' } })

describe('what was done on the board', () => {
  it('is taken back to where it was, with the version that it made', async () => {
    const asked = answers({ body: placed({}, 2) }, { body: placed({}, 3) })
    const board = useBoard()
    await board.place(
      visit(),
      { technicianId: PIET, startAt: at(16), durationSeconds: 3600 },
      false,
    )
    await board.undo()
    expect(asked[0]!.body).toMatchObject({ technicianId: PIET, version: 1, override: false })
    expect(asked[1]!.body).toMatchObject({ technicianId: INES, startAt: at(14), version: 2 })
    expect([board.done.length, board.undone.length]).toEqual([0, 1])
  })
  it('and done again, with the version that the taking back made', async () => {
    const there = placed({ technicianId: PIET, startAt: at(16) }, 2)
    const asked = answers({ body: there }, { body: placed({}, 3) }, { body: placed({}, 4) })
    const board = useBoard()
    await board.place(
      visit(),
      { technicianId: PIET, startAt: at(16), durationSeconds: 3600 },
      false,
    )
    await board.undo()
    await board.redo()
    expect(asked[2]!.body).toMatchObject({ technicianId: PIET, startAt: at(16), version: 3 })
    expect([board.done.length, board.undone.length]).toEqual([1, 0])
  })
  it('of two acts on one visit, the earlier is taken back on what the later left', async () => {
    const asked = answers(
      { body: placed({}, 2) },
      { body: placed({}, 3) },
      { body: placed({}, 4) },
      { body: placed({}, 5) },
    )
    const board = useBoard()
    const first = visit()
    await board.place(first, { technicianId: PIET, startAt: at(16), durationSeconds: 3600 }, false)
    const second = visit({ version: 2, technicianId: PIET, startAt: at(16) })
    await board.place(second, { technicianId: PIET, startAt: at(17), durationSeconds: 3600 }, false)
    await board.undo()
    await board.undo()
    expect(asked.map(({ body }) => (body as { version: number }).version)).toEqual([1, 2, 3, 4])
    expect(asked[3]!.body).toMatchObject({ technicianId: INES, startAt: at(14) })
  })
  it.each(['stale', 'locked', 'not_now', 'started'])(
    'that somebody changed since (%s) is left as they put it, and said',
    async (code) => {
      answers({ body: placed({}, 2) }, refusal(code))
      const board = useBoard()
      await board.place(
        visit(),
        { technicianId: PIET, startAt: at(16), durationSeconds: 1800 },
        false,
      )
      await expect(board.undo()).rejects.toThrow('it is left as they put it')
      expect([board.done.length, board.undone.length]).toEqual([0, 0])
    },
  )
  it('of which a part was changed since says how much of it', async () => {
    const swapped = [placed({ id: A }, 2), placed({ id: B }, 2)]
    answers({ body: { visits: swapped } }, { body: placed({ id: A }, 3) }, refusal('stale'))
    const board = useBoard()
    await board.swap(visit(), visit({ id: B, technicianId: PIET }), false)
    await expect(board.undo()).rejects.toThrow('changed 1 of these 2 visits')
    expect(board.undone.at(-1)!.map(({ id }) => id)).toEqual([A])
  })
  it('that had no answer stays to be taken back', async () => {
    answers({ body: placed({}, 2) }, { status: 503, body: { code: 'busy', detail: 'Wait.' } })
    const board = useBoard()
    await board.place(
      visit(),
      { technicianId: PIET, startAt: at(16), durationSeconds: 3600 },
      false,
    )
    const problem = await board.undo().catch((error: Problem) => error)
    expect((problem as Problem).status).toBe(503)
    expect([board.done.length, board.undone.length]).toEqual([1, 0])
  })
  it('is forgotten from the twenty-first act on', async () => {
    answers({ body: placed({}, 2) })
    const board = useBoard()
    for (let i = 0; i < 22; i++)
      await board.place(
        visit(),
        { technicianId: PIET, startAt: at(i % 20), durationSeconds: 3600 },
        false,
      )
    expect(board.done).toHaveLength(20)
  })
  it('and done anew leaves nothing to be done again', async () => {
    answers({ body: placed({}, 2) })
    const board = useBoard()
    const place = { technicianId: PIET, startAt: at(16), durationSeconds: 3600 }
    await board.place(visit(), place, false)
    await board.undo()
    await board.place(visit(), place, false)
    expect(board.undone).toEqual([])
  })
  it('as a cancelling is taken back by bringing it to where it was planned', async () => {
    const asked = answers({ body: placed({}, 2) }, { body: placed({}, 3) })
    const board = useBoard()
    await board.cancel(visit(), 'the well is dry', false)
    await board.undo()
    expect(asked.map(({ body }) => (body as { cancelled: boolean }).cancelled)).toEqual([
      true,
      false,
    ])
    expect(asked[0]!.body).toMatchObject({ reason: 'the well is dry', version: 1 })
  })
  it('as a split is two steps: what came to be goes, what was shortened is long again', async () => {
    const whole = visit({ durationSeconds: 7200 })
    const asked = answers(
      {
        body: {
          visit: placed({ id: B, startAt: null, technicianId: null }, 1),
          of: placed({ durationSeconds: 3600 }, 2),
        },
      },
      { body: placed({ id: B }, 2) },
      { body: placed({ durationSeconds: 7200 }, 3) },
    )
    const board = useBoard()
    await board.further(whole, { split: true, durationSeconds: 3600 })
    await board.undo()
    expect(asked[1]).toMatchObject({ path: `/visits/${B}/cancel`, body: { cancelled: true } })
    expect(asked[2]!.body).toMatchObject({ durationSeconds: 7200, version: 2 })
  })
})

describe('keys on a visit', () => {
  const FRAME = { from: Date.parse(at(12)), span: 10 * 3_600_000 }
  const hands = (over: { may?: boolean; turned?: boolean } = {}) => {
    const trying = ref<Trying | null>(null)
    const did: string[] = []
    const noted = (what: string) => (one: { id: string }) => void did.push(`${what} ${one.id}`)
    const key = useBoardKeys({
      may: ref(over.may ?? true),
      now: ref(Date.parse(at(13))),
      frame: ref(FRAME) as never,
      turned: ref(over.turned ?? false),
      trying,
      swapping: ref(null),
      rows: () => [INES, PIET, null],
      open: noted('open'),
      refuse: (sentence) => void did.push(sentence),
      save: noted('save'),
      swap: noted('swap'),
      toggleLock: noted('lock'),
      copy: noted('copy'),
      split: noted('split'),
    })
    const press = (name: string, on: Visit = visit(), more: KeyboardEventInit = {}) => {
      const event = new KeyboardEvent('keydown', { key: name, cancelable: true, ...more })
      key(event, on)
      return event
    }
    return { trying, did, press }
  }
  it.each([
    ['ArrowRight', {}, { startAt: '2026-11-24T14:15:00.000Z' }],
    ['ArrowLeft', {}, { startAt: '2026-11-24T13:45:00.000Z' }],
    ['ArrowDown', {}, { technicianId: PIET }],
    ['ArrowUp', {}, { technicianId: INES }],
    ['ArrowRight', { shiftKey: true }, { durationSeconds: 4500 }],
    ['ArrowLeft', { shiftKey: true }, { durationSeconds: 2700 }],
  ])('%s %j tries a place, and saves nothing', (name, more, expected) => {
    const { press, trying, did } = hands()
    expect(press(name, visit(), more).defaultPrevented).toBe(true)
    expect(trying.value!.place).toMatchObject(expected)
    expect(did).toEqual([])
  })
  it.each([
    ['ArrowDown', {}, { startAt: '2026-11-24T14:15:00.000Z' }],
    ['ArrowUp', { shiftKey: true }, { durationSeconds: 2700 }],
    ['ArrowRight', {}, { technicianId: PIET }],
  ])('%s %j is turned where the hours run down', (name, more, expected) => {
    const { press, trying } = hands({ turned: true })
    press(name, visit(), more)
    expect(trying.value!.place).toMatchObject(expected)
  })
  it('go on from the place that is tried, to the last row and not beyond', () => {
    const { press, trying } = hands()
    for (let i = 0; i < 5; i++) press('ArrowDown')
    expect(trying.value!.place.technicianId).toBeNull()
  })
  it('never make a visit shorter than a quarter of an hour, nor longer than a day', () => {
    const { press, trying } = hands()
    for (let i = 0; i < 9; i++) press('ArrowLeft', visit(), { shiftKey: true })
    expect(trying.value!.place.durationSeconds).toBe(900)
    const long = visit({ durationSeconds: 86_400 })
    const other = hands()
    other.press('ArrowRight', long, { shiftKey: true })
    expect(other.trying.value!.place.durationSeconds).toBe(86_400)
  })
  it('Enter saves what is tried, and opens what is not', () => {
    const { press, did } = hands()
    press('Enter')
    press('ArrowRight')
    press('Enter')
    expect(did).toEqual([`open ${A}`, `save ${A}`])
  })
  it('Escape leaves it where it was', () => {
    const { press, trying, did } = hands()
    press('ArrowRight')
    press('Escape')
    expect([trying.value, did]).toEqual([null, []])
  })
  it.each([
    ['s', 'swap'],
    ['l', 'lock'],
    ['c', 'copy'],
    ['x', 'split'],
    ['Delete', 'save'],
  ])('“%s” is %s', (name, what) => {
    const { press, did } = hands()
    press(name)
    expect(did).toEqual([`${what} ${A}`])
  })
  it('leave the browser its own: Ctrl C copies text', () => {
    const { press, did } = hands()
    expect(press('c', visit(), { ctrlKey: true }).defaultPrevented).toBe(false)
    expect(did).toEqual([])
  })
  it('do not split what is too short, nor swap what has no time', () => {
    const { press, did } = hands()
    press('x', visit({ durationSeconds: 900 }))
    press('s', visit({ startAt: null }))
    expect(did).toEqual([])
  })
  it('say that a locked visit is locked', () => {
    const { press, trying, did } = hands()
    press('ArrowRight', visit({ locked: true }))
    expect([trying.value, did]).toEqual([null, ['This visit is locked where it is. L unlocks it.']])
  })
  it('of whoever only looks change nothing', () => {
    const { press, trying, did } = hands({ may: false })
    for (const name of ['ArrowRight', 's', 'l', 'c', 'x']) press(name)
    expect([trying.value, did]).toEqual([null, []])
  })
  it('put what has no slot yet at the next full hour of the first row', () => {
    const { press, trying } = hands()
    press('ArrowRight', visit({ startAt: null, technicianId: null }))
    expect(trying.value!.place).toMatchObject({
      technicianId: INES,
      startAt: '2026-11-24T13:15:00.000Z',
    })
  })
})

describe('a place that is tried', () => {
  beforeEach(() => void vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] }))
  const tryAt = (hour: number): Trying => ({
    visit: visit(),
    place: { technicianId: PIET, startAt: at(hour), durationSeconds: 3600 },
    warnings: [],
  })
  const rest = async () => {
    await nextTick()
    vi.advanceTimersByTime(150)
    await flushPromises()
  }
  it('is asked about once the hand rests, not at each place that it passes', async () => {
    const asked = answers({ body: { warnings: [{ code: 'overlap', text: 'Piet is busy then.' }] } })
    const { trying, warnings } = within(() => useTrying())
    for (const hour of [14, 15, 16]) {
      trying.value = tryAt(hour)
      await nextTick()
    }
    await rest()
    expect(asked.map(({ body }) => (body as { startAt: string }).startAt)).toEqual([at(16)])
    expect(warnings.value).toBe('Piet is busy then.')
    vi.useRealTimers()
  })
  it('has the warnings of itself, however late those of another place come', async () => {
    const waiting = [later<Response>(), later<Response>()]
    let turn = 0
    vi.stubGlobal('fetch', () => waiting[turn++]!.promise)
    const answer = (text: string) =>
      new Response(JSON.stringify({ warnings: [{ code: 'overlap', text }] }))
    const { trying, warnings } = within(() => useTrying())
    trying.value = tryAt(14)
    await rest()
    trying.value = tryAt(15)
    await rest()
    waiting[1]!.settle(answer('Second.'))
    await flushPromises()
    waiting[0]!.settle(answer('First.'))
    await flushPromises()
    expect(warnings.value).toBe('Second.')
    vi.useRealTimers()
  })
  it('that could not be asked about does not say that nothing speaks against it', async () => {
    answers({ status: 503, body: { code: 'busy', detail: 'The books are away.' } })
    const { trying, warnings } = within(() => useTrying())
    trying.value = tryAt(14)
    await rest()
    expect(warnings.value).toBe('Not checked: The books are away.')
    vi.useRealTimers()
  })
})

describe('what is looked at on the schedule', () => {
  type Filter = Answer<'savedFilters'>['items'][number]['filter']
  const NONE: Filter = { technicianIds: [], territory: '', skill: '', state: '', kind: '' }
  const fits = (filter: Partial<Filter>, over: Partial<Visit>) => {
    const filters = useScheduleFilter()
    filters.set({ ...NONE, ...filter })
    return filters.fits(
      visit({ territory: 'The marsh', skills: ['pumps'], kind: 'repair', ...over }),
    )
  }
  it.each<[Partial<Filter>, Partial<Visit>, boolean]>([
    [{}, {}, true],
    [{ technicianIds: [INES] }, {}, true],
    [{ technicianIds: [PIET] }, {}, false],
    [{ technicianIds: [PIET] }, { crewIds: [PIET] }, true],
    [{ technicianIds: [PIET] }, { alongIds: [PIET] }, true],
    [{ territory: 'The marsh' }, {}, true],
    [{ territory: 'The tarns' }, {}, false],
    [{ skill: 'pumps' }, {}, true],
    [{ skill: 'wells' }, {}, false],
    [{ kind: 'repair' }, {}, true],
    [{ kind: 'service' }, {}, false],
    [{ state: 'late' }, { atRisk: true }, true],
    [{ state: 'late' }, { atRisk: false }, false],
    [{ state: 'no_slot' }, { startAt: null }, true],
    [{ state: 'no_slot' }, {}, false],
  ])('%j of %j: %s', (filter, over, expected) => expect(fits(filter as never, over)).toBe(expected))
  it('stays through a reload, and is nothing where what was kept cannot be read', () => {
    sessionStorage.setItem('schedule-filter', '{broken')
    expect(useScheduleFilter().active).toBe(false)
  })
})
