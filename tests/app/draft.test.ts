// A call while it is typed: kept in the browser at once and on the server a moment later, booked as what stands there; acts of the schedule in turn.
import { flushPromises } from '@vue/test-utils'
import { beforeAll, beforeEach, describe, expect, it, vi } from 'vitest'
import { bookCall, quoteCall } from '~/calls/booking'
import { useAlike } from '~/calls/who/useAlike'
import { catalogueOfRoutes, type Problem } from '~/lib/api'
import { useScheduleAct } from '~/lib/useScheduleAct'
import { useCall, type Draft } from '~/stores/call'
import { forgetKeptCalls } from '~/stores/keptCalls'
import { callDraft } from '~~/shared/calls'
import { ref } from 'vue'
import { answers, later } from './server'
import { within } from './within'

const ID = '0192d4e0-0000-7000-8000-00000000002a'
const SITE = '0192d4e0-0000-7000-8000-00000000002b'
const ENTRY = '0192d4e0-0000-7000-8000-00000000002c'
const TODAY = '2026-11-24'
beforeAll(() => catalogueOfRoutes())
beforeEach(() => {
  localStorage.clear()
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
  return () => vi.useRealTimers()
})
const pass = async (ms: number) => {
  vi.advanceTimersByTime(ms)
  await flushPromises()
}
const draftOf = (over: Partial<Draft> = {}): Draft => ({
  ...(callDraft.getDefault() as Draft),
  ...over,
})

/** What an earlier window had typed, and what of it the server had then. */
const inBrowser = (draft: Draft, kept: Draft) =>
  localStorage.setItem(
    `call:${ID}`,
    JSON.stringify({ draft, kept: JSON.stringify(kept), version: 1 }),
  )
/** Whether the browser knows that the server has all of it. */
function inBoth(): boolean {
  const { draft, kept } = JSON.parse(localStorage.getItem(`call:${ID}`)!) as Record<string, string>
  return JSON.stringify(draft) === kept
}
const onServer = (over: Partial<Draft>, version: number, more: object = {}) => ({
  body: { draft: draftOf(over), version, origin: 'telephone', files: [], ...more },
})

describe('a call that is opened', () => {
  it('anew is empty, for today, and asks nothing', async () => {
    const asked = answers({})
    const store = useCall()
    await store.open(ID, true, TODAY)
    expect([store.draft.date, store.draft.query, asked.length]).toEqual([TODAY, '', 0])
  })
  it('again is as the server has it', async () => {
    answers({ body: { draft: draftOf({ problem: 'No water' }), origin: 'form', files: [] } })
    const store = useCall()
    await store.open(ID, false, TODAY)
    expect([store.draft.problem, store.origin]).toEqual(['No water', 'form'])
  })
  it('again is as it was typed here, where that did not reach the server', async () => {
    inBrowser(draftOf({ problem: 'No water since 6' }), draftOf())
    answers({ body: { draft: draftOf({ problem: 'No water' }), origin: 'telephone', files: [] } })
    const store = useCall()
    await store.open(ID, false, TODAY)
    expect(store.draft.problem).toBe('No water since 6')
  })
  it('again is as an older version of this program had left it here', async () => {
    localStorage.setItem(`call:${ID}`, JSON.stringify(draftOf({ problem: 'No water since 6' })))
    answers({ status: 503, body: { code: 'busy', detail: 'Away.' } })
    const store = useCall()
    await store.open(ID, false, TODAY)
    expect(store.draft.problem).toBe('No water since 6')
  })
  it('from here without a signal is what was typed here', async () => {
    inBrowser(draftOf({ problem: 'No water' }), draftOf())
    answers({ status: 503, body: { code: 'busy', detail: 'Away.' } })
    const store = useCall()
    await store.open(ID, false, TODAY)
    expect(store.draft.problem).toBe('No water')
  })
  it('and cannot be had is refused, not opened as an empty one', async () => {
    answers({ status: 503, body: { code: 'busy', detail: 'The books are away.' } })
    const problem = await useCall()
      .open(ID, false, TODAY)
      .catch((error: Problem) => error)
    expect((problem as Problem).message).toBe('The books are away.')
  })
})

describe('a call that is typed', () => {
  const typed = async (asked: ReturnType<typeof answers>) => {
    const store = useCall()
    await store.open(ID, true, TODAY)
    store.draft.problem = 'No water'
    store.changed('Vane, no water')
    return { store, asked }
  }
  it('is in the browser at once, and on the server a moment later, once', async () => {
    const { store, asked } = await typed(answers({ body: { heldBy: '' } }))
    expect(localStorage.getItem(`call:${ID}`)).toContain('No water')
    store.draft.problem = 'No water since 6'
    store.changed('Vane, no water since 6')
    expect(asked).toHaveLength(0)
    await pass(600)
    expect(asked).toHaveLength(1)
    expect(asked[0]!.body).toMatchObject({
      summary: 'Vane, no water since 6',
      draft: { problem: 'No water since 6' },
    })
    expect(store.saving).toBe(false)
  })
  it('and kept at once, before it is ended, is not kept a second time into what it has become', async () => {
    const { store, asked } = await typed(answers({ body: { heldBy: '', version: 1 } }))
    await store.save('Vane, no water')
    await pass(600)
    expect(asked).toHaveLength(1)
  })
  it('that was ended elsewhere stays in this browser, and says so', async () => {
    const { store } = await typed(
      answers({ status: 409, body: { code: 'call_ended', detail: 'It was answered meanwhile.' } }),
    )
    await pass(600)
    expect([store.alone, store.saving]).toEqual(['It was answered meanwhile.', false])
    expect(localStorage.getItem(`call:${ID}`)).toContain('No water')
  })
  it('that is not changed is not kept', async () => {
    const asked = answers({})
    const store = useCall()
    await store.open(ID, true, TODAY)
    store.changed('')
    await pass(600)
    expect([asked.length, localStorage.getItem(`call:${ID}`)]).toEqual([0, null])
  })
  it('says that it is in this browser alone, until it reached the server', async () => {
    const { store } = await typed(
      answers({ status: 503, body: { code: 'busy', detail: 'Away.' } }, { body: { heldBy: '' } }),
    )
    await pass(600)
    expect(store.alone).toBe('the server did not answer')
    store.draft.problem = 'No water since 6'
    store.changed('')
    await pass(600)
    expect([store.alone, store.saving]).toEqual(['', false])
  })
  it('says why it was refused, which is not that nobody answered', async () => {
    const { store } = await typed(
      answers({ status: 422, body: { code: 'invalid', detail: 'Not more than 2000 signs.' } }),
    )
    await pass(600)
    expect(store.alone).toBe('Not more than 2000 signs.')
  })
  it('is put together with what somebody else wrote in it, and kept as both', async () => {
    const asked = answers(
      onServer({ problem: 'No water', orderNumber: '' }, 3),
      {
        status: 409,
        body: {
          code: 'stale',
          current: { draft: draftOf({ problem: 'No water since 6' }), version: 4 },
        },
      },
      { body: { heldBy: '', version: 5 } },
    )
    const store = useCall()
    await store.open(ID, false, TODAY)
    store.draft.orderNumber = 'PO 7'
    store.changed('')
    await pass(600)
    await flushPromises()
    expect(asked[1]!.body).toMatchObject({ version: 3 })
    expect(asked[2]!.body).toMatchObject({
      version: 4,
      draft: { problem: 'No water since 6', orderNumber: 'PO 7' },
    })
    expect([store.version, store.theirs, inBoth()]).toEqual([5, [], true])
  })
  describe('where both wrote the same', () => {
    /** Typed here over what somebody else wrote meanwhile. */
    const collided = async () => {
      const asked = answers(
        onServer({ problem: 'No water' }, 3),
        onServer({ problem: 'Brown water' }, 4),
        { body: { heldBy: '', version: 5 } },
      )
      const store = useCall()
      await store.open(ID, false, TODAY)
      store.draft.problem = 'No water at all'
      store.changed('Vane')
      store.saving = false
      await store.refresh()
      return { store, asked }
    }
    it('keeps neither over the other, and says theirs', async () => {
      const { store, asked } = await collided()
      expect([store.draft.problem, store.theirs]).toEqual([
        'No water at all',
        [{ path: 'problem', value: 'Brown water' }],
      ])
      await pass(600)
      expect([asked.length, store.saving]).toEqual([2, false])
      expect(store.alone).toContain('which of the two stays')
    })
    it('asks again after a reload', async () => {
      const { store } = await collided()
      store.draft.problem = 'No water at all, and cold'
      store.changed('Vane')
      await pass(600)
      answers(onServer({ problem: 'Brown water' }, 4))
      await store.open(ID, false, TODAY)
      expect([store.draft.problem, store.theirs]).toEqual([
        'No water at all, and cold',
        [{ path: 'problem', value: 'Brown water' }],
      ])
    })
    it.each([
      [true, 'Brown water'],
      [false, 'No water at all'],
    ])('keeps what a person says: theirs %s', async (isTheirs, problem) => {
      const { store, asked } = await collided()
      await pass(600)
      await store.decide(isTheirs)
      expect(asked[2]!.body).toMatchObject({ version: 4, draft: { problem } })
      expect([store.draft.problem, store.theirs, store.alone, inBoth()]).toEqual([
        problem,
        [],
        '',
        true,
      ])
    })
  })
  it('says that it was booked elsewhere', async () => {
    answers(onServer({}, 3), onServer({}, 4, { workOrderId: SITE }))
    const store = useCall()
    await store.open(ID, false, TODAY)
    await store.refresh()
    expect(store.booked).toBe(SITE)
  })
  it('and left at once is kept with its last words, and not written into the next one', async () => {
    const { store, asked } = await typed(answers({ body: { heldBy: '', version: 1 } }))
    store.leave('Vane, no water')
    await store.open(SITE, true, TODAY)
    await pass(600)
    expect(asked.map(({ path }) => path)).toEqual([`/calls/${ID}`])
    expect(asked[0]!.body).toMatchObject({ draft: { problem: 'No water' } })
    expect([store.id, store.draft.problem, store.version]).toEqual([SITE, '', null])
    expect(inBoth()).toBe(true)
    forgetKeptCalls()
    expect(localStorage.getItem(`call:${ID}`)).toBeNull()
  })
  it('that did not reach the server stays in the browser of whoever signs out', async () => {
    await typed(answers({ status: 503, body: { code: 'busy', detail: 'Away.' } }))
    await pass(600)
    forgetKeptCalls()
    expect(localStorage.getItem(`call:${ID}`)).toContain('No water')
  })
  it('and kept is there after a reload that asks nothing', async () => {
    await typed(answers({ body: { heldBy: '', version: 1 } }))
    await pass(600)
    const again = useCall()
    await again.open(ID, true, TODAY)
    expect([again.draft.problem, again.version]).toEqual(['No water', 1])
  })
  it('says who else holds the time that it holds', async () => {
    const { store } = await typed(answers({ body: { heldBy: 'Dunstan' } }))
    await pass(600)
    expect(store.heldBy).toBe('Dunstan')
  })
  it('that is ended leaves nothing behind, and is not kept once more', async () => {
    const { store, asked } = await typed(answers({ body: { heldBy: '' } }))
    store.end()
    await pass(600)
    store.changed('')
    await pass(600)
    expect([asked.length, localStorage.getItem(`call:${ID}`)]).toEqual([0, null])
  })
})

describe('a call that is booked', () => {
  const said = { override: false, inSpite: '' }
  const opened = async () => {
    const store = useCall()
    await store.open(ID, true, TODAY)
    Object.assign(store.draft, {
      customerId: ID,
      siteId: SITE,
      problem: 'No water',
      start: '',
      entries: [{ entryId: ENTRY, quantity: '2' }],
    })
    return store
  }
  const ok = { body: { number: 'W-1', workOrderId: ID, visitId: ID } }
  it('is what stands there: no time where none is chosen', async () => {
    await opened()
    const asked = answers(ok)
    await bookCall(said)
    expect(asked[0]!.body).toMatchObject({
      customerId: ID,
      siteId: SITE,
      start: null,
      promiseFrom: null,
      entries: [{ entryId: ENTRY, quantity: '2' }],
      override: false,
    })
  })
  it('makes room where others are moved for it: that was looked at already', async () => {
    const store = await opened()
    store.draft.moves = [{ visitId: SITE, startAt: '2026-11-25T14:00:00.000Z' }] as never
    const asked = answers(ok)
    await bookCall(said)
    expect(asked[0]!.body).toMatchObject({
      override: true,
      moves: [{ visitId: SITE, startAt: '2026-11-25T14:00:00.000Z' }],
    })
  })
  it('that was refused is another request the next time, for the same work order', async () => {
    await opened()
    const asked = answers({ status: 409, body: { code: 'slot_taken', detail: 'Taken.' } }, ok)
    await bookCall(said).catch(() => {})
    await bookCall(said)
    const [first, second] = asked.map(
      ({ body }) => body as { workOrderId: string; visitId: string },
    )
    expect(asked[1]!.key).not.toBe(asked[0]!.key)
    expect([second!.workOrderId, second!.visitId]).toEqual([first!.workOrderId, first!.visitId])
  })
  it('whose answer was lost is the same request the next time', async () => {
    await opened()
    const asked = answers({ status: 502 }, ok)
    await bookCall(said).catch(() => {})
    await bookCall(said)
    expect(asked[1]!.key).toBe(asked[0]!.key)
  })
  it('as a quote takes along what was read out', async () => {
    await opened()
    const asked = answers({ body: { id: ID } })
    await quoteCall()
    expect(asked[0]!.body).toMatchObject({
      callId: ID,
      scope: 'No water',
      lines: [{ entryId: ENTRY, quantity: '2' }],
    })
  })
})

describe('who is perhaps known already', () => {
  const known = (name: string) => ({ body: { items: [{ customerId: ID, name, reasons: [] }] } })
  it('is asked once typing rests, about what stands there then', async () => {
    const draft = ref(draftOf())
    const asked = answers(known('Vane'))
    const { alike } = within(() => useAlike(draft))
    for (const name of ['Van', 'Vane &', 'Vane & Sons']) {
      draft.value.name = name
      await pass(50)
    }
    await pass(300)
    expect(asked.map(({ body }) => (body as { name: string }).name)).toEqual(['Vane & Sons'])
    expect(alike.value).toHaveLength(1)
  })
  it('is nobody where too little is typed', async () => {
    const draft = ref(draftOf({ name: 'Vane & Sons' }))
    answers(known('Vane'))
    const { alike } = within(() => useAlike(draft))
    await pass(300)
    draft.value.name = ''
    await pass(300)
    expect(alike.value).toEqual([])
  })
  it('could not be looked up, which is said', async () => {
    answers({ status: 503, body: { code: 'busy', detail: 'Away.' } })
    const { unseen } = within(() => useAlike(ref(draftOf({ name: 'Vane & Sons' }))))
    await pass(300)
    expect(unseen.value).toBe(true)
  })
})

describe('acts of the schedule', () => {
  it('follow each other, each on the day that the one before left', async () => {
    const order: string[] = []
    const first = later<void>()
    const { act } = useScheduleAct(() => Promise.resolve(void order.push('read')))
    void act(() => (order.push('first'), first.promise))
    const done = act(() => Promise.resolve(void order.push('second')))
    await flushPromises()
    expect(order).toEqual(['first'])
    first.settle()
    await done
    expect(order).toEqual(['first', 'read', 'second', 'read'])
  })
  it('that the server would rather not do are asked about, and done once somebody says so', async () => {
    const tries: boolean[] = []
    const { act, refused, failure } = useScheduleAct(() => Promise.resolve())
    await act((override) => {
      tries.push(override)
      return override
        ? Promise.resolve()
        : Promise.reject(Object.assign(new Error('At a meeting.'), { code: 'placement_warning' }))
    })
    expect([refused.value!.text, failure.value]).toEqual(['At a meeting.', ''])
    await refused.value!.again({})
    expect([tries, refused.value]).toEqual([[false, true], null])
  })
  it('that fail say why, and the next one has its turn', async () => {
    const { act, failure } = useScheduleAct(() => Promise.resolve())
    await act(() => Promise.reject(new Error('Somebody was faster.')))
    expect(failure.value).toBe('Somebody was faster.')
    await act(() => Promise.resolve())
    expect(failure.value).toBe('')
  })
})
