// Requests begin one after the other: hundreds that arrive in one moment are not all begun in one breath,
// so that whatever comes beside them, health first of all, is answered in between.
const waiting: (() => void)[] = []

/** Waits until it is this request's turn to begin: at once where nothing else comes. */
export const turn = (): Promise<void> =>
  new Promise((begin) => {
    waiting.push(begin)
    if (waiting.length === 1) setImmediate(next)
  })
function next(): void {
  waiting.shift()!()
  if (waiting.length) setImmediate(next)
}
