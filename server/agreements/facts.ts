// What happens to care agreements, and how the history says it.
import { facts } from '../http/facts'

type Plan = { plan: string }

export const agreementFacts = facts('agreement', {
  made: (f: Plan & { from: string; until: string }, say) =>
    `Care agreement ${f.plan} from ${say.day(f.from)} to ${say.day(f.until)}`,
  renewed: (f: Plan & { until: string }, say) =>
    `Care agreement ${f.plan} renewed until ${say.day(f.until)}`,
  yearToBill: (f: Plan & { from: string; until: string }, say) =>
    `Care agreement ${f.plan} to be billed from ${say.day(f.from)} to ${say.day(f.until)}`,
  planAdded: (f: Plan) => `Plan ${f.plan} added`,
})
