// What happens to the firm's settings, and how the history says it.
import { facts, type Change } from '../http/facts'

export const settingFacts = facts('settings', {
  questionAsked: (f: { text: string }) => `Question “${f.text}” is asked`,
  questionRetired: (f: { text: string }) => `Question “${f.text}” is not asked any more`,
  fieldKept: (f: { name: string; of: string }) => `Field “${f.name}” of ${f.of}s kept`,
  fieldRetired: (f: { name: string; of: string }) => `Field “${f.name}” of ${f.of}s retired`,
  warrantySaid: (f: { months: Change }) =>
    `Warranty on what we supply: ${String(f.months.to)} months`,
  clockSet: () => 'The demo’s clock was set to now',
  limitsChanged: (_: { limits: Change; given?: Change }) =>
    'What each role may do, and how far alone, was changed',
  stateWordsChanged: () => 'Words for the states of work changed',
})
