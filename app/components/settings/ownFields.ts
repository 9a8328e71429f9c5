// The firm's own fields, as fields of the kit.
import type { FieldKind, Option } from '~/base/fields'

export interface OwnField {
  id: string
  name: string
  kind: string
  choices: string[]
}
const KINDS: Readonly<Record<string, FieldKind>> = { date: 'date', number: 'figures' }
/** How one is filled in. */
export function controlOf({ kind, choices }: OwnField): { kind?: FieldKind; options?: Option[] } {
  const among = { yes_no: ['yes', 'no'], choice: choices }[kind]
  if (among) return { options: ['', ...among].map((value) => ({ value, label: value || '–' })) }
  return KINDS[kind] ? { kind: KINDS[kind] } : {}
}
