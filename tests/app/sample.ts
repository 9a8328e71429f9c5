// Answers that are made up from their own schemas, so that every screen can be opened without writing its data by hand.
import type { AnySchema, SchemaDescription, SchemaFieldDescription } from 'yup'
import { seeded } from '../../core/random/seeded'

export interface Wanted {
  /** how many entries a list has */
  rows?: number
  seed?: number
  /** values by the name of their field, wherever it stands */
  fields?: Readonly<Record<string, unknown>>
}
const NAMES = ['Marrow & Son', 'Hallam Dairy', 'Tunde Oduya', 'Crossways Estate', 'Ada Castell']
/** What a text says where its schema does not: by the name of its field, and of what it stands in. */
const BY_NAME: readonly [RegExp, (n: number) => string][] = [
  [/^rates\.(book|customer|workOrder)$|\.(hour|material|labour)$/, (n) => `${n}.25`],
  [/currency/i, () => 'USD'],
  [/locale/i, () => 'en-US'],
  [/timeZone/i, () => 'America/New_York'],
  [/\.month|Month$/, () => '2026-11'],
  [/phone/i, (n) => `(607) 555-01${String(n % 100).padStart(2, '0')}`],
  [/mail/i, (n) => `somebody${n}@example.com`],
  [/rate$|factor|share|margin$|multiplier|percent/i, (n) => `0.${(n % 8) + 1}`],
  [
    /amount|price$|cost$|\.net$|quantity|minimum|wages|burden|overhead|hours$|book$|usual$|max$/i,
    (n) => `${(n % 900) + 1}.50`,
  ],
  [/customer|\.name$|firm|\.who$/i, (n) => `${NAMES[n % NAMES.length]} ${n}`],
  [/number/i, (n) => `N-${1000 + n}`],
]
/** What a text looks like that has to fit a pattern: the first of these that does. */
const FITTING = [
  '2026-11-24',
  '2026-11-24T14:30:00Z',
  '09:30',
  '12.50',
  '2026-11',
  '07',
  '#1d5c49',
  'en-US',
  'USD',
]
const uuid = (n: number) => `0192d4e0-0000-7000-8000-${n.toString(16).padStart(12, '0')}`

function textOf(schema: SchemaDescription, at: string, n: number, raw: AnySchema): string {
  const named = BY_NAME.find(([pattern]) => pattern.test(at))?.[1](n)
  const fits = (value: string) => raw.isValidSync(value)
  return [named, ...(hasPattern(schema) ? FITTING : []), `${at.split('.')[1]} ${n}`].find(
    (value): value is string => value !== undefined && fits(value),
  )!
}
const hasPattern = (schema: SchemaDescription) =>
  schema.tests.some((test) => test.name === 'matches')
function numberOf(schema: SchemaDescription, n: number): number {
  const bound = (name: string) =>
    schema.tests.find((test) => test.name === name)?.params?.[name] as number | undefined
  return Math.max(bound('min') ?? 0, Math.min(bound('max') ?? 50, n % 50))
}

/** A value that its schema takes: the same one for the same seed. */
export function sampleOf(of: AnySchema, { rows = 3, seed = 1, fields = {} }: Wanted = {}): unknown {
  const random = seeded(seed)
  let count = 0
  const next = () => ++count + Math.floor(random() * 40)
  const turns = new Map<string, number>()
  /** One of what may stand there, each in its turn: rows differ in it. */
  function oneOf(schema: SchemaDescription, at: string): string | null {
    const turn = turns.get(at) ?? seed
    turns.set(at, turn + 1)
    const choice = schema.oneOf[turn % Math.max(1, schema.oneOf.length)]
    return choice === undefined ? null : String(choice)
  }
  /** `at`: what it stands in, and its own name. */
  function make(raw: AnySchema, at: string): unknown {
    const [, name = ''] = at.split('.')
    if (name in fields) return fields[name]
    const schema = raw.describe() as SchemaDescription & {
      fields?: Record<string, SchemaFieldDescription>
    }
    if (schema.type === 'object') {
      const shape = (raw as unknown as { fields: Record<string, AnySchema> }).fields
      return Object.fromEntries(
        Object.entries(shape).map(([key, field]) => [key, make(field, `${name}.${key}`)]),
      )
    }
    if (schema.type === 'array') {
      const inner = (raw as unknown as { innerType?: AnySchema }).innerType
      return inner ? Array.from({ length: rows }, () => make(inner, at)) : []
    }
    const n = next()
    if (schema.type === 'boolean') return n % 2 === 0
    if (schema.type === 'number') return numberOf(schema, n)
    // No two things have the same identifier.
    if ((schema.meta as { format?: string } | undefined)?.format === 'uuid') return uuid(count)
    if (schema.type === 'string') return oneOf(schema, at) ?? textOf(schema, at, n, raw)
    return {}
  }
  return make(of, '.')
}
