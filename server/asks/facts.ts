// What was asked of somebody who may, and what came of it.
import { facts } from '../http/facts'

interface Answered {
  what: string
  askedBy: string
  words: string
}
const said = ({ words }: Answered) => (words ? `: ${words}` : '')
export const askFacts = facts('ask', {
  asked: (f: { what: string; reason: string }) => `Asked for a yes: ${f.what}: ${f.reason}`,
  given: (f: Answered) => `Said yes to ${f.askedBy}: ${f.what}${said(f)}`,
  refused: (f: Answered) => `Said no to ${f.askedBy}: ${f.what}${said(f)}`,
  withdrawn: (f: Answered) => `No longer asked for: ${f.what}`,
})
