/** A customer's and a site's details that a work order keeps a copy of, and what each is called. */
export const DETAIL_NAMES = {
  name: 'name',
  phone: 'telephone',
  phone2: 'second telephone',
  email: 'mail address',
  email2: 'second mail address',
  billingLine1: 'billing address',
  billingTown: 'billing town',
  billingPostcode: 'billing postcode',
  siteName: 'site',
  siteLine1: 'site address',
  siteTown: 'site town',
  sitePostcode: 'site postcode',
  accessNote: 'access note',
} as const
export type Detail = keyof typeof DETAIL_NAMES
/** The details as they are now. */
export type Details = Readonly<Record<Detail, string>>
/** The details as a work order copied them; an older one copied less. */
export type CopiedDetails = Readonly<Partial<Details>>

/**
 * What has changed since the details were copied; what was never copied is not a difference, because an older work
 * order copied less.
 * @example changedDetails({ phone: '1' }, { ...now, phone: '2' }) // [{ detail: 'phone', was: '1', is: '2' }]
 */
export function changedDetails(
  copied: CopiedDetails,
  now: Details,
): { detail: Detail; was: string; is: string }[] {
  return (Object.keys(DETAIL_NAMES) as Detail[]).flatMap((detail) => {
    const was = copied[detail]
    return was === undefined || was === now[detail] ? [] : [{ detail, was, is: now[detail] }]
  })
}
