// What happens to somebody's ways in, and how the history says it.
import { facts } from '../http/facts'

export const accessFacts = facts('access', {
  tokenMade: (f: { label: string }) => `A personal token was made: ${f.label}`,
  sessionEnded: () => 'A session or token was ended',
  othersSignedOut: (f: { count: number }) => `${f.count} other browsers were signed out`,
  passwordChanged: () => 'Password changed',
})
