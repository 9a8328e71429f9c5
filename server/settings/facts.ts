// What happens to the firm's settings, and how the history says it.
import type { BilledTime } from '../../core/hours/billedTime'
import { PHRASE_LISTS, type PhraseListName } from '../../core/settings/phrases'
import { facts, type Change } from '../http/facts'

const FIRM_PARTS: Readonly<Record<string, string>> = {
  ...{ name: 'the name', line1: 'the address', town: 'the town', postcode: 'the postcode' },
  ...{ phone: 'the telephone', email: 'the mail address', taxNumber: 'the tax number' },
  ...{ legalName: 'the legal name', registration: 'the registration', logoId: 'the logo' },
  ...{ payee: 'the payee', bank: 'the bank', iban: 'the IBAN', bic: 'the BIC' },
  chequeName: 'whom cheques name',
  ...{ terms: 'the terms', payTo: 'how we are paid', conditions: 'the conditions' },
  quoteDays: 'how long a quote holds',
  ...{
    locale: 'how days are written',
    timeZone: 'the time zone',
    taxMode: 'how prices stand to tax',
  },
}
const SERVICE_NAMES: Readonly<Record<string, string>> = {
  ...{ mail: 'mail', text: 'texts', card: 'cards', supplier: 'suppliers', positions: 'positions' },
}
const MAIL_NAMES: Readonly<Record<string, string>> = {
  ...{
    bill: 'mails with a new invoice',
    invoice: 'mails with an invoice',
    quote: 'mails with a quote',
  },
  ...{ reminder1: 'first reminders', reminder2: 'second reminders' },
}
/** Which of several; at first neither that nor what it was before was kept. */
interface Told {
  id?: string
  changes?: Record<string, Change>
}
export const settingFacts = facts('settings', {
  questionAsked: (f: Told & { text: string }) => `Question “${f.text}” is asked`,
  questionRetired: (f: Told & { text: string }) => `Question “${f.text}” is not asked any more`,
  fieldKept: (f: Told & { name: string; of: string }) => `Field “${f.name}” of ${f.of}s kept`,
  fieldRetired: (f: Told & { name: string; of: string }) => `Field “${f.name}” of ${f.of}s retired`,
  taxesKept: (f: { id?: string; name: string; changes: Record<string, Change> }) =>
    `Taxes of “${f.name}” kept`,
  layoutKept: (f: { id: string; kind: string; name: string; changes: Record<string, Change> }) =>
    `How “${f.name}” looks and what it says was kept`,
  mailWordsKept: (f: { kind: string; changes: Record<string, Change> }) =>
    `What is written in ${MAIL_NAMES[f.kind] ?? f.kind} was changed`,
  connectionKept: (f: { kind: string; changes: Record<string, Change>; newSecret: boolean }) =>
    `Connection for ${SERVICE_NAMES[f.kind] ?? f.kind} kept${f.newSecret ? ', with a new secret' : ''}`,
  levelKept: (f: { id?: string; name: string; changes: Record<string, Change> }) =>
    `Price level ${f.name} kept`,
  planKept: (f: { id?: string; name: string; changes: Record<string, Change> }) =>
    `Care plan ${f.name} kept`,
  numbersKept: (f: { kind: string; changes: Record<string, Change> }) =>
    `The numbers of ${f.kind.replace('_', ' ')}s go on otherwise`,
  begun: (f: { firm: string }) => `${f.firm} begins here`,
  firmChanged: (f: { parts: readonly string[]; changes: Record<string, Change> }) =>
    `What our papers say was changed: ${f.parts.map((part) => FIRM_PARTS[part] ?? part).join(', ')}`,
  billedTimeSaid: (f: { time: { from: BilledTime; to: BilledTime } }) =>
    `Time that is charged: ${f.time.to.way === 'up' ? 'up to' : 'to the nearest'} ${f.time.to.stepMinutes} minutes, ${f.time.to.leastMinutes} at least`,
  warrantySaid: (f: { months: Change }) =>
    `Warranty on what we supply: ${String(f.months.to)} months`,
  clockSet: () => 'The demo’s clock was set to now',
  limitsChanged: (_: { limits: Change; given?: Change }) =>
    'What each role may do, and how far alone, was changed',
  rolesChanged: (f: { name: string; gone: boolean; rights: Change }) =>
    f.gone ? `Role “${f.name}” was taken away` : `Role “${f.name}” kept`,
  stateWordsChanged: (_: { words?: Change }) => 'Words for the states of work changed',
  workKindsChanged: (_: { kinds: Change }) => 'Kinds of work were changed',
  phrasesKept: (f: { list: PhraseListName; phrases: Change }) =>
    `What is often written was changed: ${PHRASE_LISTS[f.list].words}`,
  sourcesChanged: (_: { sources: Change }) => 'How callers hear of us was changed',
})
