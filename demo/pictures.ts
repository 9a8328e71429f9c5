// Small drawings that stand for pictures of parts and tasks: flat shapes in the house's colours, written as PNG (ISO/IEC 15948).
import { crc32, deflateSync } from 'node:zlib'

const SIDE = 120
type Shape = (x: number, y: number) => boolean
const box =
  (x0: number, y0: number, x1: number, y1: number): Shape =>
  (x, y) =>
    x >= x0 && x < x1 && y >= y0 && y < y1
const disc =
  (cx: number, cy: number, r: number): Shape =>
  (x, y) =>
    (x - cx) ** 2 + (y - cy) ** 2 < r * r
const ring =
  (cx: number, cy: number, r: number, w: number): Shape =>
  (x, y) =>
    disc(cx, cy, r)(x, y) && !disc(cx, cy, r - w)(x, y)
const any =
  (...shapes: Shape[]): Shape =>
  (x, y) =>
    shapes.some((s) => s(x, y))
/** What is drawn for a word in a name; the first that fits. */
const DRAWINGS: [RegExp, Shape][] = [
  [
    /tank|softener|filter media|resin/i,
    any(
      box(38, 30, 82, 96),
      disc(60, 34, 22),
      box(54, 4, 66, 14),
      box(44, 96, 50, 110),
      box(70, 96, 76, 110),
    ),
  ],
  [
    /valve/i,
    any(
      (x, y) => Math.abs(y - 70) < Math.abs(x - 60) * 0.7 && Math.abs(x - 60) < 44,
      box(57, 30, 63, 70),
      box(40, 26, 80, 32),
    ),
  ],
  [
    /pump|motor/i,
    any(box(44, 12, 76, 100), box(38, 62, 82, 68), box(54, 2, 66, 12), box(38, 100, 82, 108)),
  ],
  [
    /switch|control|drive|disconnect|breaker|fault/i,
    any(
      (x, y) => box(26, 20, 94, 100)(x, y) && !box(32, 26, 88, 94)(x, y),
      disc(60, 50, 12),
      box(44, 74, 76, 82),
    ),
  ],
  [
    /gauge/i,
    any(
      ring(60, 54, 40, 6),
      (x, y) => Math.abs(y - 54 + (x - 60) * 0.8) < 3 && x > 58 && x < 86,
      box(54, 94, 66, 112),
    ),
  ],
  [/lamp|sleeve/i, any(box(20, 52, 100, 68), box(10, 56, 20, 64), box(100, 56, 110, 64))],
  [
    /cartridge|membrane/i,
    any(
      (x, y) => box(42, 16, 78, 104)(x, y) && y % 8 < 5,
      box(36, 10, 84, 16),
      box(36, 104, 84, 110),
    ),
  ],
  [
    /elbow|tee|coupling|union|nipple|adapter|flange|clamp|pipe|line/i,
    any(box(16, 60, 74, 84), box(50, 16, 74, 84), box(10, 54, 18, 90), box(44, 10, 80, 18)),
  ],
  [
    /cable|splice|capacitor|surge/i,
    any(ring(60, 60, 46, 8), ring(60, 60, 32, 8), ring(60, 60, 18, 8)),
  ],
  [/well|cap\b/i, any(box(30, 40, 90, 110), box(22, 24, 98, 40))],
  [/test|bottle/i, any(box(40, 40, 80, 108), box(50, 18, 70, 40), box(46, 10, 74, 20))],
]
const [INK, PAPER] = [
  [29, 92, 73],
  [227, 239, 233],
] as const
function chunk(kind: string, data: Buffer): Buffer {
  const body = Buffer.concat([Buffer.from(kind, 'latin1'), data])
  const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)]
  length.writeUInt32BE(data.length)
  sum.writeUInt32BE(crc32(body))
  return Buffer.concat([length, body, sum])
}
const drawn = new Map<Shape, Buffer>()
/** A picture for a name, or null where there is none to draw. */
export function pictureFor(name: string): Buffer | null {
  const drawing = DRAWINGS.find(([words]) => words.test(name))?.[1]
  if (!drawing) return null
  const picture = drawn.get(drawing) ?? draw(drawing)
  drawn.set(drawing, picture)
  return picture
}
function draw(drawing: Shape): Buffer {
  const rows = Array.from({ length: SIDE }, (_, y) =>
    Buffer.concat([
      Buffer.from([0]),
      Buffer.from(Array.from({ length: SIDE }, (_, x) => Number(drawing(x, y)))),
    ]),
  )
  const head = Buffer.alloc(13)
  head.writeUInt32BE(SIDE, 0)
  head.writeUInt32BE(SIDE, 4)
  // Eight bits that choose from a palette of two.
  head.set([8, 3, 0, 0, 0], 8)
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', head),
    chunk('PLTE', Buffer.from([...PAPER, ...INK])),
    chunk('IDAT', deflateSync(Buffer.concat(rows))),
    chunk('IEND', Buffer.alloc(0)),
  ])
}
