// A payment that did not hold is taken back for what it was: money that came back from the bank, or a payment that never was.

/** `credit` is one that the books before had. */
export const PAID_BY = ['cash', 'cheque', 'card', 'transfer', 'credit'] as const
export type Method = (typeof PAID_BY)[number]

/** Why a payment is taken back. How each is asked about, and said afterwards. */
export const BACK_REASONS = {
  returned: {
    asks: 'The cheque came back',
    why: 'What the bank said',
    said: 'the cheque came back',
  },
  charged_back: {
    asks: 'The card was charged back',
    why: 'What was said',
    said: 'was charged back',
  },
  recalled: { asks: 'The transfer was recalled', why: 'What the bank said', said: 'was recalled' },
  mistyped: { asks: 'It was entered wrongly', why: 'What was wrong', said: 'was entered wrongly' },
} as const satisfies Readonly<Record<string, { asks: string; why: string; said: string }>>
export type BackReason = keyof typeof BACK_REASONS
export const BACK_REASON_NAMES = Object.keys(BACK_REASONS) as readonly BackReason[]

const BY_METHOD: Readonly<Record<Method, readonly BackReason[]>> = {
  cash: ['mistyped'],
  cheque: ['returned', 'mistyped'],
  // What the terminal told is no typing error; it goes back by the terminal.
  card: ['charged_back'],
  transfer: ['recalled', 'mistyped'],
  credit: ['mistyped'],
}
/** Why a payment of that kind may be taken back. @example backReasonsOf('cash') // ['mistyped'] */
export const backReasonsOf = (method: Method): readonly BackReason[] => BY_METHOD[method]
/** Money of the customer's that went back, so that they owe it again; what was entered wrongly never came. */
export type WentBack = Exclude<BackReason, 'mistyped'>
/** Whether it is. @example wentBack('returned') // true */
export const wentBack = (reason: BackReason): reason is WentBack => reason !== 'mistyped'
