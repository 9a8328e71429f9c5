// A call while it is typed: kept in the browser at once and on the server a moment later, so that nothing is lost to a reload.
import { defineStore } from 'pinia'
import { call as send, newId } from '~/lib/api'
import { callDraft } from '~~/shared/calls'
import type { Answer } from '~~/shared/api'

export type Draft = Answer<'call'>['draft']
const key = (id: string) => `call:${id}`
export const useCall = defineStore('call', {
  state: () => ({
    id: '',
    origin: 'telephone',
    draft: callDraft.getDefault() as Draft,
    kept: '',
    saving: false,
    alone: false,
    ended: false,
    heldBy: '',
    timer: 0 as unknown as ReturnType<typeof setTimeout>,
    book: { workOrderId: newId(), visitId: newId(), key: newId() },
  }),
  actions: {
    async open(id: string, fresh: boolean, today: string) {
      this.$reset()
      this.book = { workOrderId: newId(), visitId: newId(), key: newId() }
      this.id = id
      const local = localStorage.getItem(key(id))
      // A call that cannot be had is not an empty one: what is typed into that would be kept over it.
      const known = fresh
        ? null
        : await send('call', { params: { id } }).catch((error: Error) => {
            if (local) return null
            throw error
          })
      if (local) this.draft = callDraft.cast(JSON.parse(local)) as Draft
      else if (known) this.draft = known.draft
      this.origin = known?.origin ?? 'telephone'
      this.draft.date ??= today
      // Only what somebody types is worth keeping.
      this.kept = JSON.stringify(this.draft)
      return known
    },
    changed(summary: string) {
      if (this.ended || JSON.stringify(this.draft) === this.kept) return
      localStorage.setItem(key(this.id), JSON.stringify(this.draft))
      clearTimeout(this.timer)
      this.saving = true
      this.timer = setTimeout(() => void this.save(summary), 500)
    },
    async save(summary: string) {
      if (this.ended) return
      this.saving = true
      const text = JSON.stringify(this.draft)
      try {
        const kept = await send('saveCall', {
          params: { id: this.id },
          body: {
            draft: this.draft,
            summary: summary.slice(0, 200),
            origin: this.origin === 'hand' ? 'hand' : 'telephone',
          },
        })
        this.kept = text
        this.alone = false
        this.heldBy = kept.heldBy
      } catch {
        // The browser has it; the next change tries again.
        this.alone = true
      } finally {
        this.saving = !this.alone && JSON.stringify(this.draft) !== text
      }
    },
    end() {
      this.ended = true
      clearTimeout(this.timer)
      localStorage.removeItem(key(this.id))
    },
  },
})
