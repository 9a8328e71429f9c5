// A font as it is kept for the web (WOFF 1.0, W3C), unpacked once: drawn from a packed one, every paper would unpack it anew,
// which takes four fifths of its time.
import { inflateSync } from 'node:zlib'

const HEAD = 44
const ENTRY = 20
const SFNT_HEAD = 12
const SFNT_ENTRY = 16
const ALIGNED = 4
const aligned = (bytes: number) => Math.ceil(bytes / ALIGNED) * ALIGNED

interface Table {
  tag: Buffer
  checksum: number
  data: Buffer
}
function tableAt(woff: Buffer, at: number): Table {
  const [offset, packed, size] = [4, 8, 12].map((field) => woff.readUInt32BE(at + field))
  const bytes = woff.subarray(offset, offset! + packed!)
  return {
    tag: woff.subarray(at, at + 4),
    checksum: woff.readUInt32BE(at + 16),
    // A table that packing made no smaller is kept as it is.
    data: packed! < size! ? inflateSync(bytes) : bytes,
  }
}
/** The font that a WOFF file holds, as OpenType lays it out. */
export function sfntOf(woff: Buffer): Buffer {
  const count = woff.readUInt16BE(12)
  const tables = Array.from({ length: count }, (_, i) => tableAt(woff, HEAD + i * ENTRY))
  const power = Math.floor(Math.log2(count))
  const directory = Buffer.alloc(SFNT_HEAD + count * SFNT_ENTRY)
  woff.copy(directory, 0, 4, 8)
  directory.writeUInt16BE(count, 4)
  directory.writeUInt16BE(2 ** power * SFNT_ENTRY, 6)
  directory.writeUInt16BE(power, 8)
  directory.writeUInt16BE((count - 2 ** power) * SFNT_ENTRY, 10)
  const parts: Buffer[] = [directory]
  let offset = directory.length
  tables.forEach(({ tag, checksum, data }, i) => {
    const at = SFNT_HEAD + i * SFNT_ENTRY
    tag.copy(directory, at)
    directory.writeUInt32BE(checksum, at + 4)
    directory.writeUInt32BE(offset, at + 8)
    directory.writeUInt32BE(data.length, at + 12)
    parts.push(data, Buffer.alloc(aligned(data.length) - data.length))
    offset += aligned(data.length)
  })
  return Buffer.concat(parts)
}
