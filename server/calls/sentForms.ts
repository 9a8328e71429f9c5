// Forms that were sent back to their sender: kept for a few minutes under a random name, so that nothing typed is lost.
import { randomUUID } from 'node:crypto'
import type { Problem } from '../http/problem'

export interface SentForm { fields: Record<string, string>, problem: Pick<Problem, 'code' | 'detail' | 'errors'> }
const kept = new Map<string, SentForm>()
const MOST = 500

export function keepForm(form: { fields: Record<string, string>, problem: Problem }): string {
  if (kept.size >= MOST) kept.delete(kept.keys().next().value!)
  const key = randomUUID()
  const { stamp: _stamp, website: _website, ...fields } = form.fields
  kept.set(key, { fields, problem: { code: form.problem.code, detail: form.problem.detail, errors: form.problem.errors } })
  return key
}
export const sentForm = (key: string): SentForm | null => kept.get(key) ?? null
