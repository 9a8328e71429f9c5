// Placing visits and taking it back: the last twenty placements can be undone, also while others act.
import { defineStore } from 'pinia'
import type { Answer } from '~~/shared/api'
import { call, Problem } from '~/lib/api'

export interface Place { technicianId: string | null, startAt: string | null, durationSeconds: number }
type Visit = Answer<'placeVisit'>
export const useBoard = defineStore('board', {
  state: () => ({ done: [] as { id: string, before: Place, version: number }[] }),
  actions: {
    async place(visit: Visit, place: Place, override: boolean): Promise<void> {
      const saved = await call('placeVisit', { params: { id: visit.id }, body: { ...place, version: visit.version, override } })
      this.done = [...this.done, { id: visit.id, before: { technicianId: visit.technicianId, startAt: visit.startAt, durationSeconds: visit.durationSeconds }, version: saved.version }].slice(-20)
    },
    async undo(): Promise<void> {
      const last = this.done.at(-1)
      if (!last) return
      // The version is the one that our own act made: if somebody moved it since, that stays, and is said.
      this.done = this.done.slice(0, -1)
      try {
        const saved = await call('placeVisit', { params: { id: last.id }, body: { ...last.before, version: last.version, override: true } })
        this.done = this.done.map(d => (d.id === last.id ? { ...d, version: saved.version } : d))
      }
      catch (error) {
        if ((error as Problem).code === 'stale') throw new Problem(409, 'stale', 'Someone changed this visit after you did; it is left as they put it.')
        throw error
      }
    },
  },
})
