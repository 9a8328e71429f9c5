/** English number words as they are spoken over the telephone; "o" and "oh" are nought. */
const WORDS: Record<string, string> = {
  zero: '0',
  nought: '0',
  oh: '0',
  o: '0',
  one: '1',
  two: '2',
  three: '3',
  four: '4',
  five: '5',
  six: '6',
  seven: '7',
  eight: '8',
  nine: '9',
}
const TIMES: Record<string, number> = { double: 2, triple: 3, treble: 3 }

const digitOf = (word: string): string | undefined => (/^\d$/.test(word) ? word : WORDS[word])
/**
 * Turns numbers that were spoken, or typed in groups, into digits, and leaves the other words alone. Neighbouring
 * groups of digits become one word when together they are long enough for a telephone number (seven digits), so a
 * house number before a postcode stays a house number.
 * @param words as searchKey returns them
 * @example spokenDigits(['five', 'double', 'five', 'oh', 'one', 'four', 'two']) // ['5550142']
 * @example spokenDigits(['607', '555', '0142']) // ['6075550142']
 * @example spokenDigits(['12', 'beck', 'road']) // ['12', 'beck', 'road']
 */
export function spokenDigits(words: readonly string[]): string[] {
  const out: string[] = []
  let run: string[] = []
  let original: string[] = []
  let spoken = 0
  const flush = () => {
    const joined = run.join('')
    // One number word alone ("one", "five") is a word; two or more are a number.
    if (joined.length >= 7 || spoken > 1) out.push(joined)
    else out.push(...original)
    run = []
    original = []
    spoken = 0
  }
  for (let i = 0; i < words.length; i++) {
    const word = words[i]!
    const times = TIMES[word]
    const next = words[i + 1]
    const digit = next && digitOf(next)
    if (times && digit) {
      run.push(digit.repeat(times))
      original.push(word, next!)
      spoken += times
      i++
    } else if (WORDS[word] !== undefined || /^\d+$/.test(word)) {
      run.push(WORDS[word] ?? word)
      original.push(word)
      if (WORDS[word] !== undefined) spoken++
    } else {
      flush()
      out.push(word)
    }
  }
  flush()
  return out
}
