// Where each thing is set up, and the words by which somebody looks for it.
import type { Permission } from '~~/core/access/permissions'

export interface SetUpPlace {
  title: string
  /** what else it is called */
  words: string
  to: string
  may: Permission
}
const place = (
  title: string,
  to: string,
  words: string,
  may: Permission = 'settings.see',
): SetUpPlace => ({ title, words, to, may })
export const SET_UP_PLACES: readonly SetUpPlace[] = [
  place(
    'What our papers say',
    '/set-up#firm',
    'firm name address telephone mail logo bank iban how we are paid payment terms due days conditions tax number registration language locale date format time zone currency',
  ),
  place(
    'What our papers look like',
    '/papers',
    'layout template wording estimate quote invoice title colour columns language terms conditions print',
    'settings.change',
  ),
  place(
    'What we write with papers, and in reminders',
    '/set-up#mails',
    'mail email wording text reminder template message chase dunning',
  ),
  place('Taxes', '/set-up#taxes', 'tax vat sales tax rate per cent class exempt'),
  place('Numbers', '/set-up#numbers', 'invoice number series prefix next year quote receipt'),
  place('Questions asked of every caller', '/set-up#questions', 'call question intake'),
  place(
    'Time that is charged',
    '/set-up#time',
    'rounding minutes hours quarter tenth billing minimum labour',
  ),
  place(
    'Often written',
    '/set-up#often',
    'reasons cancel decline discount phrases findings lists follow-up parked templates wording',
  ),
  place(
    'Kinds of work',
    '/set-up#kinds',
    'job type category how long minutes skills repair service installation',
  ),
  place('How callers hear of us', '/set-up#sources', 'source advertising marketing'),
  place('Our warranty', '/set-up#warranty', 'guarantee months free of charge'),
  place(
    'How far each may go alone',
    '/set-up#rights',
    'discount limit permission role approve below cost rights',
  ),
  place('Price levels', '/set-up#levels', 'discount trade landlord member rate percent less'),
  place(
    'Care plans',
    '/set-up#plans',
    'agreement maintenance contract membership service plan visits year',
  ),
  place('Fields of our own', '/set-up#fields', 'custom field extra column'),
  place('Our words for the states of work', '/set-up#words', 'status label name state'),
  place('What was changed here', '/set-up#history', 'history undo who changed settings trail'),
  place('The request form', '/set-up#form', 'web site form embed iframe online booking'),
  place('Who works here', '/people', 'user colleague employee technician invite role skill'),
  place('What each may do', '/set-up#rights', 'permission right role access'),
  place('A second step when signing in', '/people#second-step', 'two factor totp security code'),
  place(
    'Working hours, breaks, time off',
    '/schedule/set-up',
    'hours week shift holiday vacation closed',
    'dispatch.plan',
  ),
  place('Territories', '/schedule/set-up', 'area postcode zone region', 'dispatch.plan'),
  place(
    'What customers are told by itself',
    '/schedule/set-up',
    'reminder confirmation text message wording',
    'dispatch.plan',
  ),
  place(
    'Rules of prices',
    '/price-book/rules',
    'markup margin labour rate rounding overtime',
    'pricebook.see',
  ),
  place(
    'My password, tokens, where I am signed in',
    '/me',
    'password two factor session token api',
    'access.own',
  ),
  place(
    'Everything in and out',
    '/in-and-out',
    'export import backup archive csv download data',
    'figures.export',
  ),
  place(
    'Connections',
    '/connections',
    'mail smtp server sms text card payment gateway supplier gps tracking api integration outside service',
    'connections.change',
  ),
  place(
    'From our books before',
    '/brought-forward',
    'opening balance migrate switch old program',
    'ledger.bring',
  ),
]
/** The places that somebody may mean by these words: each of them begins a word of the place. */
export function placesFor(words: string): SetUpPlace[] {
  const asked = words.toLowerCase().split(/\s+/).filter(Boolean)
  if (!asked.length) return []
  return SET_UP_PLACES.filter(({ title, words: others }) => {
    const there = `${title} ${others}`.toLowerCase().split(/[\s,]+/)
    return asked.every((word) => there.some((known) => known.startsWith(word)))
  })
}
