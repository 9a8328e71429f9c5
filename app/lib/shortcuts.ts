// One registry of shortcuts: a screen says which it has, they work while it is shown, and the help prints them.
import { onBeforeUnmount, onMounted, shallowReactive } from 'vue'
import { tinykeys } from 'tinykeys'
import { layerAround, ownsKeys } from './layers'

export interface Shortcut {
  /** as a person reads it: Ctrl K */
  readonly keys: string
  /** what it does, in words */
  readonly does: string
  /** how tinykeys reads it; several where one key is typed in several ways */
  readonly press?: string | readonly string[]
  /** left out where the part that has the focus does it itself */
  readonly run?: (event: KeyboardEvent) => void
  /** whether it is there now: for this person, in this state */
  readonly when?: () => boolean
  /** also while something is typed */
  readonly typing?: boolean
}
type Group = readonly Shortcut[]
type Layer = ReturnType<typeof layerAround>
/** Whether they belong to one screen, or to all of them. */
type Reach = 'here' | 'everywhere'
const shown: Readonly<Record<Reach, Group[]>> = {
  here: shallowReactive([]),
  everywhere: shallowReactive([]),
}
/** Those of the screen, then those of every screen; for the help. */
export const shortcutsNow = (): Shortcut[] =>
  [...shown.here, ...shown.everywhere].flat().filter(({ when }) => !when || when())

const isTyping = (event: KeyboardEvent) =>
  Boolean((event.target as HTMLElement).closest('input, textarea, select, [contenteditable]'))
/** The key of a shortcut that is there now, and that nobody has answered yet. A key that is held is pressed once. */
const answer = (shortcut: Shortcut, layer: Layer) => (event: KeyboardEvent) => {
  if (event.defaultPrevented || !ownsKeys(layer) || (shortcut.when && !shortcut.when())) return
  if (!shortcut.typing && isTyping(event)) return
  event.preventDefault()
  if (!event.repeat) shortcut.run!(event)
}
const bindings = (group: Group, layer: Layer) =>
  Object.fromEntries(
    group
      .filter(({ run, press }) => run && press)
      .flatMap((shortcut) =>
        [shortcut.press!].flat().map((keys) => [keys, answer(shortcut, layer)]),
      ),
  )

/**
 * The shortcuts of a screen or a layout, for as long as it is there.
 * @example useShortcuts([{ keys: 'N', press: 'n', does: 'take a call', run: takeCall }])
 */
export function useShortcuts(group: Group, reach: Reach = 'here'): void {
  const layer = layerAround()
  let stop = () => {}
  onMounted(() => {
    shown[reach].push(group)
    stop = tinykeys(window, bindings(group, layer), { ignore: () => false })
  })
  onBeforeUnmount(() => {
    stop()
    shown[reach].splice(shown[reach].indexOf(group), 1)
  })
}
