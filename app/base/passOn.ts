const isExpanded = (event: KeyboardEvent): boolean =>
  (event.target as HTMLElement).getAttribute('aria-expanded') === 'true'

/**
 * Lets the page have what a field of the library would keep for itself: its shortcuts (Ctrl Enter), and
 * Escape where there is no list to close. A field that lets Escape go by itself says `open`.
 */
export function passOn(event: KeyboardEvent, open = isExpanded(event)): void {
  const shortcut = event.ctrlKey || event.metaKey
  const leaves = event.key === 'Escape' && !open
  if (!leaves && !(shortcut && event.key === 'Enter')) return
  const root = event.currentTarget as HTMLElement
  event.stopPropagation()
  const { key, code, ctrlKey, metaKey, shiftKey } = event
  const init = { key, code, ctrlKey, metaKey, shiftKey, bubbles: true, cancelable: true }
  root.parentElement?.dispatchEvent(new KeyboardEvent('keydown', init))
}
