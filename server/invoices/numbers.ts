// The numbers that people say: one series, its counter in the database.
export const INVOICE_NUMBERS = { kind: 'invoice', prefix: 'I-' } as const
