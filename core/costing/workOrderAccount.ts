/** The four-column account of a work order: promised, done, billed, paid; amounts net of tax in minor units. */
export interface AccountLine {
  id: string
  promisedMinor: number
  doneMinor: number
  billedMinor: number
  paidMinor: number
}
export interface Account {
  lines: (AccountLine & { unpromisedMinor: number; unbilledMinor: number; unpaidMinor: number })[]
  promisedMinor: number
  doneMinor: number
  billedMinor: number
  paidMinor: number
  /** done − promised; may be negative while work is still open */
  beyondPromiseMinor: number
  /** Σ of what each line has done and not billed */
  toBillMinor: number
  /** billed − paid */
  unpaidMinor: number
}

/**
 * Sums the columns and the differences between neighbours. To bill is summed line by line, so that a line billed
 * beyond what was done never hides another that was forgotten.
 * @example workOrderAccount([{ id: 'a', promisedMinor: 0, doneMinor: 4860, billedMinor: 0, paidMinor: 0 }]).toBillMinor // 4860
 */
export function workOrderAccount(lines: readonly AccountLine[]): Account {
  const sum = (pick: (l: AccountLine) => number) => lines.reduce((all, l) => all + pick(l), 0)
  const full = lines.map((l) => ({
    ...l,
    unpromisedMinor: l.doneMinor === 0 ? 0 : l.doneMinor - l.promisedMinor,
    unbilledMinor: Math.max(0, l.doneMinor - l.billedMinor),
    unpaidMinor: l.billedMinor - l.paidMinor,
  }))
  const promisedMinor = sum((l) => l.promisedMinor)
  const doneMinor = sum((l) => l.doneMinor)
  const billedMinor = sum((l) => l.billedMinor)
  const paidMinor = sum((l) => l.paidMinor)
  return {
    lines: full,
    promisedMinor,
    doneMinor,
    billedMinor,
    paidMinor,
    beyondPromiseMinor: doneMinor - promisedMinor,
    toBillMinor: full.reduce((all, l) => all + l.unbilledMinor, 0),
    unpaidMinor: billedMinor - paidMinor,
  }
}
