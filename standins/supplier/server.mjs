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

const problem = (status, code, detail) => ({ status, code, title: detail, detail })
const nothing = problem(404, 'not_found', 'There is nothing here.')
const suppliers = () => ({
  items: SUPPLIERS.map(({ id, name }) => ({
    id,
    name,
    categories: [...new Set(catalogue.get(id).map((p) => p.category))],
  })),
})
/** The same thing at everybody who has it. */
const offersOf = (makerNumber) => ({
  items: SUPPLIERS.flatMap((s) =>
    offers(
      s,
      catalogue.get(s.id).filter((p) => p.makerNumber === makerNumber),
    ),
  ),
})
function product(supplier, partNumber) {
  const found = catalogue.get(supplier.id).find((p) => p.partNumber === partNumber)
  return found
    ? offers(supplier, [found])[0]
    : problem(404, 'not_found', 'This part number is not in the catalogue.')
}
function products(supplier, query) {
  const words = key(query.get('q') ?? '')
    .split(/\s+/)
    .filter(Boolean)
  const category = query.get('category')
  const limit = Math.min(100, Number(query.get('limit')) || 50)
  const after = Number(query.get('after')) || 0
  const fits = (p) => words.every((w) => key(`${p.partNumber} ${p.name}`).includes(w))
  const found = catalogue
    .get(supplier.id)
    .filter((p) => (!category || p.category === category) && fits(p))
  return {
    items: offers(supplier, found.slice(after, after + limit)),
    total: found.length,
    next: after + limit < found.length ? String(after + limit) : null,
  }
}
function answerTo({ method, headers }, url) {
  if (secret && headers.authorization !== `Bearer ${secret}`)
    return problem(401, 'not_known', 'This firm is not known here.')
  if (method !== 'GET') return problem(405, 'only_get', 'This catalogue is only read.')
  const [, what, id, of, part] = url.pathname.split('/').map(decodeURIComponent)
  if (what === 'offers') return offersOf(url.searchParams.get('makerNumber') ?? '')
  if (what !== 'suppliers') return nothing
  if (!id) return suppliers()
  const supplier = SUPPLIERS.find((s) => s.id === id)
  if (!supplier || of !== 'products') return nothing
  return part ? product(supplier, part) : products(supplier, url.searchParams)
}
const server = createServer((request, response) => {
  const answer = answerTo(request, new URL(request.url, 'http://x'))
  const { status = 200 } = answer
  const type = status < 400 ? 'application/json' : 'application/problem+json'
  response.writeHead(status, { 'Content-Type': type }).end(JSON.stringify(answer))
})
server.listen(port, '127.0.0.1')
for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => server.close(() => process.exit(0)).closeAllConnections())
