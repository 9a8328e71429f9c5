// What a call comes to: a booking, or a quote; made of the draft as it stands.
import { QUOTE_VISIT } from '~~/core/visits/workKinds'
import type { Answer, Given } from '~~/shared/api'
import { call, newId, type Problem } from '~/lib/api'
import { given } from '~/lib/given'
import { useCall, type Draft } from '~/stores/call'
import { useSession } from '~/stores/session'

/** What whoever goes must be able to do: by the kind of work, and by what was read out. */
export function skillsFor(kind: string, lines: readonly { skills: string[] }[]): string[] {
  const ofKind = useSession().kindOf(kind)
  return [...new Set([ofKind, ...lines].flatMap((one) => one?.skills ?? []))]
}
/** What the button says: when, who, and that it is to quote. */
export function sayBooking(
  { kind, date, start }: Draft,
  technician: { name: string } | null | undefined,
): string {
  const quote = kind === QUOTE_VISIT ? ' to quote' : ''
  if (!technician) return `Book without a time${quote}`
  const at = `${useSession().day(date!)} ${start}`
  return `Book ${at}${quote}, ${technician.name.split(' ')[0]}`
}
interface Said {
  /** whether somebody books in spite of a warning */
  override: boolean
  /** why somebody books for a customer whom nobody works for */
  inSpite: string
}
/** Who it is for, what it is about. */
const aboutPart = (d: Draft) => ({
  customerId: given(d.customerId),
  siteId: given(d.siteId),
  contactId: d.contactId,
  equipmentId: d.equipmentId,
  suppliedLineId: d.suppliedLineId,
  speaking: d.speaking,
  phone: d.phone,
  problem: d.problem,
  kind: d.kind,
  source: d.source,
  orderNumber: d.orderNumber,
  answers: d.answers,
})
/** When, who goes, what is promised, who makes room for it. */
const whenPart = (d: Draft) => ({
  technicianId: d.technicianId,
  date: d.date,
  start: d.start || null,
  durationSeconds: d.durationSeconds,
  promiseFrom: d.promiseFrom || null,
  promiseTo: d.promiseTo || null,
  moves: d.moves.map(({ visitId, startAt }) => ({ visitId, startAt })),
})
/** What was read out of the book, also what cannot be looked up at this moment. */
const entriesOf = ({ entries }: Draft) =>
  entries.map(({ entryId, quantity }) => ({ entryId, quantity }))
export async function bookCall(said: Said): Promise<Answer<'bookCall'>> {
  const { id, draft, book } = useCall()
  const { workOrderId, visitId } = book
  const body: Given<'bookCall'> = {
    workOrderId,
    visitId,
    ...aboutPart(draft),
    ...whenPart(draft),
    entries: entriesOf(draft),
    leftOut: draft.leftOut,
    override: said.override || draft.moves.length > 0,
    reason: said.inSpite,
  }
  try {
    return await call('bookCall', { params: { id }, key: `${book.key}`, body })
  } catch (error) {
    // Another try is another request: what was typed may have changed.
    book.key = newId()
    throw error as Problem
  }
}
/** The wish is priced instead of booked: customer, site, words and the lines that were read out go along. */
export function quoteCall(): Promise<Answer<'beginQuote'>> {
  const { id, draft, book } = useCall()
  const { customerId, siteId, speaking, phone, problem, orderNumber, source, answers } = draft
  const { equipmentId, suppliedLineId } = draft
  return call('beginQuote', {
    body: {
      ...{ id: book.workOrderId, callId: id, customerId, siteId, speaking, phone },
      ...{ scope: problem, orderNumber, source, answers, equipmentId, suppliedLineId },
      lines: entriesOf(draft).map((entry) => ({
        id: newId(),
        ...entry,
        kind: 'other' as const,
        name: undefined,
        unitPrice: undefined,
      })),
    },
  })
}
