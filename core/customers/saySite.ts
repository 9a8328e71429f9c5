interface SiteWords {
  name: string
  line1: string
  town?: string | undefined
}
/**
 * A site in one line; where nothing of it is known yet, that.
 * @example saySite({ name: 'Barn', line1: '4 Mill Road', town: 'Lowmoor' }) // 'Barn, 4 Mill Road, Lowmoor'
 */
export const saySite = ({ name, line1, town = '' }: SiteWords): string =>
  [name, line1, town].filter(Boolean).join(', ') || 'address to follow'
