// The fonts of the PDFs, from the server bundle (or from the folder, in scripts).
import { readFile } from 'node:fs/promises'

export async function readFont(file: string): Promise<Buffer> {
  try {
    const { useStorage } = (await import('#imports')) as unknown as {
      useStorage(base: string): { getItemRaw(key: string): Promise<Uint8Array | null> }
    }
    const data = await useStorage('assets:fonts').getItemRaw(file)
    if (data) return Buffer.from(data)
  } catch {
    /* outside the server bundle */
  }
  return readFile(`assets/fonts/${file}`)
}
