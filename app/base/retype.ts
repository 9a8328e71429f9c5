/** Writes what a person typed in the one way of writing that the picker reads back. */
export function retype(input: HTMLInputElement, text: string): void {
  if (input.value === text) return
  input.value = text
  input.dispatchEvent(new Event('input', { bubbles: true }))
}

/** Lets the picker take what stands in its field at once: by itself it takes nothing while it is closed. */
export function settle(input: HTMLInputElement): void {
  input.dispatchEvent(new Event('change', { bubbles: true }))
}
