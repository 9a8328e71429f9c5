// The numbers that people say: one series, its counter in the database.
export const QUOTE_NUMBERS = { kind: 'quote', prefix: 'Q-' } as const
