// An OpenAPI 3.1 document of every route, made from the same Yup schemas that validate.
import { ERRORS } from '../../core/errors/errors'
import type { AnySchema, SchemaDescription, SchemaFieldDescription } from 'yup'
import { routes } from '../../shared/api'
import { callersOf, type Route } from '../../shared/schema'
import { VERSION } from '../figures/version'

type Json = Record<string, unknown>
type Described = SchemaDescription & {
  fields?: Record<string, SchemaFieldDescription>
  innerType?: SchemaFieldDescription
  nullable?: boolean
  meta?: { format?: string; free?: boolean }
}
/** The parameters of one of a schema's checks, where it has it. */
const checkOf = (d: Described, name: string) =>
  d.tests?.find((t) => t.name === name)?.params as Record<string, unknown> | undefined
/** An entry, where there is something to say. */
const where = (key: string, value: unknown): Json => (value === undefined ? {} : { [key]: value })

function objectSchema({ fields = {}, meta }: Described): Json {
  const all = Object.entries(fields)
  const required = all.filter(([, f]) => !(f as SchemaDescription).optional).map(([k]) => k)
  return {
    type: 'object',
    properties: Object.fromEntries(all.map(([k, f]) => [k, jsonSchemaOf(f)])),
    ...where('required', required.length ? required : undefined),
    additionalProperties: meta?.free ?? false,
  }
}
function textSchema(d: Described): Json {
  const choices = d.oneOf?.filter((v) => v !== null) ?? []
  const all = d.nullable ? [...choices, null] : choices
  return {
    type: 'string',
    ...where('maxLength', checkOf(d, 'max')?.max),
    ...where('format', d.meta?.format),
    ...where('pattern', (checkOf(d, 'matches')?.regex as RegExp | undefined)?.source),
    ...where('enum', choices.length ? all : undefined),
  }
}
const numberSchema = (d: Described): Json => ({
  type: 'number',
  ...where('minimum', checkOf(d, 'min')?.min),
  ...where('maximum', checkOf(d, 'max')?.max),
})
const arraySchema = ({ innerType }: Described): Json => ({
  type: 'array',
  items: innerType ? jsonSchemaOf(innerType) : {},
})
const SCHEMAS: Partial<Record<string, (d: Described) => Json>> = {
  object: objectSchema,
  array: arraySchema,
  boolean: () => ({ type: 'boolean' }),
  number: numberSchema,
}
export function jsonSchemaOf(description: SchemaFieldDescription): Json {
  const d = description as Described
  const schema = (SCHEMAS[d.type] ?? textSchema)(d)
  if (d.nullable) schema.type = [schema.type, 'null']
  if (d.type === 'object') return schema
  return { ...schema, ...where('default', 'default' in d ? d.default : undefined) }
}

const inPath = (path: string): Json[] =>
  [...path.matchAll(/\{(\w+)\}/g)].map((m) => ({
    name: m[1],
    in: 'path',
    required: true,
    schema: { type: 'string' },
  }))
function inQuery({ query }: Route): Json[] {
  if (!query) return []
  const { properties, required } = jsonSchemaOf(query.describe()) as {
    properties: Record<string, Json>
    required?: string[]
  }
  return Object.entries(properties).map(([name, schema]) => ({
    name,
    in: 'query',
    required: required?.includes(name) ?? false,
    schema,
  }))
}
const IDEMPOTENCY_KEY: Json = {
  name: 'Idempotency-Key',
  in: 'header',
  required: false,
  schema: { type: 'string', minLength: 8, maxLength: 80 },
}
const json = (schema: AnySchema): Json => ({
  'application/json': { schema: jsonSchemaOf(schema.describe()) },
})
const PROBLEM: Json = {
  description: 'A problem (RFC 9457)',
  content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
}
const ANY_FILE = { 'application/octet-stream': { schema: { type: 'string', format: 'binary' } } }
const operationOf = (operationId: string, r: Route): Json => ({
  operationId,
  summary: r.summary,
  'x-who': callersOf(r),
  ...where('x-may', r.may),
  parameters: [...inPath(r.path), ...inQuery(r), ...(r.method === 'GET' ? [] : [IDEMPOTENCY_KEY])],
  security: r.may ? [{ cookie: [] }, { token: [] }] : [],
  ...where('requestBody', r.body && { required: true, content: json(r.body) }),
  ...where('requestBody', r.takesFile && { required: true, content: ANY_FILE }),
  responses: {
    200: {
      description: 'Done',
      content: r.answer
        ? json(r.answer)
        : { [r.mime ?? 'application/octet-stream']: { schema: { type: 'string' } } },
    },
    default: PROBLEM,
  },
})
const COMPONENTS: Json = {
  securitySchemes: {
    cookie: { type: 'apiKey', in: 'cookie', name: 'open-ledger' },
    token: { type: 'http', scheme: 'bearer' },
  },
  schemas: {
    Problem: {
      type: 'object',
      required: ['type', 'code', 'title', 'detail', 'status'],
      properties: {
        type: { type: 'string' },
        code: {
          type: 'string',
          enum: Object.keys(ERRORS),
          'x-meanings': Object.fromEntries(
            Object.entries(ERRORS).map(([code, [, means]]) => [code, means]),
          ),
        },
        title: { type: 'string' },
        detail: { type: 'string' },
        status: { type: 'integer' },
        errors: {
          type: 'array',
          items: {
            type: 'object',
            properties: { path: { type: 'string' }, message: { type: 'string' } },
          },
        },
      },
    },
  },
}
export function openapi(): Json {
  const paths: Record<string, Json> = {}
  for (const [name, r] of Object.entries(routes) as [string, Route][])
    paths[r.path] = { ...paths[r.path], [r.method.toLowerCase()]: operationOf(name, r) }
  return {
    openapi: '3.1.0',
    info: { title: 'Open Ledger', version: VERSION },
    servers: [{ url: '/api/v1' }],
    paths,
    components: COMPONENTS,
  }
}
