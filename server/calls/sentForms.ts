// Forms that were sent back to their sender: what the form asks for, at its lengths, for an hour,
// under a random name, so that nothing typed is lost. In the database, so that any process shows it.
import { randomUUID } from 'node:crypto'
import type { Ctx } from '../http/context'
import type { Problem } from '../http/problem'
import { FORM_FIELDS } from './requests'
import { formById, insertForm, type SentForm } from './queries'
import { HOUR } from '../../core/time/units'

export const KEPT_MS = HOUR
/** So many are kept at once; the oldest make room. Each is a few kilobytes at most. */
export const MOST_FORMS = 500

/** The fields that the form asks for, and no more of each than it takes. */
export const fieldsOfForm = (sent: Readonly<Record<string, string>>): Record<string, string> =>
  Object.fromEntries(
    Object.entries(FORM_FIELDS).map(([name, most]) => [
      name,
      (sent[name] ?? '').toWellFormed().slice(0, most),
    ]),
  )

export async function keepForm(
  ctx: Ctx,
  form: { fields: Record<string, string>; problem: Problem },
): Promise<string> {
  const id = randomUUID()
  const { code, detail, errors } = form.problem
  await insertForm(ctx.tx, {
    id,
    fields: fieldsOfForm(form.fields),
    problem: { code, detail, errors },
    at: Date.now(),
    most: MOST_FORMS,
  })
  return id
}
export async function sentForm(ctx: Ctx, id: string): Promise<SentForm | null> {
  return await formById(ctx.tx, id, Date.now() - KEPT_MS)
}
