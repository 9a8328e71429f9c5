// Who is calling: the match index of this process, built once and kept up with every change that is committed.
import {
  matchIndex,
  nameKey,
  type Found,
  type MatchDoc,
  type MatchField,
  type MatchIndex,
} from '../../core/customers/matchIndex'
import { phoneKey } from '../../core/text/phone'
import { bus, catchUp, emit, type AppEvent } from '../events/events'
import { inBackgroundContext, type Ctx } from '../http/context'
import { log } from '../http/log'
import { matchRows } from './matching.queries'

let index: MatchIndex | null = null
let building: Promise<MatchIndex> | null = null
const changed = new Set<string>()
bus.on('customer', (e: AppEvent) => void changed.add(e.subjectId))
/** Customers whose words may have changed: every process reads them again at its next question. */
export const customersChanged = (ctx: Ctx, ids: readonly string[]): void => {
  for (const id of ids)
    emit(ctx.tx, { topic: 'customer', subject: 'customer', subjectId: id, workOrderId: null })
}

/** What can be said of some customers, or of all, as the index and the search for duplicates take it. */
export async function matchDocs(ctx: Ctx, ids: string[] | null): Promise<MatchDoc[]> {
  const { customers, sites, contacts, equipment } = await matchRows(ctx.tx, ids)
  const group = <T extends { customerId: string }>(rows: T[]) => {
    const groups = new Map<string, T[]>()
    for (const row of rows) {
      const own = groups.get(row.customerId)
      if (own) own.push(row)
      else groups.set(row.customerId, [row])
    }
    return groups
  }
  const [ofSites, ofContacts, ofEquipment] = [group(sites), group(contacts), group(equipment)]
  // Only texts: what else stands in a field of the firm's own, nobody can look for.
  const values = (custom: unknown) =>
    Object.values(custom ?? {}).filter((v): v is string => typeof v === 'string')
  return customers
    .filter((c) => !c.mergedInto)
    .map((c) => {
      const [own, people, things] = [
        ofSites.get(c.id) ?? [],
        ofContacts.get(c.id) ?? [],
        ofEquipment.get(c.id) ?? [],
      ]
      return {
        id: c.id,
        name: c.name,
        contacts: people.map((k) => k.name),
        places: [
          ...new Set(
            [
              [c.line1, c.town, c.postcode].join(' '),
              ...own.map((s) => [s.name, s.line1, s.town, s.postcode].join(' ')),
            ]
              .map((p) => p.trim())
              .filter(Boolean),
          ),
        ],
        mails: [c.email, c.email2, ...people.map((k) => k.email)].filter(Boolean),
        phones: [
          ...new Set(
            [c.phone, c.phone2, ...people.flatMap((k) => [k.phone, k.phone2])]
              .filter(Boolean)
              .map((p) => phoneKey(p, ctx.company.country))
              .filter(Boolean),
          ),
        ],
        serials: things.map((e) => e.serial).filter(Boolean),
        other: [
          ...c.tags,
          ...values(c.custom),
          ...own.flatMap((s) => values(s.custom)),
          ...things.map((e) => `${e.make} ${e.category}`),
        ],
      }
    })
}

async function build(): Promise<MatchIndex> {
  const made = matchIndex([])
  changed.clear()
  await inBackgroundContext(async (ctx) => {
    await made.fill(await readable(ctx, null))
  })
  return made
}
/** The customers as the index takes them; one that cannot be read is reported and left out, and ends nothing. */
async function readable(ctx: Ctx, ids: string[] | null): Promise<MatchDoc[]> {
  try {
    return await matchDocs(ctx, ids)
  } catch (error) {
    if (ids?.length === 1) {
      log.error(
        { customerId: ids[0], err: (error as Error).message },
        'a customer cannot be indexed',
      )
      return []
    }
    const all = ids ?? (await matchRows(ctx.tx, null)).customers.map((c) => c.id)
    const half = Math.ceil(all.length / 2)
    if (half === 0) return []
    return [...(await readable(ctx, all.slice(0, half))), ...(await readable(ctx, all.slice(half)))]
  }
}
/** The index as it is now. It is built once, beside any request; where that fails, the next question tries again. */
async function current(ctx: Ctx): Promise<MatchIndex> {
  if (!index) {
    building ??= build().finally(() => {
      building = null
    })
    index = await building
  }
  // What another process changed a moment ago counts too.
  await catchUp(ctx.tx)
  if (changed.size) {
    const ids = [...changed].slice(0, 2000)
    const docs = await readable(ctx, ids)
    // Only now: where the reading fails, the next question reads them again.
    for (const id of ids) changed.delete(id)
    index.put(docs)
    const alive = new Set(docs.map((d) => d.id))
    for (const id of ids) if (!alive.has(id)) index.take(id)
  }
  return index
}
/** Builds the index before anybody asks. */
export const warmMatching = (): Promise<void> =>
  inBackgroundContext(async (ctx) => void (await current(ctx)))
export const findCustomers = async (ctx: Ctx, question: string, limit: number): Promise<Found[]> =>
  (await current(ctx)).find(question, limit)

const SAID: Record<MatchField, string> = {
  name: 'name',
  contacts: 'contact',
  places: 'address',
  mails: 'mail',
  phones: 'telephone',
  serials: 'serial number',
  other: 'notes and fields',
}
/** Why somebody was found, in words: by what, and how a misspelt word was read. */
export function whyFound(question: string, found: Found): string[] {
  const typed = ` ${nameKey(question)} `
  return [
    ...new Set(
      found.why.map(({ field, word }) =>
        /^\d/.test(word) ||
        typed.includes(` ${word}`) ||
        [...typed.split(' ')].some((t) => t.length > 1 && word.startsWith(t))
          ? SAID[field]
          : `${SAID[field]}, read as “${word}”`,
      ),
    ),
  ]
}
/** Which of several sites the words mean; null where they do not say. */
export function siteMeant<
  T extends { id: string; name: string; line1: string; town: string; postcode: string },
>(sites: readonly T[], found: Found): string | null {
  if (sites.length === 1) return sites[0]!.id
  const words = found.why.filter((w) => w.field === 'places').map((w) => w.word)
  const points = sites.map((s) => {
    const own = nameKey([s.name, s.line1, s.town, s.postcode].join(' ')).split(' ')
    return words.filter((w) => own.includes(w)).length
  })
  const most = Math.max(0, ...points)
  return most > 0 && points.filter((p) => p === most).length === 1
    ? sites[points.indexOf(most)]!.id
    : null
}
