// Whether a colour can be read on the white of a paper.

const HEX = /^#[0-9a-f]{6}$/i
/** Whether it is a colour as it is written: '#1f5c4a'. */
export const isColour = (colour: string): boolean => HEX.test(colour)
const channel = (part: number): number =>
  part <= 0.03928 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4
const WEIGHTS = [0.2126, 0.7152, 0.0722] as const
/**
 * The contrast of a colour against white, from 1 (white) to 21 (black).
 * @example contrastOnWhite('#767676') // 4.54…
 * Source: contrast ratio and relative luminance of WCAG 2.1.
 */
export function contrastOnWhite(colour: string): number {
  const luminance = WEIGHTS.reduce(
    (sum, weight, i) =>
      sum + weight * channel(parseInt(colour.slice(1 + 2 * i, 3 + 2 * i), 16) / 255),
    0,
  )
  return 1.05 / (luminance + 0.05)
}
/** What text needs to be read. Source: WCAG 2.1, success criterion 1.4.3. */
export const READABLE_CONTRAST = 4.5
