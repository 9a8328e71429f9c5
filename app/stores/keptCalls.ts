// Calls as this browser has them: what was typed, kept here at once, so that nothing is lost to a reload.
const NAME = 'call:'
/** What was typed, and what of it the server had then. */
export interface KeptCall {
  draft: unknown
  kept: string
  version: number | null
}
export function readKeptCall(id: string): KeptCall | null {
  const text = localStorage.getItem(NAME + id)
  if (!text) return null
  const local = JSON.parse(text) as KeptCall | object
  // Versions before 0.4 kept the draft alone: what the server had of it is not known.
  return 'kept' in local ? local : { draft: local, kept: '{}', version: null }
}
export const keepCall = (id: string, call: KeptCall): void =>
  localStorage.setItem(NAME + id, JSON.stringify(call))
export const forgetKeptCall = (id: string): void => localStorage.removeItem(NAME + id)
/** Whoever signs out leaves nothing of callers behind, but what the server does not have yet. */
export function forgetKeptCalls(): void {
  for (const name of Object.keys(localStorage).filter((one) => one.startsWith(NAME))) {
    const id = name.slice(NAME.length)
    const call = readKeptCall(id)
    if (JSON.stringify(call?.draft) === call?.kept) forgetKeptCall(id)
  }
}
