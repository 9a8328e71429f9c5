/**
 * Whether a call in this state still waits for something: only then does it take words, an end, a booking, a quote.
 * @example callWaits('put_off') // true
 * @example callWaits('booked') // false
 */
export const callWaits = (state: string): boolean => state === 'open' || state === 'put_off'
