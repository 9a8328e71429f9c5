// What was typed and is not kept: asked about before a dialog closes, a page is left or the window goes.
import { inject, onBeforeUnmount, provide, shallowRef, type InjectionKey } from 'vue'
import { matchedRouteKey, onBeforeRouteLeave } from 'vue-router'

/** A form says whether something would be lost, and is told when that is meant. */
interface Guarded {
  unkept: () => boolean
  discard: () => void
}
interface Leaving {
  watch: (form: Guarded) => () => void
  any: () => boolean
  discard: () => void
}
function leaving(): Leaving {
  const forms = new Set<Guarded>()
  return {
    watch(form) {
      forms.add(form)
      return () => void forms.delete(form)
    },
    any: () => [...forms].some(({ unkept }) => unkept()),
    discard: () => forms.forEach(({ unkept, discard }) => unkept() && discard()),
  }
}
const LEAVING: InjectionKey<Leaving> = Symbol('leaving')
/** Forms that stand in no dialog are asked when the window goes. */
const page = leaving()
/** A dialog asks for its own forms; the window, when it goes, for all of them. */
export function leavingWithin(): Leaving {
  const within = leaving()
  provide(LEAVING, within)
  onBeforeUnmount(page.watch({ unkept: within.any, discard: within.discard }))
  return within
}

export interface Question {
  title: string
  text: string
  /** what goes on; the other answer stays */
  yes: string
  no: string
}
interface Asked extends Question {
  answer: (yes: boolean) => void
}
/** The one question that is open; `Ask.vue` shows it. */
export const asked = shallowRef<Asked | null>(null)
export function ask(question: Question): Promise<boolean> {
  asked.value?.answer(false)
  return new Promise((resolve) => {
    asked.value = {
      ...question,
      answer: (yes) => {
        asked.value = null
        resolve(yes)
      },
    }
  })
}
export const askBeforeLeaving = (): Promise<boolean> =>
  ask({
    title: 'Not kept yet',
    text: 'What you typed here is not kept. Leave it all the same?',
    yes: 'Leave it',
    no: 'Stay here',
  })
/** Asks before what is not kept is left behind by a dialog that closes, or by the window. */
export function guardWindow(unkept: () => boolean, discard: () => void = () => {}): void {
  const around = inject(LEAVING, page)
  onBeforeUnmount(around.watch({ unkept, discard }))
}
/** Asks before what is not kept is left behind: by a dialog that closes, a page that is left, or the window. */
export function guardLeaving(
  unkept: () => boolean,
  discard: () => void = () => {},
  /** what is done, or waited for, before it is asked */
  first: () => Promise<unknown> = () => Promise.resolve(),
): void {
  guardWindow(unkept, discard)
  // A part that stands on no page has none to leave.
  if (!inject(matchedRouteKey, null)) return
  onBeforeRouteLeave(async () => {
    await first()
    if (!unkept()) return true
    const leaves = await askBeforeLeaving()
    if (leaves) discard()
    return leaves
  })
}
/** Before the window is given to somebody else. */
export const mayLeaveWindow = async (): Promise<boolean> =>
  !page.any() || (await askBeforeLeaving())
/** It is given to somebody else: whatever was typed in it is left on purpose. */
export const discardAll = (): void => page.discard()
export const warnWindow = (event: BeforeUnloadEvent) => {
  if (page.any()) event.preventDefault()
}
