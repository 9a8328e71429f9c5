// A call in words: in one line, and how one ends that is not booked.
import type { Body } from '~~/shared/api'
import type { Draft } from '~/stores/call'

export type CallEnd = Body<'endCall'>['state']
export const END_WORDS: Readonly<Record<CallEnd, { title: string; reason: string; act: string }>> =
  {
    put_off: { title: 'Call back', reason: 'Why', act: 'Put it on the list' },
    answered: { title: 'Answered', reason: 'What was said', act: 'End the call' },
    declined: { title: 'No, because', reason: 'Why', act: 'End the call' },
  }

/** What a call is about in one line, as far as it is known. */
export const inOneLine = ({ name, query, problem }: Draft, customer?: string): string =>
  [customer ?? (name || query), problem.split(/[.\n]/)[0]].filter(Boolean).join(', ').slice(0, 190)
