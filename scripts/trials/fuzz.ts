// Odd requests, made by chance from the OpenAPI document: whatever is sent, the answer is never our mistake.
import { v7 } from 'uuid'
import { chanceOf, Person, type Chance, type Trial } from './tools'

interface Schema {
  type?: string | string[]
  properties?: Record<string, Schema>
  items?: Schema
  enum?: unknown[]
  format?: string
  maxLength?: number
  minimum?: number
  maximum?: number
  pattern?: string
  required?: string[]
  additionalProperties?: boolean
}
interface Operation {
  operationId: string
  method: string
  path: string
  who: string | string[]
  parameters: { name: string; in: string; schema: Schema }[]
  body?: Schema
}

/**
 * What would end the trial itself, not the app: its own session, a stream that never ends, and everything in one file, which
 * takes longer than it waits for any answer.
 */
const LEFT_OUT = new Set([
  ...['live', 'archive', 'signOut', 'endOtherSessions', 'endMySession', 'changePassword'],
])
const IN_ADDRESSES = ['2026-11-24', 'customers', 'invoices', 'abc']
const ODD_TEXTS = [
  '',
  ' ',
  'null',
  'constructor',
  '__proto__',
  '\u0000',
  'a\nb',
  '\u202Eabc',
  '\uD800',
  '\uDFFF!',
  'x'.repeat(300),
  'y'.repeat(9000),
  '=1+1',
  '＝1',
  '%00',
  '%',
  '_',
  '\\',
  "'",
  '"',
  '<script>',
  '../../etc/passwd',
  '-1',
  '1e309',
  '0x10',
  '99999999999999999999',
  '1.2345',
  '2026-02-30',
  '2026-13-01T00:00:00Z',
  '24:00',
  'a@b',
  '😀'.repeat(40),
  'NaN',
]
const ODD_VALUES: unknown[] = [
  null,
  true,
  false,
  0,
  -1,
  1.5,
  1e15,
  1e308,
  [],
  [[]],
  [null],
  {},
  { toString: 1 },
  { length: 3 },
  { then: 'x' },
  [[[[[[[1]]]]]]],
]
const RAW_BODIES = [
  '',
  '{',
  '[]',
  'null',
  '"text"',
  '{"__proto__":{"a":1}}',
  '{"constructor":{"prototype":1}}',
  '{"a":{"__proto__":1}}',
  `${'['.repeat(2000)}${']'.repeat(2000)}`,
  '{"id":"\\ud800"}',
  '\uFEFF{}',
  '{"version":1e999}',
]

function operationsOf(document: {
  paths: Record<
    string,
    Record<
      string,
      {
        operationId: string
        'x-who': string | string[]
        parameters?: Operation['parameters']
        requestBody?: { content: Record<string, { schema: Schema }> }
      }
    >
  >
}): Operation[] {
  return Object.entries(document.paths)
    .flatMap(([path, methods]) =>
      Object.entries(methods).map(([method, o]) => ({
        operationId: o.operationId,
        method: method.toUpperCase(),
        path,
        who: o['x-who'],
        parameters: o.parameters ?? [],
        body: o.requestBody?.content['application/json']?.schema,
      })),
    )
    .filter((o) => !LEFT_OUT.has(o.operationId) && o.who !== 'signature')
}
interface Making {
  chance: Chance
  ids: string[]
  depth: number
}
/** Values by the type of their schema; what has none is a text. */
const MAKE: Record<string, (schema: Schema, making: Making) => unknown> = {
  object: ({ properties = {}, required }, making) =>
    Object.fromEntries(
      Object.entries(properties)
        .filter(([name]) => required?.includes(name) || making.chance.maybe(0.5))
        .map(([name, of]) => [name, deeper(of, making)]),
    ),
  array: ({ items }, making) =>
    Array.from({ length: making.depth > 3 ? 0 : making.chance.between(0, 2) }, () =>
      deeper(items, making),
    ),
  number: ({ minimum = 0, maximum = 100 }, { chance }) =>
    chance.pick([minimum, Math.min(maximum, 100), chance.between(0, 50), 1]),
  boolean: (_, { chance }) => chance.maybe(0.5),
}
const deeper = (schema: Schema | undefined, { chance, ids, depth }: Making) =>
  fitting(schema, chance, ids, depth + 1)
/** A value that fits its schema, more or less. */
function fitting(schema: Schema = {}, chance: Chance, ids: string[], depth = 0): unknown {
  if (schema.enum?.length) return chance.pick(schema.enum)
  const type = [schema.type].flat()[0] ?? 'string'
  const making = { chance, ids, depth }
  return MAKE[type]?.(schema, making) ?? textFor(schema, making)
}
/** Texts that a pattern asks for, told by a piece of it. */
const BY_PATTERN: readonly [piece: string, texts: string[]][] = [
  ['T', ['2026-11-25T15:00:00.000Z']],
  ['[0-5]', ['10:30']],
  ['', ['1', '12.50', '3']],
]
function textFor({ format, pattern }: Schema, { chance, ids }: Making): string {
  if (format === 'uuid') return chance.maybe(0.7) ? chance.pick(ids) : v7()
  if (format === 'date') return chance.pick(['2026-11-24', '2026-12-01', '2027-02-28'])
  if (pattern) return chance.pick(BY_PATTERN.find(([piece]) => pattern.includes(piece))![1])
  return chance.pick(['text', 'a b', 'office@demo.test', '10.00', 'Marrow'])
}
/** One value somewhere in it becomes odd. */
function spoiled(value: unknown, chance: Chance): unknown {
  if (chance.maybe(0.25) || typeof value !== 'object' || value === null)
    return chance.maybe(0.5) ? chance.pick(ODD_TEXTS) : chance.pick(ODD_VALUES)
  if (Array.isArray(value))
    return value.length
      ? value.map((one, i) => (i === 0 ? spoiled(one, chance) : one))
      : [chance.pick(ODD_VALUES)]
  const keys = Object.keys(value)
  if (!keys.length || chance.maybe(0.1))
    return {
      ...value,
      [chance.pick(['unknown', 'toString', 'valueOf', 'x'])]: chance.pick(ODD_VALUES),
    }
  const key = chance.pick(keys)
  return { ...value, [key]: spoiled((value as Record<string, unknown>)[key], chance) }
}
/** An address takes any bytes; a lone half of a sign is written as the bytes that it would have. */
const inAddress = (text: string): string => {
  try {
    return encodeURIComponent(text)
  } catch {
    return '%ED%A0%80'
  }
}
/** Headers that a browser, a proxy or somebody with bad intent might send. */
const ODD_HEADERS: readonly [name: string, often: number, values: string[]][] = [
  ['Idempotency-Key', 0.06, ['short', 'x'.repeat(200), `key-${v7()}`, 'with blank here']],
  ['Origin', 0.04, ['null', 'not an origin', 'https://elsewhere.example']],
  ['X-Forwarded-For', 0.04, ['x', '1.2.3.4, 5.6.7.8', '']],
  ['Last-Event-ID', 0.04, ['x', '-1', '1e9']],
]
/** Chooses, where a request is odd at all, whether this part of it is. */
type Odd = (often: number) => boolean
function addressOf(o: Operation, chance: Chance, ids: string[], odd: Odd): string {
  const inPath = (name: string) =>
    odd(0.15)
      ? chance.pick(ODD_TEXTS).slice(0, 200) || 'x'
      : chance.pick(name === 'id' ? ids : IN_ADDRESSES)
  const inQuery = (schema: Schema) =>
    odd(0.3) ? chance.pick(ODD_TEXTS).slice(0, 400) : String(fitting(schema, chance, ids))
  const path = o.path.replace(/\{(\w+)\}/g, (_, name: string) => inAddress(inPath(name)))
  const query = o.parameters
    .filter((p) => p.in === 'query' && chance.maybe(0.6))
    .flatMap((p) => Array.from({ length: odd(0.08) ? 2 : 1 }, () => p))
    .map((p) => `${p.name}=${inAddress(inQuery(p.schema))}`)
  return `${path}${query.length ? `?${query.join('&')}` : ''}`
}
function requestOf(
  o: Operation,
  chance: Chance,
  ids: string[],
): { path: string; body?: string; headers: Record<string, string> } {
  const isOdd = chance.maybe(0.8)
  const odd: Odd = (often) => isOdd && chance.maybe(often)
  const path = addressOf(o, chance, ids, odd)
  const headers = Object.fromEntries(
    ODD_HEADERS.filter(([, often]) => odd(often)).map(([name, , values]) => [
      name,
      chance.pick(values),
    ]),
  )
  if (o.method === 'GET') return { path, headers }
  const whole = fitting(o.body, chance, ids)
  const sent = JSON.stringify(isOdd ? spoiled(whole, chance) : whole) ?? ''
  return { path, body: odd(0.06) ? chance.pick(RAW_BODIES) : sent, headers }
}
/** Identifiers of things that are there, so that requests come further than "there is no such thing". */
async function harvest(person: Person): Promise<string[]> {
  const ids: string[] = []
  for (const path of [
    'customers',
    'work-orders',
    'invoices',
    'payments',
    'price-book',
    'messages',
    'calls',
    'schedule',
    'people',
    'quotes',
    'agreements',
    'set-up',
  ]) {
    const text = JSON.stringify((await person.once('GET', `/api/v1/${path}`)).body)
    ids.push(
      ...new Set([...text.matchAll(/"id":"([0-9a-f-]{36})"/g)].slice(0, 12).map((m) => m[1]!)),
    )
  }
  return ids
}

const AT_ONCE = 6
export async function fuzz(base: string, count: number, seed: number): Promise<Trial> {
  const chance = chanceOf(seed)
  const owner = await new Person(base, 'owner@demo.test').signIn()
  const operations = operationsOf((await owner.once('GET', '/api/v1/openapi.json')).body as never)
  const ids = await harvest(owner)
  const faults: string[] = []
  const statuses: Record<string, number> = {}
  let done = 0
  const loop = async () => {
    while (done < count) {
      const o = operations[done++ % operations.length]!
      const { path, body, headers } = requestOf(o, chance, ids)
      const reply = await owner
        .once(o.method, `/api/v1${path}`, body, headers)
        .catch((error: Error) => ({ status: 0, body: { detail: error.message } }))
      statuses[reply.status] = (statuses[reply.status] ?? 0) + 1
      if (reply.status === 0 || reply.status >= 500)
        faults.push(
          `${o.operationId} ${reply.status}: ${path.slice(0, 120)} ${String(body).slice(0, 300)} → ${JSON.stringify(reply.body).slice(0, 120)}`,
        )
    }
  }
  await Promise.all(Array.from({ length: AT_ONCE }, loop))
  return { name: 'fuzz', acts: done, faults, lost: 0, doubled: 0, seed, statuses }
}
