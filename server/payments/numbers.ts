// The numbers that people say: one series, its counter in the database.
export const RECEIPT_NUMBERS = { kind: 'receipt', prefix: 'R-' } as const
