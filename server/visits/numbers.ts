// The numbers that people say: one series, its counter in the database.
export const WORK_ORDER_NUMBERS = { kind: 'work_order', prefix: 'W-' } as const
