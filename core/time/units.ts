/** Lengths of time in milliseconds, as instants are counted. A day of the calendar may be longer or shorter: `plusDays`. */
export const SECOND = 1_000
export const MINUTE = 60 * SECOND
export const HOUR = 60 * MINUTE
export const DAY = 24 * HOUR
