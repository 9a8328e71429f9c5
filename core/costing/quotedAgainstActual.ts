import { quantile } from '../collections/paymentHabit'

/** How long a task takes in truth, against the hours that the book says. */
export interface ActualHours {
  of: number
  medianSeconds: number
  /** from the lower to the upper quartile */ fromSeconds: number
  toSeconds: number
  quotedSeconds: number
  /** what the book should say; null while it says right, or too little is known */ proposedSeconds:
    number | null
}
const ENOUGH = 4
const STEP = 360

/**
 * Median and spread of what was worked, beside what is quoted. New hours are proposed, in tenths of an hour, where at least four are known
 * and the quoted ones lie outside the middle half of them and further from the middle than the new ones would (our own rule). Null where nothing is known.
 * @example quotedAgainstActual([3600, 4000, 4400, 5000], 2880)?.proposedSeconds // 4320: the median 4200, to tenths of an hour
 * Source: quartiles of type 7, as in most statistics software.
 */
export function quotedAgainstActual(
  workedSeconds: readonly number[],
  quotedSeconds: number,
): ActualHours | null {
  if (workedSeconds.length === 0) return null
  const sorted = [...workedSeconds].sort((a, b) => a - b)
  const at = (p: number) => Math.round(quantile(sorted, p))
  const [from, median, to] = [at(0.25), at(0.5), at(0.75)]
  const proposed = Math.max(STEP, Math.round(median / STEP) * STEP)
  const outside = quotedSeconds < from || quotedSeconds > to
  const better = Math.abs(proposed - median) < Math.abs(quotedSeconds - median)
  return {
    of: sorted.length,
    medianSeconds: median,
    fromSeconds: from,
    toSeconds: to,
    quotedSeconds,
    proposedSeconds: sorted.length >= ENOUGH && outside && better ? proposed : null,
  }
}
