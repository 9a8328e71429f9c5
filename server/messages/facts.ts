// What happens to messages, and how the history says it.
import { facts } from '../http/facts'

type Message = { channel: 'mail' | 'text' | 'letter'; subject: string }
const nameOf = (f: Message) => (f.channel === 'text' ? 'Text' : `Mail “${f.subject}”`)
const takerOf = (f: Message) => (f.channel === 'text' ? 'text service' : 'mail server')

export const messageFacts = facts('message', {
  retried: () => 'Message tried again',
  letBe: () => 'Message not sent any more',
  delivered: (f: Message) => `${nameOf(f)} delivered to the ${takerOf(f)}`,
  refused: (f: Message) => `${nameOf(f)} was not taken by the ${takerOf(f)}`,
})
