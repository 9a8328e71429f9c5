// What was done on the schedule: the last twenty acts can be taken back and done again, also while others act.
import { defineStore } from 'pinia'
import type { Answer } from '~~/shared/api'
import type { VisitPromise } from '~~/core/visits/visitPromise'
import { call, newId, Problem } from '~/lib/api'
import type { PromiseAnswer } from '~/dispatch/visit/promise'
import { telling } from '~/dispatch/visit/telling'

export interface Place {
  technicianId: string | null
  startAt: string | null
  durationSeconds: number
  crewIds?: string[]
  /** left out, what was promised is kept */
  promise?: VisitPromise | null
}
type Visit = Answer<'placeVisit'>
type Seen = { id: string; version: number }
/** A placement that was made: how it was, how it is, and the version that it made. */
export interface Move {
  id: string
  before: Place
  after: Place
  version: number
}
/** A visit that came to be, or was cancelled: whether it was there before, and is after. */
interface Coming {
  id: string
  before: boolean
  after: boolean
  version: number
}
type Step = Move | Coming
/** One act of a person may be several steps: a swap, a split, a plan that was accepted. */
type Act = Step[]
const MOST = 20
const promiseOf = ({ promiseDate: date, promiseFrom: from, promiseTo: to }: Visit) =>
  date ? { date, from, to } : null
const placeOf = (v: Visit): Place => ({
  technicianId: v.technicianId,
  startAt: v.startAt,
  durationSeconds: v.durationSeconds,
  crewIds: v.crewIds,
  promise: promiseOf(v),
})
/** Whose promise changed by it is told: at once, by whoever changed it. */
const tellOf = (saved: Visit, before: Visit, known?: boolean) => {
  if (saved.toTell && !before.toTell && !known) telling.value = saved.id
}

/** Refusals after which a visit is left as somebody else put it. */
const LEFT = ['stale', 'locked', 'not_now', 'started']

export const useBoard = defineStore('board', {
  state: () => ({ done: [] as Act[], undone: [] as Act[] }),
  actions: {
    async place(
      visit: Visit,
      place: Place,
      override: boolean,
      answer: PromiseAnswer = {},
    ): Promise<void> {
      const saved = await call('placeVisit', {
        params: { id: visit.id },
        body: { ...place, ...answer, version: visit.version, override },
      })
      tellOf(saved, visit, answer.known)
      this.keep([
        {
          id: visit.id,
          before: placeOf(visit),
          after: placeOf(saved),
          version: saved.version,
        },
      ])
    },
    /** Two visits change places: each takes the other's technician and start. */
    async swap(a: Visit, b: Visit, override: boolean): Promise<void> {
      const [first, second] = [a, b].map(({ id, version }) => ({ id, version })) as [Seen, Seen]
      const { visits } = await call('swapVisits', { body: { first, second, override } })
      this.keep(
        [a, b].map((v, i) => ({
          id: v.id,
          before: placeOf(v),
          after: placeOf(visits[i]!),
          version: visits[i]!.version,
        })),
      )
    },
    /** A further visit of the same work order: as long as this one, or the rest of it when it is split. */
    async further(
      visit: Visit,
      wish: {
        split: boolean
        durationSeconds: number
        note?: string
        technicianId?: string | null
        startAt?: string | null
      },
    ): Promise<string> {
      const made = await call('furtherVisit', {
        params: { id: visit.id },
        body: {
          id: newId(),
          version: visit.version,
          technicianId: null,
          startAt: null,
          note: '',
          ...wish,
          override: true,
        },
      })
      this.keep([
        { id: made.visit.id, before: false, after: true, version: made.visit.version },
        ...(wish.split
          ? [
              {
                id: visit.id,
                before: placeOf(visit),
                after: placeOf(made.of),
                version: made.of.version,
              },
            ]
          : []),
      ])
      return made.visit.id
    },
    async cancel(visit: Visit, reason: string, known: boolean): Promise<void> {
      const saved = await call('cancelVisit', {
        params: { id: visit.id },
        body: { version: visit.version, cancelled: true, reason, known },
      })
      tellOf(saved, visit, known)
      this.keep([{ id: visit.id, before: true, after: false, version: saved.version }])
    },
    keep(act: Act): void {
      this.done = [...this.done, act].slice(-MOST)
      this.undone = []
    },
    undo(override = false): Promise<void> {
      return this.turn('done', 'undone', 'before', override)
    },
    redo(override = false): Promise<void> {
      return this.turn('undone', 'done', 'after', override)
    },
    step(s: Step, to: 'before' | 'after', override: boolean): Promise<Visit> {
      const there = s[to]
      return typeof there === 'boolean'
        ? call('cancelVisit', {
            params: { id: s.id },
            body: { version: s.version, cancelled: !there, reason: '', override },
          })
        : call('placeVisit', {
            params: { id: s.id },
            body: { ...there, version: s.version, override: true },
          })
    },
    /**
     * Takes the last act from one pile, turns it, and lays it on the other. The version is the one that our own act made: what
     * somebody moved or locked since stays as they put it, and is said. What was not turned for want of an answer, or of a person's word, stays to be turned.
     */
    async turn(
      from: 'done' | 'undone',
      onto: 'done' | 'undone',
      to: 'before' | 'after',
      override: boolean,
    ): Promise<void> {
      const act = this[from].at(-1)
      if (!act) return
      this[from] = this[from].slice(0, -1)
      const turned: Act = []
      let lost = 0
      for (const s of act) {
        try {
          const saved = await this.step(s, to, override)
          turned.push({ ...s, version: saved.version })
          const follow = (acts: Act[]) =>
            acts.map((a) => a.map((x) => (x.id === s.id ? { ...x, version: saved.version } : x)))
          this.done = follow(this.done)
          this.undone = follow(this.undone)
        } catch (error) {
          if (!LEFT.includes((error as Problem).code)) {
            this[from] = [...this[from], act.map((x) => turned.find((t) => t.id === x.id) ?? x)]
            throw error
          }
          lost++
        }
      }
      if (turned.length) this[onto] = [...this[onto], turned].slice(-MOST)
      if (lost)
        throw new Problem(
          act.length === 1
            ? 'Someone changed this visit after you did; it is left as they put it.'
            : `Someone changed ${lost} of these ${act.length} visits after you did; they are left as they were put.`,
          { status: 409, code: 'stale' },
        )
    },
  },
})
