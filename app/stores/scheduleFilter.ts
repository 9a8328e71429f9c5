// What a person looks at on the schedule: one filter for all its views, and the filters that they keep by name.
import { defineStore } from 'pinia'
import type { Answer } from '~~/shared/api'
import { call, newId } from '~/lib/api'

export type Filter = Answer<'savedFilters'>['items'][number]['filter']
type Visit = Pick<
  Answer<'placeVisit'>,
  | 'technicianId'
  | 'crewIds'
  | 'alongIds'
  | 'territory'
  | 'skills'
  | 'state'
  | 'kind'
  | 'atRisk'
  | 'startAt'
>
const KEPT = 'schedule-filter'
/** Whoever comes next looks at everything. */
export const forgetFilter = (): void => sessionStorage.removeItem(KEPT)
const none = (): Filter => ({ technicianIds: [], territory: '', skill: '', state: '', kind: '' })
function last(): Filter {
  try {
    return { ...none(), ...(JSON.parse(sessionStorage.getItem(KEPT) ?? '{}') as Partial<Filter>) }
  } catch {
    return none()
  }
}
export const VISIT_STATES = [
  ['late', 'promise at risk'],
  ['no_slot', 'no slot yet'],
  ['planned', 'planned'],
  ['driving', 'driving'],
  ['on_site', 'on site'],
  ['finished', 'finished'],
  ['no_access', 'no access'],
] as const
const waits = (v: Visit) => !v.startAt || !v.technicianId
function isIn(state: Filter['state'], v: Visit): boolean {
  if (!state) return true
  if (state === 'late') return v.atRisk
  return state === 'no_slot' ? waits(v) : v.state === state
}
export const useScheduleFilter = defineStore('scheduleFilter', {
  state: () => ({ filter: last(), saved: [] as Answer<'savedFilters'>['items'] }),
  getters: {
    active: (s) =>
      s.filter.technicianIds.length > 0 ||
      Boolean(s.filter.territory || s.filter.skill || s.filter.state || s.filter.kind),
    shows: (s) => (technicianId: string) =>
      s.filter.technicianIds.length === 0 || s.filter.technicianIds.includes(technicianId),
    fits: (s) => (v: Visit) => {
      const f = s.filter
      const who =
        f.technicianIds.length === 0 ||
        [v.technicianId, ...v.crewIds, ...v.alongIds].some(
          (id) => id !== null && f.technicianIds.includes(id),
        )
      return (
        who &&
        isIn(f.state, v) &&
        (!f.territory || v.territory === f.territory) &&
        (!f.skill || v.skills.includes(f.skill)) &&
        (!f.kind || v.kind === f.kind)
      )
    },
  },
  actions: {
    set(filter: Filter) {
      this.filter = filter
      sessionStorage.setItem(KEPT, JSON.stringify(filter))
    },
    clear() {
      this.set(none())
    },
    async load() {
      this.saved = (await call('savedFilters')).items
    },
    async keep(name: string) {
      this.saved = (
        await call('saveFilter', { body: { id: newId(), name, filter: this.filter } })
      ).items
    },
    async drop(id: string) {
      this.saved = (await call('removeSavedFilter', { params: { id } })).items
    },
  },
})
