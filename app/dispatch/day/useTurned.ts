// Whether the hours of the day run across or down, as this person likes it on this machine.
import { ref, watch, type Ref } from 'vue'
import { HOUR } from '~~/core/time/units'
import type { Frame } from '~/lib/boardDay'

const KEPT = 'hours-down'
export function useTurned(): Ref<boolean> {
  const turned = ref(localStorage.getItem(KEPT) !== null)
  watch(turned, (now) => (now ? localStorage.setItem(KEPT, '1') : localStorage.removeItem(KEPT)))
  return turned
}
const HOUR_PX = 64
/** a name with what is said beneath it */
export const NAMES_PX = 62
/** How high a column is with its name. */
export const turnedHeight = ({ span }: Frame): number => (span / HOUR) * HOUR_PX + NAMES_PX
