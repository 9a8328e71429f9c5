// Who writes a paper, as its head says it.

export interface Letterhead {
  name: string
  /** the name in the register, where people know the firm by another */
  legalName?: string | undefined
  address: string[]
  phone: string
  email: string
  taxNumber: string
  /** where the firm is registered, and under which number, as its law wants it said */
  registration?: string | undefined
  /** the picture above the name, as it was when the paper was made */
  logoId?: string | null | undefined
}
/** What of a firm its papers are headed with. */
export interface Writer {
  name: string
  legalName: string
  line1: string
  town: string
  postcode: string
  phone: string
  email: string
  taxNumber: string
  registration: string
  logoId: string | null
}
/**
 * An address as a paper writes it: street, then town with its postcode; what is empty is left out.
 * @example addressLines({ line1: '12 Quarry Road', town: 'Otterfall', postcode: '04107' }) // ['12 Quarry Road', 'Otterfall 04107']
 */
export const addressLines = (at: { line1: string; town: string; postcode: string }): string[] =>
  [at.line1, `${at.town} ${at.postcode}`.trim()].filter(Boolean)
/** The letterhead of a firm as it is now: what a paper keeps when it is made. */
export const letterheadOf = (firm: Writer): Letterhead => ({
  name: firm.name,
  legalName: firm.legalName,
  address: addressLines(firm),
  phone: firm.phone,
  email: firm.email,
  taxNumber: firm.taxNumber,
  registration: firm.registration,
  logoId: firm.logoId,
})
/**
 * The lines beneath the name; what is empty is left out, and the legal name where it is the name.
 * @example letterheadLines({ name: 'Reed', legalName: 'Reed & Daughters Ltd', address: ['2 Quay'], phone: '555-0100', email: '', taxNumber: '12' })
 * // ['Reed & Daughters Ltd', '2 Quay', '555-0100', 'Tax number 12']
 * @param taxNumber how the tax number is said
 */
export const letterheadLines = (
  from: Letterhead,
  taxNumber = (number: string): string => `Tax number ${number}`,
): string[] =>
  [
    from.legalName === from.name ? '' : from.legalName,
    ...from.address,
    [from.phone, from.email].filter(Boolean).join(' · '),
    from.taxNumber && taxNumber(from.taxNumber),
    from.registration,
  ].filter((line): line is string => Boolean(line))
