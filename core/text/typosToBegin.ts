/**
 * How many typos (a letter more, less, other, or two that changed places) lie between what was typed and the beginning of a word. Above
 * `most` it stops counting and says `most + 1`.
 * @example typosToBegin('eblow', 'elbow', 2) // 1
 * @example typosToBegin('presure sw', 'pressure switch', 2) // 1: what is not typed yet is no typo
 * Source: the optimal string alignment distance (Damerau 1964, from memory), taken at its best over the beginnings of the word.
 */
export function typosToBegin(typed: string, word: string, most: number): number {
  const width = Math.min(word.length, typed.length + most)
  let [before, last]: [number[], number[]] = [[], Array.from({ length: width + 1 }, (_, j) => j)]
  for (let i = 1; i <= typed.length; i++) {
    const row = [i]
    let least = i
    for (let j = 1; j <= width; j++) {
      let n = Math.min(
        last[j]! + 1,
        row[j - 1]! + 1,
        last[j - 1]! + Number(typed[i - 1] !== word[j - 1]),
      )
      if (i > 1 && j > 1 && typed[i - 1] === word[j - 2] && typed[i - 2] === word[j - 1])
        n = Math.min(n, before[j - 2]! + 1)
      row.push(n)
      if (n < least) least = n
    }
    // A row can be no better than the one before it, but for two letters that change places.
    if (least > most + 1) return most + 1
    ;[before, last] = [last, row]
  }
  return Math.min(most + 1, ...last)
}
