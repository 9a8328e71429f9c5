// What happens to calls, and how the history says it.
import { facts } from '../http/facts'

export const callFacts = facts('call', {
  begun: () => 'A call began',
  /** by entries from before a pause of the typing was no longer one */
  kept: () => 'Call kept',
  requested: (f: { name: string }) => `Request from ${f.name} on the web page`,
  cameByForm: (f: { at: string }, say) => `Asked on the web page, ${say.at(f.at)}`,
  putOff: (f: { until: string; reason: string }, say) =>
    `Call back on ${say.day(f.until)}: ${f.reason}`,
  answered: (f: { reason: string }) => `Answered: ${f.reason}`,
  declined: (f: { reason: string }) => `No: ${f.reason}`,
  reopened: () => 'Taken up again',
})
