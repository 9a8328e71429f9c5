/**
 * How many of something, in words that fit the number.
 * @param several as it is called where it is not one; with an s where nothing is said
 * @example counted(1, 'credit') // '1 credit'
 * @example counted(3, 'entry', 'entries') // '3 entries'
 */
export const counted = (n: number, one: string, several = `${one}s`): string =>
  `${n} ${n === 1 ? one : several}`
