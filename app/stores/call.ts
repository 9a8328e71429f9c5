// A call while it is typed: kept in the browser at once and on the server a moment later, so that nothing is lost to a reload.
import { markRaw } from 'vue'
import { defineStore } from 'pinia'
import { setAt, threeWay } from '~/base/threeWay'
import { call as send, newId, type Problem } from '~/lib/api'
import { callDraft } from '~~/shared/calls'
import type { Answer } from '~~/shared/api'
import { forgetKeptCall, keepCall, readKeptCall, type KeptCall } from './keptCalls'

export type Draft = Answer<'call'>['draft']
/** A call as this browser has it. */
interface Local extends KeptCall {
  draft: Draft
}
function readLocal(id: string): Local | null {
  const call = readKeptCall(id)
  return call && { ...call, draft: callDraft.cast(call.draft) as Draft }
}
/** A call that cannot be had is not an empty one: what is typed into that would be kept over it. */
const askFor = (id: string, isHere: boolean) =>
  send('call', { params: { id } }).catch((error: Error) => {
    if (isHere) return null
    throw error
  })
const versionHere = (id: string) => readLocal(id)?.version ?? null
/** A refusal that says more than that nobody answered. */
const isRefusal = ({ status }: Problem) => status >= 400 && status < 500
export const useCall = defineStore('call', {
  state: () => ({
    id: '',
    origin: 'telephone',
    draft: callDraft.getDefault() as Draft,
    /** what of it stands on the server, and as which version */
    kept: '',
    version: null as number | null,
    /** what somebody else wrote meanwhile where it was typed over here, and what then stands on the server */
    theirs: [] as { path: string; value: unknown }[],
    ahead: null as Pick<Local, 'kept' | 'version'> | null,
    saving: false,
    /** in one line what it is about, as it was kept last */
    summary: '',
    /** why it is kept on this device only */
    alone: '',
    ended: false,
    /** what became of it elsewhere: the work order that it was booked as */
    booked: null as string | null,
    /** the state in which the server has it; anything but waiting takes no more words */
    state: 'open',
    heldBy: '',
    timer: 0 as unknown as ReturnType<typeof setTimeout>,
    /** what is being kept */
    last: markRaw(Promise.resolve()),
    book: { workOrderId: newId(), visitId: newId(), key: newId() },
  }),
  actions: {
    async open(id: string, fresh: boolean, today: string) {
      // What an earlier call had not kept yet is in the browser; its timer would write into this one.
      clearTimeout(this.timer)
      this.$reset()
      this.book = { workOrderId: newId(), visitId: newId(), key: newId() }
      this.id = id
      const local = readLocal(id)
      const known = fresh ? null : await askFor(id, local !== null)
      this.origin = known?.origin ?? 'telephone'
      if (known) this.hear(known)
      if (!local) this.begin(known, today)
      // Only what somebody types is worth keeping.
      this.kept = JSON.stringify(this.draft)
      if (local) Object.assign(this, local)
      // What was typed here did not reach the server; what others wrote there meanwhile follows.
      if (local && known && known.version > (this.version ?? 0)) this.follow(known)
      return known
    },
    begin(known: Pick<Answer<'call'>, 'draft' | 'version'> | null, today: string) {
      if (known) Object.assign(this, { draft: known.draft, version: known.version })
      this.draft.date ??= today
    },
    /** What became of it elsewhere. */
    hear({ workOrderId, state }: Pick<Answer<'call'>, 'workOrderId' | 'state'>) {
      Object.assign(this, { booked: workOrderId, state })
    },
    /** Somebody else wrote in it: what nobody typed over here follows, and the rest is said. */
    follow({ draft, version }: { draft: Draft; version: number }) {
      const merged = threeWay(JSON.parse(this.kept) as Draft, this.draft, draft)
      Object.assign(this.draft, merged.values)
      this.theirs = [...merged.theirs].map(([path, value]) => ({ path, value }))
      const ahead = { kept: JSON.stringify(draft), version }
      // Until a person decided, also after a reload, it is still compared with what both began from.
      if (this.theirs.length) this.ahead = ahead
      else Object.assign(this, ahead, { ahead: null })
    },
    /** A person says which stays: theirs, or what is typed here. */
    decide(isTheirs: boolean): Promise<void> {
      if (isTheirs) for (const { path, value } of this.theirs) setAt(this.draft, path, value)
      Object.assign(this, this.ahead, { ahead: null, theirs: [] })
      return this.save(this.summary)
    },
    /** Something happened to it, here or elsewhere. */
    async refresh() {
      if (this.ended || this.version === null) return
      const { id } = this
      const now = await send('call', { params: { id } }).catch(() => null)
      if (!now || id !== this.id || this.ended) return
      this.hear(now)
      if (!this.saving && now.version > (this.version ?? 0)) this.follow(now)
    },
    changed(summary: string) {
      if (this.ended || JSON.stringify(this.draft) === this.kept) return
      const { draft, kept, version } = this
      keepCall(this.id, { draft, kept, version })
      clearTimeout(this.timer)
      this.saving = true
      this.summary = summary
      this.timer = setTimeout(() => void this.save(summary), 500)
    },
    /** Kept one after the other, each on the version that the one before it made. */
    save(summary: string): Promise<void> {
      if (this.ended) return Promise.resolve()
      // What waits to be kept is kept by this; a timer that fired afterwards would write into what the call has become.
      clearTimeout(this.timer)
      this.saving = true
      const { id, draft } = this
      const turn = this.last.then(() => this.saveNow(id, draft, summary))
      this.last = markRaw(turn)
      return turn
    },
    async saveNow(id: string, draft: Draft, summary: string): Promise<void> {
      if (id === this.id && this.ended) return
      // Over what somebody else wrote nothing is kept before a person has said which stays.
      if (id === this.id && this.theirs.length) return this.holdBack()
      const text = JSON.stringify(draft)
      const version = id === this.id ? this.version : versionHere(id)
      const origin = this.origin === 'hand' ? 'hand' : 'telephone'
      const body = { draft, summary: summary.slice(0, 200), origin, version } as const
      try {
        this.took(id, text, await send('saveCall', { params: { id }, body }))
      } catch (error) {
        await this.refused(id, error as Problem, summary)
      }
      if (id === this.id) this.saving = !this.alone && JSON.stringify(this.draft) !== text
    },
    /** The server has it, also of a call that was left meanwhile. */
    took(id: string, text: string, { version, heldBy }: Answer<'saveCall'>): void {
      const draft = id === this.id ? this.draft : readLocal(id)?.draft
      if (draft) keepCall(id, { draft, kept: text, version })
      if (id === this.id) Object.assign(this, { kept: text, version, alone: '', heldBy })
    },
    holdBack(): void {
      this.saving = false
      this.alone = 'somebody else wrote in it; say below which of the two stays'
    },
    async refused(id: string, problem: Problem, summary: string): Promise<void> {
      if (id !== this.id) return
      if (problem.code === 'stale') {
        this.follow(problem.extra.current as { draft: Draft; version: number })
        return this.theirs.length ? this.holdBack() : this.saveNow(id, this.draft, summary)
      }
      // The browser has it; the next change tries again.
      this.alone = isRefusal(problem) ? problem.message : 'the server did not answer'
    },
    /** Nothing of it is on its way any more: what it comes to next is made of what stands there. */
    settle(): Promise<void> {
      clearTimeout(this.timer)
      return this.last
    },
    /** The page is left before its last words were kept. */
    leave(summary: string): void {
      clearTimeout(this.timer)
      if (JSON.stringify(this.draft) !== this.kept) void this.save(summary)
    },
    end() {
      this.ended = true
      clearTimeout(this.timer)
      forgetKeptCall(this.id)
    },
  },
})
