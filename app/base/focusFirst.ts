const FIELDS = 'input:not([type=checkbox], [type=radio], [type=file]), textarea'
/** A finger taps what it wants to type in; a keyboard over half of its screen helps nobody. */
const hasKeyboard = () => !window.matchMedia?.('(pointer: coarse)').matches
/** A calendar would open over what is asked. */
const isTyped = (field: HTMLInputElement) =>
  !field.disabled && !field.readOnly && !field.closest('.el-date-editor')

/** Somebody went elsewhere, or is in it already: their focus is left alone. */
const isDone = (within: HTMLElement): boolean => {
  const at = document.activeElement as HTMLElement | null
  const isInFrame = at === document.body || within.closest('[role="dialog"]')?.contains(at)
  // What Tab leads to, the way out of it or an act beneath, somebody chose.
  const isOnFrame = isInFrame && at !== null && at.tabIndex < 0
  return !within.isConnected || within.contains(at) || !isOnFrame
}
function focusNow(within: HTMLElement): boolean {
  if (isDone(within)) return true
  const field = [...within.querySelectorAll<HTMLInputElement>(FIELDS)].find(isTyped)
  field?.focus()
  return field !== undefined
}
/**
 * What is typed goes into the first field of what was opened, unless one of it took the focus by itself; where its fields come only with an answer,
 * once they are there.
 */
export function focusFirst(within: HTMLElement | null): void {
  if (!within || !hasKeyboard() || focusNow(within)) return
  const observer = new MutationObserver(() => focusNow(within) && observer.disconnect())
  observer.observe(within, { childList: true, subtree: true })
}
