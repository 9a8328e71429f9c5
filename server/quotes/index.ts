// What other subjects may know of a quote’s address.
export { linkHash as quoteLinkHash } from './link'
