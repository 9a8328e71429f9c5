/** A customer's or site's details, by name, as a work order copied them or as they are now. */
export type Details = Readonly<Record<string, string>>

/**
 * What has changed since the details were copied; what was never copied is not a difference, because an older work
 * order copied less.
 * @example changedDetails({ phone: '1', town: 'Otterfall' }, { phone: '2', town: 'Otterfall' }) // [{ name: 'phone', was: '1', is: '2' }]
 */
export function changedDetails(
  copied: Details,
  now: Details,
): { name: string; was: string; is: string }[] {
  return Object.keys(copied)
    .filter((name) => name in now && copied[name] !== now[name])
    .map((name) => ({ name, was: copied[name]!, is: now[name]! }))
}
