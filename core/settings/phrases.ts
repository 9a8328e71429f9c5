/** What is written in one place of the app, over and over. */
interface PhraseList {
  /** what is written there */
  words: string
  /** what is proposed until the firm says otherwise; common practice, in our own words */
  usual: readonly string[]
}
/** Where phrases are proposed. */
export const PHRASE_LISTS = {
  findings: {
    words: 'What was found and done',
    usual: ['Worn, replaced', 'Cleaned and tested', 'Runs as it should'],
  },
  tags: {
    words: 'Tags of customers',
    usual: ['Landlord', 'Property manager', 'Key with us', 'Pays at the door'],
  },
  parked: { words: 'Lists to park work in', usual: ['Waits for a part', 'Ask again in spring'] },
  call_declined: {
    words: 'Why a call is not booked',
    usual: ['Too far away', 'Not what we do', 'Too dear for them', 'No time soon enough'],
  },
  cancelled: {
    words: 'Why work will not be',
    usual: ['Mended by themselves', 'Somebody else was sooner', 'Moved away', 'Booked twice'],
  },
  quote_declined: {
    words: 'Why a quote was not taken',
    usual: ['Too dear', 'Somebody else does it', 'Later, perhaps', 'Not needed any more'],
  },
  taken_off: {
    words: 'Why something costs less',
    usual: ['Came late', 'Came back for the same', 'Good customer'],
  },
  usual_charge: {
    words: 'Why a usual charge is left out',
    usual: ['Within their agreement', 'On the way anyway', 'Promised on the telephone'],
  },
  left_out: {
    words: 'Why minutes are not charged',
    usual: ['Waited for the customer', 'Our own mistake', 'Talked about other work'],
  },
  beyond: {
    words: 'Why more is billed than was agreed',
    usual: ['Agreed by telephone', 'Said yes on site'],
  },
  not_done: {
    words: 'Why promised work is not done',
    usual: ['Not needed after all', 'Customer did not want it'],
  },
  no_bill: {
    words: 'Why work closes without a bill',
    usual: ['Within our warranty', 'Goodwill', 'Nothing was done'],
  },
  taken_back: {
    words: 'Why a payment is taken back',
    usual: ['Written to the wrong customer', 'Not covered by the bank'],
  },
  mended: {
    words: 'Why clocked time is corrected',
    usual: ['Forgot to press', 'Pressed too late', 'Telephone was flat'],
  },
} as const satisfies Readonly<Record<string, PhraseList>>
export type PhraseListName = keyof typeof PHRASE_LISTS
export const PHRASE_LIST_NAMES = Object.keys(PHRASE_LISTS) as PhraseListName[]
/** What a firm says instead of what is usual. */
export type Phrases = Readonly<Partial<Record<PhraseListName, readonly string[]>>>

/**
 * What is proposed in one place: what the firm says, even if that is nothing; else what is usual.
 * @example phrasesOf('beyond', {}) // ['Agreed by telephone', 'Said yes on site']
 * @example phrasesOf('beyond', { beyond: [] }) // []
 */
export const phrasesOf = (name: PhraseListName, own: Phrases): readonly string[] =>
  own[name] ?? PHRASE_LISTS[name].usual
/** All places with what is proposed there. @example phraseLists({})[0]!.name // 'findings' */
export const phraseLists = (own: Phrases): { name: PhraseListName; phrases: string[] }[] =>
  PHRASE_LIST_NAMES.map((name) => ({ name, phrases: [...phrasesOf(name, own)] }))
/**
 * Phrases as they are typed, one in a line: without empty ones, each once.
 * @example readPhrases(' Too dear \n\ntoo dear\nLater') // ['Too dear', 'Later']
 */
export function readPhrases(text: string): string[] {
  const lines = text.split('\n').map((line) => line.trim().replace(/\s+/gu, ' '))
  const same = (one: string) => one.toLowerCase()
  return lines.filter(
    (line, i) => line && lines.findIndex((other) => same(other) === same(line)) === i,
  )
}
/**
 * A text with a phrase in it: as a further sentence, so that nothing that was typed is lost; instead of another phrase
 * where one of them is enough.
 * @example withPhrase('Pump is loud', 'Cleaned and tested') // 'Pump is loud. Cleaned and tested'
 * @example withPhrase('Too dear', 'Later', ['Too dear', 'Later']) // 'Later'
 */
export function withPhrase(text: string, phrase: string, instead: readonly string[] = []): string {
  const before = text.trimEnd()
  if (!before || instead.includes(before.trimStart())) return phrase
  return `${before}${/[.!?:;,…]$/u.test(before) ? '' : '.'} ${phrase}`
}
const wordsIn = (list: string): string[] =>
  list
    .split(',')
    .map((one) => one.trim())
    .filter(Boolean)
const isSame = (one: string, other: string) => one.toLowerCase() === other.toLowerCase()
/** Whether a word is in a list with commas between. @example hasWord('landlord, Key with us', 'Landlord') // true */
export const hasWord = (list: string, word: string): boolean =>
  wordsIn(list).some((one) => isSame(one, word))
/**
 * A list with commas between, with a word in it, each once; without it where it was in it already.
 * @example withWord('Key with us', 'Landlord') // 'Key with us, Landlord'
 * @example withWord('landlord, Key with us', 'Landlord') // 'Key with us'
 */
export function withWord(list: string, word: string): string {
  const others = wordsIn(list).filter((one) => !isSame(one, word))
  return [...others, ...(hasWord(list, word) ? [] : [word])].join(', ')
}
