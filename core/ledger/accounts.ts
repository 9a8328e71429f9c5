/** The chart of accounts that every company starts with. Names are those of common bookkeeping. */
export const ACCOUNTS = {
  receivable: { code: '1100', name: 'Assets:Receivable', type: 'asset' },
  cash: { code: '1010', name: 'Assets:Cash on hand', type: 'asset' },
  undeposited: { code: '1020', name: 'Assets:Undeposited cheques', type: 'asset' },
  bank: { code: '1000', name: 'Assets:Bank', type: 'asset' },
  card: { code: '1030', name: 'Assets:Card clearing', type: 'asset' },
  tax: { code: '2200', name: 'Liabilities:Tax payable', type: 'liability' },
  deposits: { code: '2300', name: 'Liabilities:Customer deposits', type: 'liability' },
  opening: { code: '3000', name: 'Equity:Opening balances', type: 'equity' },
  incomeTask: { code: '4000', name: 'Income:Flat-rate work', type: 'income' },
  incomeLabour: { code: '4010', name: 'Income:Labour', type: 'income' },
  incomePart: { code: '4020', name: 'Income:Parts', type: 'income' },
  incomeCharge: { code: '4030', name: 'Income:Charges', type: 'income' },
  badDebt: { code: '6100', name: 'Expenses:Bad debt', type: 'expense' },
} as const
export type AccountKey = keyof typeof ACCOUNTS

/** The account that a payment of this kind lands in. */
export const PAYMENT_ACCOUNT = {
  cash: 'cash',
  cheque: 'undeposited',
  card: 'card',
  transfer: 'bank',
  // What a customer had with us before: it came in by the books from before.
  credit: 'opening',
} as const
/** What a firm brings along from its books before; what customers owe and have comes with their invoices and credits. */
export const OPENING_ACCOUNTS = [
  'bank',
  'cash',
  'undeposited',
  'card',
  'tax',
] as const satisfies readonly AccountKey[]
export type OpeningAccount = (typeof OPENING_ACCOUNTS)[number]

/** The income account of a kind of line. */
export const INCOME_ACCOUNT = {
  task: 'incomeTask',
  labour: 'incomeLabour',
  part: 'incomePart',
  charge: 'incomeCharge',
  other: 'incomeCharge',
} as const
