// What was done on the schedule: the last twenty acts can be taken back and done again, also while others act.
import { defineStore } from 'pinia'
import type { Answer } from '~~/shared/api'
import { call, Problem } from '~/lib/api'

export interface Place { technicianId: string | null, startAt: string | null, durationSeconds: number }
type Visit = Answer<'placeVisit'>
/** A placement that was made: how it was, how it is, and the version that it made. */
export interface Move { id: string, before: Place, after: Place, version: number }
/** One act of a person may be several placements: a swap, a plan that was accepted. */
type Act = Move[]
const MOST = 20
const placeOf = (v: Place): Place => ({ technicianId: v.technicianId, startAt: v.startAt, durationSeconds: v.durationSeconds })

export const useBoard = defineStore('board', {
  state: () => ({ done: [] as Act[], undone: [] as Act[] }),
  actions: {
    async place(visit: Visit, place: Place, override: boolean): Promise<void> {
      const saved = await call('placeVisit', { params: { id: visit.id }, body: { ...place, version: visit.version, override } })
      this.keep([{ id: visit.id, before: placeOf(visit), after: placeOf(place), version: saved.version }])
    },
    /** Two visits change places: each takes the other's technician and start. */
    async swap(a: Visit, b: Visit): Promise<void> {
      const { visits } = await call('swapVisits', { body: { first: { id: a.id, version: a.version }, second: { id: b.id, version: b.version } } })
      this.keep([a, b].map((v, i) => ({ id: v.id, before: placeOf(v), after: placeOf(visits[i]!), version: visits[i]!.version })))
    },
    keep(act: Act): void {
      this.done = [...this.done, act].slice(-MOST)
      this.undone = []
    },
    async undo(): Promise<void> {
      const act = this.done.at(-1)
      if (!act) return
      this.done = this.done.slice(0, -1)
      this.undone = [...this.undone, await this.turn(act, 'before')].slice(-MOST)
    },
    async redo(): Promise<void> {
      const act = this.undone.at(-1)
      if (!act) return
      this.undone = this.undone.slice(0, -1)
      this.done = [...this.done, await this.turn(act, 'after')].slice(-MOST)
    },
    /** The version is the one that our own act made: what somebody moved since stays as they put it, and is said. */
    async turn(act: Act, to: 'before' | 'after'): Promise<Act> {
      const turned: Act = []
      let lost = 0
      for (const m of act) {
        try {
          const saved = await call('placeVisit', { params: { id: m.id }, body: { ...m[to], version: m.version, override: true } })
          turned.push({ ...m, version: saved.version })
          const follow = (acts: Act[]) => acts.map(a => a.map(x => (x.id === m.id ? { ...x, version: saved.version } : x)))
          this.done = follow(this.done)
          this.undone = follow(this.undone)
        }
        catch (error) {
          if ((error as Problem).code !== 'stale') throw error
          lost++
        }
      }
      if (lost) throw new Problem(409, 'stale', act.length === 1 ? 'Someone changed this visit after you did; it is left as they put it.' : `Someone changed ${lost} of these ${act.length} visits after you did; they are left as they were put.`)
      return turned
    },
  },
})
