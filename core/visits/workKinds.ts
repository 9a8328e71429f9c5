/** A kind of work as a firm has it: what it is called, and what it proposes. */
export interface WorkKind {
  /** stays, whatever it is called */
  code: string
  name: string
  /** how long a visit usually takes */
  minutes: number
  /** what whoever goes must be able to do */
  skills: string[]
  /** entries of the price book that a call of it charges, unless somebody says why not */
  charges: string[]
  /** is not proposed any more; work that has it keeps it */
  retired: boolean
}
/** A kind as it is kept. */
export type KeptKind = Omit<WorkKind, 'charges'> & Partial<Pick<WorkKind, 'charges'>>
/** A visit to look and to quote: it belongs to whoever goes, and nothing is billed of it. */
export const QUOTE_VISIT = 'quote_visit'
/** What a call is about until somebody says otherwise. */
export const FIRST_KIND = 'repair'
/** What the yearly visits of an agreement are. */
export const SERVICE = 'service'
/** What a quote that was accepted becomes. */
export const INSTALLATION = 'installation'

const usual = (code: string, minutes: number, name = code): WorkKind => ({
  ...{ code, name, minutes, skills: [], charges: [], retired: false },
})
/** Those that rules of ours speak of: a firm may call them otherwise, and never loses one (minutes are our own rule). */
export const USUAL_KINDS: readonly WorkKind[] = [
  usual(FIRST_KIND, 60),
  usual(SERVICE, 60),
  usual(INSTALLATION, 120),
  usual(QUOTE_VISIT, 60, 'quote visit'),
]
/**
 * All kinds of a firm: its own where it said any, and those that rules speak of. One that was kept before kinds
 * charged anything charges nothing.
 * @example workKinds([]).map(({ code }) => code) // ['repair', 'service', 'installation', 'quote_visit']
 */
export const workKinds = (own: readonly KeptKind[]): WorkKind[] => [
  ...own.map((kind) => ({ charges: [], ...kind })),
  ...USUAL_KINDS.filter(({ code }) => !own.some((kind) => kind.code === code)),
]
interface LeftOut {
  entryId: string
  reason: string
}
/**
 * What work of a kind usually charges, and is neither among what was read out nor left out with a reason.
 * @param charges what the kind charges; entries of the price book
 * @param read what was read out
 * @param leftOut what is not charged, each with its reason; an empty one is none
 * @example missingCharges(['a', 'b', 'c'], ['a'], [{ entryId: 'b', reason: 'promised' }]) // ['c']
 */
export const missingCharges = (
  charges: readonly string[],
  read: readonly string[],
  leftOut: readonly LeftOut[],
): string[] =>
  charges.filter(
    (id) => !read.includes(id) && !leftOut.some((one) => one.entryId === id && one.reason.trim()),
  )

/** Why somebody comes a second time without charge. */
export const FREE_KINDS = ['call_back', 'warranty'] as const
export type FreeKind = (typeof FREE_KINDS)[number]
const FREE_WORDS: Readonly<Record<FreeKind, string>> = {
  call_back: 'call-back',
  warranty: 'warranty',
}
/** Whether work of this kind is done without charge. @example isFreeKind('warranty') // true */
export const isFreeKind = (kind: string): kind is FreeKind =>
  (FREE_KINDS as readonly string[]).includes(kind)
/**
 * A kind of work in the firm's words; one that is not known is said as it is.
 * @example sayWorkKind('call_back') // 'call-back'
 */
export const sayWorkKind = (kind: string, kinds: readonly WorkKind[] = []): string =>
  isFreeKind(kind) ? FREE_WORDS[kind] : (kinds.find(({ code }) => code === kind)?.name ?? kind)
