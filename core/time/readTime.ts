/**
 * The time of day that a person typed, as HH:MM; null where it is none. Read are hours ("8", "4pm"),
 * hours and minutes with or without something between ("830", "8:30", "8.30", "16h30").
 *
 * @example readTime('830') // '08:30'
 * @example readTime('4 pm') // '16:00'
 * @example readTime('12am') // '00:00'
 * @example readTime('25:00') // null
 */
export function readTime(typed: string): string | null {
  const found = /^(\d{1,2})(?:[:.h]?(\d{2}))?h?\s*([ap])?\.?(?:m\.?)?$/.exec(
    typed.trim().toLowerCase(),
  )
  if (!found) return null
  const [, hours, minutes = '00', half] = found
  if (half && (Number(hours) < 1 || Number(hours) > 12)) return null
  const hour = half ? (Number(hours) % 12) + (half === 'p' ? 12 : 0) : Number(hours)
  if (hour > 23 || Number(minutes) > 59) return null
  return `${String(hour).padStart(2, '0')}:${minutes}`
}
