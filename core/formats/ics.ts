import { Temporal } from 'temporal-polyfill'
import { foldLine } from '../text/foldLine'

export interface CalendarEvent {
  uid: string
  startAt: number
  endAt: number
  changedAt: number
  sequence: number
  title: string
  place?: string
  text?: string
  cancelled?: boolean
  at?: { lat: number; lon: number }
}
/** Who asks whom, when a calendar is sent instead of fetched. */
export interface Invitation {
  method: 'REQUEST' | 'CANCEL'
  organizer: { name: string; mail: string }
  attendees: readonly string[]
}

const escape = (text: string): string =>
  text
    .replace(/\\/g, '\\\\')
    .replace(/\r\n?|\n/g, '\\n')
    .replace(/([,;])/g, '\\$1')
/**
 * A name between quotes, as a parameter has it: RFC 5545 §3.2 allows neither quotes nor control characters there, and has
 * no way to escape; some readers take a backslash for one all the same. @example inQuotes('Reed "R" Water') // 'Reed R Water'
 */
const inQuotes = (name: string): string => name.replace(/["\\\p{Cc}]/gu, '')
/** An instant in UTC. @example utc(Date.UTC(2026, 10, 24, 15, 21)) // '20261124T152100Z' */
const utc = (ms: number): string =>
  Temporal.Instant.fromEpochMilliseconds(ms)
    .toString({ smallestUnit: 'second' })
    .replace(/[-:]/g, '')

/**
 * Writes a calendar as RFC 5545. Instants are written in UTC, so that no time zone has to come along.
 * @param name what the calendar is called where it is shown
 * @param invitation makes it a request to take part (RFC 5546), which mail programs offer to accept
 * @example writeIcs('Ines Calloway', [{ uid: 'v1@open-ledger', startAt: 0, endAt: 3600e3, changedAt: 0, sequence: 1, title: 'Pump' }])
 */
export function writeIcs(
  name: string,
  events: readonly CalendarEvent[],
  invitation?: Invitation,
): string {
  const lines = [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//Open Ledger//Schedule//EN',
    'CALSCALE:GREGORIAN',
    `NAME:${escape(name)}`,
    `X-WR-CALNAME:${escape(name)}`,
    ...(invitation ? [`METHOD:${invitation.method}`] : ['REFRESH-INTERVAL;VALUE=DURATION:PT15M']),
    ...events.flatMap((e) => [
      'BEGIN:VEVENT',
      `UID:${e.uid}`,
      `DTSTAMP:${utc(e.changedAt)}`,
      `SEQUENCE:${e.sequence}`,
      `DTSTART:${utc(e.startAt)}`,
      `DTEND:${utc(e.endAt)}`,
      `SUMMARY:${escape(e.title)}`,
      ...(e.place ? [`LOCATION:${escape(e.place)}`] : []),
      ...(e.at ? [`GEO:${e.at.lat};${e.at.lon}`] : []),
      ...(e.text ? [`DESCRIPTION:${escape(e.text)}`] : []),
      ...(invitation
        ? [
            `ORGANIZER;CN="${inQuotes(invitation.organizer.name)}":mailto:${invitation.organizer.mail}`,
            ...invitation.attendees.map(
              (a) => `ATTENDEE;ROLE=REQ-PARTICIPANT;PARTSTAT=NEEDS-ACTION;RSVP=TRUE:mailto:${a}`,
            ),
          ]
        : []),
      `STATUS:${e.cancelled ? 'CANCELLED' : 'CONFIRMED'}`,
      'END:VEVENT',
    ]),
    'END:VCALENDAR',
  ]
  return `${lines.map(foldLine).join('\r\n')}\r\n`
}
