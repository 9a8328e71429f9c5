// Random sequences of what an office and its technicians do, by several people, one act after the other; after each, nothing is nowhere, the
// books agree, and the four columns hold. A sequence that breaks one of these is shrunk to the shortest that still does.
import fc from 'fast-check'
import { v7 } from 'uuid'
import { MINUTE } from '../../../core/time/units'
import { isUnderWay, type VisitState } from '../../../core/visits/visitLifecycle'
import type { Copy } from '../copy'
import { Person, type Trial } from '../tools'
import { ACTS, leaveAll } from './steps'
import { workOf, type Money, type Work, type World } from './world'

const NAMES = Object.keys(ACTS)
type Step = [act: string, n: number, m: number]
const step: fc.Arbitrary<Step> = fc.tuple(fc.constantFrom(...NAMES), fc.nat(6), fc.nat(40))

/** What holds between the columns of a work order, whatever was done. */
function columnsOf({ totals, lines }: Work): string[] {
  const cents = ({ amount }: Money) => Math.round(Number(amount) * 100)
  const billed = lines.reduce((sum, l) => sum + cents(l.billed), 0)
  const wrong = [
    cents(totals.paid) > cents(totals.billed) && 'more is paid than billed',
    billed > cents(totals.billed) && 'its lines are billed for more than it is',
    cents(totals.unpaid) !== cents(totals.billed) - cents(totals.paid) &&
      'unpaid is not billed less paid',
  ]
  return wrong.filter((w) => w !== false)
}
async function peopleOf(copy: Copy): Promise<Pick<World, 'office' | 'books' | 'phones'>> {
  const [office, books] = [
    await new Person(copy.base, 'owner@demo.test').signIn(),
    await new Person(copy.base, 'books@demo.test').signIn(),
  ]
  const day = (await office.once('GET', '/api/v1/schedule')).body as {
    technicians: { id: string; name: string; kind: string }[]
    visits: { technicianId: string; state: VisitState }[]
  }
  const busy = new Set(
    day.visits.filter(({ state }) => isUnderWay(state)).map((v) => v.technicianId),
  )
  const phones = []
  for (const { id, name, kind } of day.technicians) {
    // Who is somewhere already begins nothing else.
    if (kind !== 'employee' || busy.has(id)) continue
    const email = `${name.split(' ')[0]!.toLowerCase()}@demo.test`
    phones.push({ id, person: await new Person(copy.base, email).signIn() })
  }
  return { office, books, phones: phones.slice(0, 3) }
}
/** Two customers of its own for each sequence. */
async function customersOf(office: Person): Promise<World['customers']> {
  const made: World['customers'] = []
  for (const name of ['First', 'Second']) {
    const [id, siteId] = [v7(), v7()]
    const reply = await office.act('POST', '/customers', {
      ...{ id, name: `${name} ${id.slice(-6)}`, email: 'random@example.com' },
      ...{ siteId, line1: '1 Random Road', town: 'Otterfall' },
    })
    if (reply.status === 200) made.push({ customerId: id, siteId })
    else throw new Error(`no customer: ${JSON.stringify(reply.body)}`)
  }
  return made
}

function faultsOf(
  found: { failed: boolean; errorInstance: unknown; counterexample: unknown },
  { taken, sequences }: { taken: number; sequences: number },
): string[] {
  if (found.failed)
    return [`${String(found.errorInstance)} by ${JSON.stringify(found.counterexample)}`]
  // Where most is refused little is tried.
  return taken < 3 * sequences
    ? [`only ${taken} requests were taken in ${sequences} sequences`]
    : []
}
type People = Awaited<ReturnType<typeof peopleOf>>
/** What a sequence begins with: its people, two customers, and nothing done. */
const worldOf = async (copy: Copy, people: People): Promise<World> => ({
  ...{ ...people, copy, customers: await customersOf(people.office) },
  ...{ works: [], payments: [], last: null, merged: null, taken: 0, refused: 0 },
})
export async function acts(copy: Copy, minutes: number, seed: number): Promise<Trial> {
  process.env.DATABASE_URL = copy.databaseUrl
  const { atOneMoment } = await import('../../../server/http/context')
  const { checkRun } = await import('../../../server/waiting/checkRun')
  const { checkBooks } = await import('../../../server/ledger/checkBooks')
  const { closePool } = await import('../../../server/db/pool')
  const people = await peopleOf(copy)
  const began = performance.now()
  let [done, sequences, taken, refused] = [0, 0, 0, 0]
  /** What holds after every act. */
  async function holds(w: World, [act]: Step): Promise<void> {
    const [astray, books] = await atOneMoment({ actor: null, ip: '' }, async (ctx) => [
      await checkRun(ctx),
      await checkBooks(ctx.tx),
    ])
    if (astray[0]) throw new Error(`after ${act}: ${astray[0].what} ${astray[0].says}`)
    const wrong = books.find((b) => b.wrong.length)
    if (wrong) throw new Error(`after ${act}: ${wrong.name}: ${JSON.stringify(wrong.wrong[0])}`)
    for (let n = 0; n < w.works.length; n++) {
      const work = await workOf(w, n)
      const [says] = work ? columnsOf(work) : []
      if (says) throw new Error(`after ${act}: ${says}`)
    }
  }
  async function run(steps: readonly Step[]): Promise<void> {
    const w = await worldOf(copy, people)
    sequences++
    for (const one of [['book', 0, 1], ...steps] as Step[]) {
      const [act, n, m] = one
      const before = w.taken
      await ACTS[act]!(w, n, m)
      done++
      // What changed nothing leaves everything where it was, but for time.
      if (w.taken > before || act === 'timePasses') await holds(w, one)
    }
    await leaveAll(w)
    taken += w.taken
    refused += w.refused
  }
  const found = await fc.check(
    fc.asyncProperty(fc.array(step, { minLength: 6, maxLength: 24, size: 'max' }), run),
    {
      seed,
      numRuns: 1_000_000,
      interruptAfterTimeLimit: minutes * MINUTE,
      markInterruptAsFailure: false,
      endOnFailure: false,
    },
  )
  await closePool()
  const spent = (performance.now() - began) / MINUTE
  const faults = faultsOf(found, { taken, sequences })
  return {
    ...{ name: 'acts', acts: done, faults, lost: 0, doubled: 0 },
    ...{ seed, taken, refused, sequences, sequencesAMinute: Math.round(sequences / spent) },
  }
}
