// One progress line a step, and one way to end with a sentence and a non-zero exit.
export const say = text => process.stdout.write(`· ${text}\n`)
export function stopWith(sentence) {
  process.stderr.write(`\nOpen Ledger cannot go on: ${sentence}\n`)
  process.exit(1)
}
