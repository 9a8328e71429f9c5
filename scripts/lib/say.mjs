// One progress line a step, and one way to end with a sentence and a non-zero exit.
export const say = (text) => process.stdout.write(`· ${text}\n`)
export function stopWith(sentence) {
  process.stderr.write(`\nOpen Ledger cannot go on: ${sentence}\n`)
  process.exit(1)
}
/** Something that cannot go on, said in a sentence; whoever catches it decides whether all ends or it is tried again. */
export class Stop extends Error {}
/** Runs it; what cannot go on ends the command with its sentence. */
export async function orStop(work) {
  try {
    return await work()
  } catch (error) {
    if (error instanceof Stop) stopWith(error.message)
    throw error
  }
}
