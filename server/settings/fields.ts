// The firm's own fields: a value is of the kind of its field, and of a field that is there.
import { invalid } from '../../core/errors/LedgerError'
import { isDay } from '../../core/time/zone'
import type { Ctx } from '../http/context'
import { customFields, type FieldRow } from './queries'

const MOST = 400
type Kept = Pick<FieldRow, 'kind' | 'choices'>
/** What is asked for where a value is not of its field's kind. */
const WANTED: Record<
  FieldRow['kind'],
  { fits: (value: string, of: Kept) => boolean; ask: string }
> = {
  number: { fits: (value) => /^-?\d{1,15}(\.\d{1,6})?$/.test(value), ask: 'Write a number.' },
  date: { fits: isDay, ask: 'Write the date as YYYY-MM-DD.' },
  choice: { fits: (value, { choices }) => choices.includes(value), ask: 'Choose one of: ' },
  yes_no: { fits: (value) => value === 'yes' || value === 'no', ask: 'Choose yes or no.' },
  text: { fits: () => true, ask: '' },
}
/** What is wrong with a value; empty where nothing is. An empty value is no value, and always right. */
export function faultOfValue(field: Kept, value: string): string {
  if (value === '') return ''
  if (value.length > MOST) return `Not more than ${MOST} signs.`
  const { fits, ask } = WANTED[field.kind]
  if (fits(value, field)) return ''
  return field.kind === 'choice' ? `${ask}${field.choices.join(', ')}.` : ask
}
/** Refuses values of unknown fields, and values of the wrong kind. What stood there before may stay. */
export async function checkFields(
  ctx: Ctx,
  subject: FieldRow['subject'],
  values: Record<string, unknown> | undefined,
  before: Record<string, unknown> = {},
): Promise<void> {
  const changed = Object.entries(values ?? {}).filter(([id, value]) => value !== before[id])
  if (changed.length === 0) return
  const known = new Map(
    (await customFields(ctx.tx)).filter((f) => f.subject === subject).map((f) => [f.id, f]),
  )
  for (const [id, value] of changed) {
    const field = known.get(id)
    if (!field) throw invalid(`custom.${id}`, 'There is no such field here.')
    const fault =
      typeof value === 'string' ? faultOfValue(field, value) : 'This is not of the right kind.'
    if (fault) throw invalid(`custom.${id}`, `${field.name}: ${fault}`)
  }
}
