// Pictures that come from outside are decoded and drawn anew once, when they come: what is kept is a
// picture, of a size that can be shown and printed, without the place and the device it was taken with.
import sharp from 'sharp'
import { invalid } from '../../core/errors/LedgerError'
import { kindOf, PICTURES } from './files'

// A picture takes one core at most; the others answer meanwhile.
sharp.concurrency(1)

/** More than any phone takes; a file of a megabyte can claim to be far larger. */
const MOST_PIXELS = 60_000_000
/** The longer edge of what is kept. */
const LONGEST = 2400
const QUALITY = 85

export interface Picture {
  mime: 'image/jpeg' | 'image/png'
  bytes: Buffer
}

/** Draws a picture anew, turned the right way up, no larger than `longest`. @throws LedgerError where it is none */
export async function redraw(bytes: Buffer, path = 'data', longest = LONGEST): Promise<Picture> {
  const kind = kindOf(bytes, PICTURES)
  try {
    const drawn = sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'error', pages: 1 })
      .rotate()
      .resize({ width: longest, height: longest, fit: 'inside', withoutEnlargement: true })
    // What may have clear parts stays a PNG; both can be printed.
    if (kind === 'image/jpeg')
      return { mime: kind, bytes: await drawn.jpeg({ quality: QUALITY }).toBuffer() }
    return { mime: 'image/png', bytes: await drawn.png().toBuffer() }
  } catch (error) {
    const tooMany = /pixel limit/i.test((error as Error).message)
    throw invalid(
      path,
      tooMany
        ? `A picture may have ${MOST_PIXELS / 1e6} million points.`
        : 'This picture cannot be read. It may be damaged; take or save it again.',
      'not_a_picture',
    )
  }
}
