// What happens to somebody's ways in, and how the history says it.
import { facts, type Change } from '../http/facts'

export const accessFacts = facts('access', {
  tokenMade: (f: { label: string }) => `A personal token was made: ${f.label}`,
  sessionEnded: () => 'A session or token was ended',
  othersSignedOut: (f: { count: number }) => `${f.count} other browsers were signed out`,
  passwordChanged: () => 'Password changed',
  secondStepSet: () => 'A second step was set up for signing in',
  secondStepEnded: () => 'The second step for signing in was ended',
  secondStepAsked: (_: { changes: Record<string, Change> }) =>
    'Of which roles a second step is asked was changed',
  signedIn: (f: { from: string }) => `Signed in from ${f.from}`,
  refused: (f: { from: string; why: string }) => `Did not come in from ${f.from}: ${f.why}`,
  personAdded: (f: { name: string; role: string }) => `${f.name} was added as ${f.role}`,
  personChanged: (f: { name: string; changes: Record<string, Change> }) => `${f.name} was changed`,
  costRateSaid: (f: { name: string; from: string | null }, say) =>
    `What an hour of ${f.name} costs was said${f.from ? `, from ${say.day(f.from)} on` : ''}`,
  costRateDropped: (f: { name: string; from: string }, say) =>
    `What an hour of ${f.name} costs from ${say.day(f.from)} on was taken back`,
  personLeft: (f: { name: string }) => `${f.name} left`,
  personBack: (f: { name: string }) => `${f.name} came back`,
  letIn: (f: { name: string }) =>
    `${f.name} was given a way in where the server runs, and the second step ended`,
  invited: (f: { name: string }) => `${f.name} was invited by mail`,
  cameIn: () => 'Came in by the invitation, and chose a password',
})
