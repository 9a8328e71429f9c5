/**
 * Hands the picker what a person typed, in the one way of writing that it reads back, and lets it take it
 * at once: by itself it takes nothing while its calendar is closed.
 */
export function retype(input: HTMLInputElement, text: string): void {
  if (input.value === text) return
  input.value = text
  input.dispatchEvent(new Event('input', { bubbles: true }))
  input.dispatchEvent(new Event('change', { bubbles: true }))
}
