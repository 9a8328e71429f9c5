// An OpenAPI 3.1 document of every route, made from the same Yup schemas that validate.
import type { SchemaDescription, SchemaFieldDescription } from 'yup'
import { routes } from '../../shared/api'
import { callersOf, type Route } from '../../shared/schema'
import { VERSION } from '../figures/version'

type Json = Record<string, unknown>
export function jsonSchemaOf(description: SchemaFieldDescription): Json {
  const d = description as SchemaDescription & {
    fields?: Record<string, SchemaFieldDescription>
    innerType?: SchemaFieldDescription
    nullable?: boolean
    meta?: { format?: string; free?: boolean }
  }
  const test = (name: string) =>
    d.tests?.find((t) => t.name === name)?.params as Record<string, unknown> | undefined
  let schema: Json
  if (d.type === 'object') {
    const fields = Object.entries(d.fields ?? {})
    const required = fields.filter(([, f]) => !(f as SchemaDescription).optional).map(([k]) => k)
    schema = {
      type: 'object',
      properties: Object.fromEntries(fields.map(([k, f]) => [k, jsonSchemaOf(f)])),
      ...(required.length ? { required } : {}),
      additionalProperties: d.meta?.free ?? false,
    }
  } else if (d.type === 'array')
    schema = {
      type: 'array',
      items: d.innerType ? jsonSchemaOf(d.innerType as SchemaFieldDescription) : {},
    }
  else if (d.type === 'boolean') schema = { type: 'boolean' }
  else if (d.type === 'number')
    schema = {
      type: 'number',
      ...(test('min') ? { minimum: test('min')!.min } : {}),
      ...(test('max') ? { maximum: test('max')!.max } : {}),
    }
  else {
    schema = {
      type: 'string',
      ...(test('max') ? { maxLength: test('max')!.max } : {}),
      ...(d.meta?.format ? { format: d.meta.format } : {}),
      ...(test('matches') ? { pattern: String((test('matches')!.regex as RegExp).source) } : {}),
    }
    const choices = d.oneOf?.filter((v) => v !== null)
    if (choices?.length) schema.enum = d.nullable ? [...choices, null] : choices
  }
  if (d.nullable) schema.type = [schema.type, 'null']
  if ('default' in d && d.default !== undefined && d.type !== 'object') schema.default = d.default
  return schema
}

export function openapi(): Json {
  const paths: Record<string, Json> = {}
  for (const [operationId, r] of Object.entries(routes) as [string, Route][]) {
    const parameters: Json[] = [...r.path.matchAll(/\{(\w+)\}/g)].map((m) => ({
      name: m[1],
      in: 'path',
      required: true,
      schema: { type: 'string' },
    }))
    if (r.query) {
      const q = jsonSchemaOf(r.query.describe()) as {
        properties: Record<string, Json>
        required?: string[]
      }
      for (const [name, schema] of Object.entries(q.properties))
        parameters.push({
          name,
          in: 'query',
          required: q.required?.includes(name) ?? false,
          schema,
        })
    }
    if (r.method !== 'GET')
      parameters.push({
        name: 'Idempotency-Key',
        in: 'header',
        required: false,
        schema: { type: 'string', minLength: 8, maxLength: 80 },
      })
    const content = r.answer
      ? { 'application/json': { schema: jsonSchemaOf(r.answer.describe()) } }
      : { [r.mime ?? 'application/octet-stream']: { schema: { type: 'string' } } }
    paths[r.path] = {
      ...paths[r.path],
      [r.method.toLowerCase()]: {
        operationId,
        summary: r.summary,
        'x-who': callersOf(r),
        ...(r.may ? { 'x-may': r.may } : {}),
        parameters,
        security: r.may ? [{ cookie: [] }, { token: [] }] : [],
        ...(r.body
          ? {
              requestBody: {
                required: true,
                content: { 'application/json': { schema: jsonSchemaOf(r.body.describe()) } },
              },
            }
          : {}),
        responses: {
          200: { description: 'Done', content },
          default: {
            description: 'A problem (RFC 9457)',
            content: {
              'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } },
            },
          },
        },
      },
    }
  }
  return {
    openapi: '3.1.0',
    info: { title: 'Open Ledger', version: VERSION },
    servers: [{ url: '/api/v1' }],
    paths,
    components: {
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
            code: { type: 'string' },
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
    },
  }
}
