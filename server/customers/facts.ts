// What happens to customers and what is theirs, and how the history says it.
import { facts, type Change } from '../http/facts'

type Named = { name: string }
type Changed = { change: Change }
/** What of a customer is called otherwise than its field. */
const SAID: Readonly<Record<string, string>> = {
  officeNote: 'the office note',
  printedNote: 'the printed note',
  ownPrices: 'own prices',
  stopWork: 'stop work',
  mailConsent: 'consent to mail',
  textConsent: 'consent to texts',
  levelId: 'the price level',
  exempt: 'the tax exemption',
  exemptUntil: 'the end of the exemption',
  creditLimit: 'the credit limit',
  assignedTo: 'who has it',
  phone2: 'the second number',
  email2: 'the second mail address',
  line1: 'the address',
}
/** What became of a contact or a thing of theirs. */
export type Came = 'taken out' | 'is back' | 'changed'

export const customerFacts = facts('customer', {
  postcodesTaken: (f: { postcodes: number }) =>
    `A table of postcodes was taken in: ${f.postcodes} have a place`,
  postcodesForgotten: () => 'The table of postcodes was taken away',
  entered: (f: Named & { prospect: boolean; source: string }) =>
    `${f.prospect ? 'Prospect' : 'Customer'} ${f.name} entered${f.source ? ` (${f.source})` : ''}`,
  changed: (f: { changes: Record<string, Change> }) => {
    const parts = Object.keys(f.changes).map((part) => SAID[part] ?? part)
    return `Changed ${parts.join(', ') || 'nothing'}`
  },
  siteAdded: (f: Named) => `Site ${f.name} added`,
  siteChanged: (f: Named & Changed) => `Site ${f.name} changed`,
  contactAdded: (f: Named & { role: string }) =>
    `Contact ${f.name} added${f.role ? ` (${f.role})` : ''}`,
  contactChanged: (f: Named & Changed & { came: Came }) => `Contact ${f.name} ${f.came}`,
  equipmentAdded: (f: Named) => `Equipment ${f.name} added`,
  equipmentChanged: (f: Named & Changed & { came: Came }) => `Equipment ${f.name} ${f.came}`,
  fileAdded: (f: Named) => `File ${f.name} added`,
  toldApart: (f: Named) => `Is not the same as ${f.name}`,
  merged: (f: Named & { otherId: string; moved: Record<string, number> }) =>
    `${f.name} merged into this customer`,
  mergedInto: (f: Named) => `Merged into ${f.name}`,
  mergeUndone: (f: Named & { into: string }) =>
    `The merge of ${f.name} into ${f.into} was taken apart`,
  texted: (f: { words: string }) => `Texted: ${f.words}`,
  textsStopped: () => 'Texted STOP: no more texts',
  handedOut: () => 'All data of this customer handed out',
  erased: () =>
    'Taken out because the person asked for it; invoices and receipts stay as they were sent',
})
export const importFacts = facts('import', {
  taken: (f: { file: string; added: number; more: number }) =>
    `${f.added} customers taken in from ${f.file}${f.more ? `, ${f.more} sites and contacts added to known ones` : ''}`,
  takenBack: (f: { file: string; removed: number; stay: number }) =>
    `Import ${f.file} taken back: ${f.removed} customers taken out, ${f.stay} stay`,
})
