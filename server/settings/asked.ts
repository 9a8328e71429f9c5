// What is asked of every caller, and the fields of the firm's own: kept, not asked any more, put back.
import { conflict, invalid } from '../../core/errors/LedgerError'
import type { Answer, Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { partsOf, refuseOther } from './asShown'
import { settingFacts } from './facts'
import { lockFirm } from './firm.queries'
import { customFields, putField, putQuestion, questions } from './queries'
import { isKnown, refuseChanged, undoes } from './undoes'

const needChoices = (kind: string, choices: string[]) => {
  if (kind === 'choice' && choices.length < 2)
    throw invalid('choices', 'Write at least two choices.')
}
/** As many as are read: one more would be kept and seen by nobody. */
const MOST_QUESTIONS = 100
const MOST_FIELDS = 200
const PARTS = ['kind', 'choices', 'retired'] as const
type Question = Omit<Body<'keepQuestion'>, 'shown'>
type Asked = Omit<Question, 'id'>
const questionIn = (all: Awaited<ReturnType<typeof questions>>, id: string) => {
  const found = all.find((one) => one.id === id)
  return found ? partsOf(found, ['text', ...PARTS]) : null
}
export async function keepQuestion(
  ctx: Ctx,
  { shown, ...question }: Body<'keepQuestion'>,
): Promise<Answer<'keepQuestion'>> {
  needChoices(question.kind, question.choices)
  await lockFirm(ctx.tx)
  const all = await questions(ctx.tx)
  const from = questionIn(all, question.id)
  refuseOther('this question', { now: from, shown })
  if (!from && all.length >= MOST_QUESTIONS)
    throw invalid('text', `There may be ${MOST_QUESTIONS} at most.`)
  // Answers that were written under one kind cannot be read under another.
  if (from && from.kind !== question.kind)
    throw conflict(
      'field_in_use',
      'How a question is answered stays as it is. Retire it and make another.',
    )
  await putQuestion(ctx.tx, question)
  await noteQuestion(ctx, question, from)
  return { ok: true }
}
async function noteQuestion(ctx: Ctx, question: Question, from: Asked | null): Promise<void> {
  const { id, text, retired } = question
  const changes = { question: { from, to: partsOf(question, ['text', ...PARTS]) } }
  const say = retired ? settingFacts.questionRetired : settingFacts.questionAsked
  await record(ctx, { subject: 'settings', id, fact: say({ id, text, changes }) })
}
type Field = Omit<Body<'keepField'>, 'shown'>
type Own = Omit<Field, 'id'>
const fieldIn = (all: Awaited<ReturnType<typeof customFields>>, id: string) => {
  const found = all.find((one) => one.id === id)
  return found ? partsOf(found, ['subject', 'name', ...PARTS]) : null
}
export async function keepField(
  ctx: Ctx,
  { shown, ...field }: Body<'keepField'>,
): Promise<Answer<'keepField'>> {
  needChoices(field.kind, field.choices)
  await lockFirm(ctx.tx)
  const all = await customFields(ctx.tx)
  const from = fieldIn(all, field.id)
  refuseOther('this field', { now: from, shown })
  if (!from && all.length >= MOST_FIELDS)
    throw invalid('name', `There may be ${MOST_FIELDS} at most.`)
  if (from && (from.kind !== field.kind || from.subject !== field.subject))
    throw conflict(
      'field_in_use',
      'The kind and place of a field stay as they are. Retire it and make another.',
    )
  await putField(ctx.tx, field)
  await noteField(ctx, field, from)
  return { ok: true }
}
async function noteField(ctx: Ctx, field: Field, from: Own | null): Promise<void> {
  const { id, name, retired, subject } = field
  const changes = { field: { from, to: partsOf(field, ['subject', 'name', ...PARTS]) } }
  const say = retired ? settingFacts.fieldRetired : settingFacts.fieldKept
  const fact = say({ id, name, of: subject.replace('_', ' '), changes })
  await record(ctx, { subject: 'settings', id, fact })
}

interface Was<T> {
  from: T | null
  to: T
}
/** One that was new is retired: what was answered or written meanwhile stays. */
const before = <T extends object>({ from, to }: Was<T>): T => from ?? { ...to, retired: true }
const questionBack = {
  ...{ may: 'settings.change' as const, fits: isKnown },
  async back(ctx: Ctx, { id, changes }: { id: string; changes: { question: Was<Asked> } }) {
    const shown = questionIn(await questions(ctx.tx), id)
    refuseChanged(shown, changes.question.to)
    await keepQuestion(ctx, { ...before(changes.question), id, shown })
  },
}
const fieldBack = {
  ...{ may: 'settings.change' as const, fits: isKnown },
  async back(ctx: Ctx, { id, changes }: { id: string; changes: { field: Was<Own> } }) {
    const shown = fieldIn(await customFields(ctx.tx), id)
    refuseChanged(shown, changes.field.to)
    await keepField(ctx, { ...before(changes.field), id, shown })
  },
}
undoes({
  'settings.questionAsked': questionBack,
  'settings.questionRetired': questionBack,
  'settings.fieldKept': fieldBack,
  'settings.fieldRetired': fieldBack,
})
