// What the first screen asks for, asked while its code is still on its way: whoever asks for it first takes that answer.
import type { Answer } from '~~/shared/api'
import { call } from './api'

/** Routes that are asked with nothing. */
type Ahead = 'session' | 'fieldDay'
/** An answer that nobody took by then is old. */
const FRESH_MS = 10_000
const ahead = new Map<string, { answer: Promise<unknown>; at: number }>()
/** What is known already, for whoever asks for it first. */
export function giveAhead<N extends Ahead>(name: N, answer: Answer<N>): void {
  ahead.set(name, { answer: Promise.resolve(answer), at: Date.now() })
}
export function askAhead(name: Ahead): void {
  const answer = call(name)
  ahead.set(name, { answer, at: Date.now() })
  // Who takes it says it; who comes later asks again.
  answer.catch(() => ahead.delete(name))
}
/** The answer that was asked for ahead: once, and while it is fresh. */
export function takeAhead<N extends string>(
  name: N,
): Promise<N extends Ahead ? Answer<N> : never> | null {
  const asked = ahead.get(name)
  ahead.delete(name)
  return asked && Date.now() - asked.at < FRESH_MS ? (asked.answer as never) : null
}
