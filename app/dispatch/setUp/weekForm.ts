// A technician's week as it is typed: all seven days, those off kept with what they would have.
import { DAYS, type Person } from './useSetUp'

export interface DayForm {
  on: boolean
  from: string
  to: string
  morning: number
  afternoon: number
  breakFrom: string
  breakTo: string
}
const USUAL: Omit<DayForm, 'on'> = {
  from: '08:00',
  to: '16:30',
  morning: 2,
  afternoon: 2,
  breakFrom: '',
  breakTo: '',
}
const WORKING_DAYS = 5
/** Whoever has no hours yet is proposed the working week. */
export const weekForm = (hours: Person['hours']): DayForm[] =>
  DAYS.map((_, i) => {
    const known = hours.find((h) => h.weekday === i + 1)
    if (!known) return { on: !hours.length && i < WORKING_DAYS, ...USUAL }
    const { weekday: _weekday, ...rest } = known
    return { on: true, ...rest }
  })
export const hoursOf = (days: readonly DayForm[]): Person['hours'] =>
  days.flatMap(({ on, ...day }, i) => (on ? [{ weekday: i + 1, ...day }] : []))
