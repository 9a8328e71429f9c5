const FIELDS = 'input:not([type=checkbox], [type=radio], [type=file]), textarea'
/** A finger taps what it wants to type in; a keyboard over half of its screen helps nobody. */
const hasKeyboard = () => !window.matchMedia?.('(pointer: coarse)').matches

/**
 * What is typed goes into the first field of what was opened, unless one of it took the focus by itself. A calendar would open over what is asked:
 * it is left out.
 */
export function focusFirst(within: HTMLElement | null): void {
  if (!within || !hasKeyboard() || within.contains(document.activeElement)) return
  const fields = [...within.querySelectorAll<HTMLInputElement>(FIELDS)]
  const isTyped = (field: HTMLInputElement) =>
    !field.disabled && !field.readOnly && !field.closest('.el-date-editor')
  fields.find(isTyped)?.focus()
}
