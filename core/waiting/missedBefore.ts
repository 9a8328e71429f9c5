import { dayBounds, localToInstant } from '../time/zone'

/**
 * The instant by which what was planned to be over, and was not begun, counts as missed: the start of today, and from
 * the firm's closing hour on that hour. What is planned for the evening is missed on the day after.
 * @param firm its `today` and the hour at which it closes are local, YYYY-MM-DD and HH:MM
 * @param now epoch ms
 * @returns epoch ms
 * @example
 * missedBefore({ today: '2026-11-24', closesAt: '18:00', timeZone: 'UTC' }, Date.parse('2026-11-24T09:00Z'))
 * // Date.parse('2026-11-24T00:00Z')
 */
export function missedBefore(
  firm: { today: string; closesAt: string; timeZone: string },
  now: number,
): number {
  const closes = localToInstant(firm.today, firm.closesAt, firm.timeZone)
  return now >= closes ? closes : dayBounds(firm.today, firm.timeZone).from
}
