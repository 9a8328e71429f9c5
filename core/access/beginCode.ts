/** Letters and figures that cannot be taken for each other when they are read from a screen and typed. */
export const CODE_SIGNS = '0123456789ABCDEFGHJKMNPQRSTVWXYZ'
/** How many signs a code has: sixty bits. */
export const CODE_LENGTH = 12

/**
 * A code as it is read from a screen: in groups of four.
 * @param bytes at random, one for each sign; each gives five bits
 * @example sayCode(new Uint8Array(12)) // '0000-0000-0000'
 */
export const sayCode = (bytes: Uint8Array): string =>
  [...bytes]
    .slice(0, CODE_LENGTH)
    .map((byte) => CODE_SIGNS[byte % CODE_SIGNS.length])
    .join('')
    .replace(/(.{4})(?=.)/g, '$1-')

/**
 * What was meant by a code that was typed: spaces, hyphens and small letters do not matter, nor does an O for a nought.
 * @example readCode('ab1o 4xyz-i000') // 'AB104XYZ1000'
 * Source: Douglas Crockford, Base32 (decoding of O, I and L), from memory.
 */
export const readCode = (typed: string): string =>
  typed
    .toUpperCase()
    .replace(/[^0-9A-Z]/g, '')
    .replace(/O/g, '0')
    .replace(/[IL]/g, '1')
