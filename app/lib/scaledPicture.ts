import { dataUrl } from './dataUrl'

/** The longer edge of what is sent: enough to read a serial number on, small enough for a weak signal. */
const LONGEST = 1600
const QUALITY = 0.82

/**
 * A photo as it is sent: scaled down in the browser. What the browser cannot draw goes as it is, and the server says what is wrong with it.
 * @returns a data: URL
 */
export async function scaledPicture(file: File): Promise<string> {
  const picture = await createImageBitmap(file).catch(() => null)
  if (!picture) return dataUrl(file)
  const scale = Math.min(1, LONGEST / Math.max(picture.width, picture.height))
  const canvas = document.createElement('canvas')
  canvas.width = Math.round(picture.width * scale)
  canvas.height = Math.round(picture.height * scale)
  canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height)
  picture.close()
  return canvas.toDataURL('image/jpeg', QUALITY)
}
