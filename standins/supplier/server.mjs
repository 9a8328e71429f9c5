// Plays two wholesalers behind one address: a catalogue to browse and search, what is in stock, what it costs this firm; the same thing at
// both, side by side. Prices and stock are made up, and the same every time.
import { readFileSync } from 'node:fs'
import { createServer } from 'node:http'

const port = Number(process.env.SUPPLIER_PORT ?? 4704)
const secret = process.env.SUPPLIER_SECRET ?? ''
const SUPPLIERS = [
  { id: 'northmoor', name: 'Northmoor Supply', prefix: 'NM', from: 0.97, to: 1.05 },
  { id: 'tarnside', name: 'Tarnside Trade', prefix: 'TT', from: 0.93, to: 1.11 },
]
/** What they carry beside what the demo's price book knows. */
const FURTHER = [
  ['Well', 'Torque arrestor', ['4 in', '5 in', '6 in'], ['rubber', 'spring'], 19],
  ['Well', 'Well seal', ['4 in', '6 in', '8 in'], ['split', 'solid'], 31],
  ['Pipe', 'Heat tape', ['12 ft', '24 ft', '50 ft'], ['plain', 'with thermostat'], 27],
  ['Treatment', 'Brine tank float', ['short', 'long'], ['air', 'safety'], 22],
  ['Electric', 'Lightning arrestor', ['230 V', '460 V'], ['single', 'three phase'], 44],
]
const number = (text) => {
  let n = 2166136261
  for (const c of text) n = Math.imul(n ^ c.codePointAt(0), 16777619) >>> 0
  return n
}
const goods = [
  ...JSON.parse(readFileSync(new URL('../../demo/parts.json', import.meta.url), 'utf8')),
  ...FURTHER,
].flatMap(([category, name, sizes, makes, base]) =>
  sizes.flatMap((size, i) =>
    makes.map((make, j) => ({
      category,
      name: `${name} ${size}, ${make}`,
      cost: base * (1 + i * 0.22) * (1 + j * 0.13),
    })),
  ),
)
const catalogue = new Map(
  SUPPLIERS.map((s) => [
    s.id,
    goods.flatMap((g, i) => {
      const luck = number(s.id + g.name)
      // Not everybody carries everything.
      if (s.id === 'tarnside' && luck % 9 === 0) return []
      const stock = luck % 7 === 0 ? 0 : luck % 60
      return [
        {
          partNumber: `${s.prefix}-${10001 + i}`,
          name: g.name,
          category: g.category,
          unit: 'each',
          price: {
            amount: (g.cost * (s.from + ((luck % 100) / 100) * (s.to - s.from))).toFixed(2),
            currency: 'USD',
          },
          stock,
          deliveryDays: stock ? 1 : 3 + (luck % 8),
          makerNumber: `M${10001 + i}`,
        },
      ]
    }),
  ]),
)
const key = (text) =>
  text.normalize('NFKD').replace(/\p{M}/gu, '').replaceAll('⁄', '/').toLowerCase()
const offers = ({ id, name }, items) => items.map((p) => ({ supplier: { id, name }, ...p }))

const server = createServer((req, res) => {
  const url = new URL(req.url, 'http://x')
  const send = (status, body) =>
    res
      .writeHead(status, {
        'Content-Type': status < 400 ? 'application/json' : 'application/problem+json',
      })
      .end(JSON.stringify(body))
  const problem = (status, code, detail) => send(status, { status, code, title: detail, detail })
  if (secret && req.headers.authorization !== `Bearer ${secret}`)
    return problem(401, 'not_known', 'This firm is not known here.')
  if (req.method !== 'GET') return problem(405, 'only_get', 'This catalogue is only read.')
  const [, what, id, products, part] = url.pathname.split('/').map(decodeURIComponent)
  if (what === 'suppliers' && !id)
    return send(200, {
      items: SUPPLIERS.map((s) => ({
        id: s.id,
        name: s.name,
        categories: [...new Set(catalogue.get(s.id).map((p) => p.category))],
      })),
    })
  if (what === 'offers') {
    const makerNumber = url.searchParams.get('makerNumber') ?? ''
    return send(200, {
      items: SUPPLIERS.flatMap((s) =>
        offers(
          s,
          catalogue.get(s.id).filter((p) => p.makerNumber === makerNumber),
        ),
      ),
    })
  }
  const supplier = SUPPLIERS.find((s) => s.id === id)
  if (what !== 'suppliers' || !supplier || products !== 'products')
    return problem(404, 'not_found', 'There is nothing here.')
  const all = catalogue.get(supplier.id)
  if (part) {
    const found = all.find((p) => p.partNumber === part)
    return found
      ? send(200, offers(supplier, [found])[0])
      : problem(404, 'not_found', 'This part number is not in the catalogue.')
  }
  const words = key(url.searchParams.get('q') ?? '')
    .split(/\s+/)
    .filter(Boolean)
  const category = url.searchParams.get('category')
  const limit = Math.min(100, Number(url.searchParams.get('limit')) || 50)
  const after = Number(url.searchParams.get('after')) || 0
  const found = all.filter(
    (p) =>
      (!category || p.category === category) &&
      words.every((w) => key(`${p.partNumber} ${p.name}`).includes(w)),
  )
  return send(200, {
    items: offers(supplier, found.slice(after, after + limit)),
    total: found.length,
    next: after + limit < found.length ? String(after + limit) : null,
  })
})
server.listen(port, '127.0.0.1')
for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => server.close(() => process.exit(0)).closeAllConnections())
