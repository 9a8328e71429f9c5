// The firm itself: how it begins, what it still lacks, who it is, how it is taxed.
import { TAXED_AS } from '../core/pricebook/usualTaxClass'
import { STEP_CODES, TASKS } from '../core/settings/firstSteps'
import { NUMBER_KINDS } from '../core/documents/numberSeries'
import { TAX_MODES } from '../core/tax/taxTotals'
import { me } from './access'
import { terms } from './customers/shapes'
import {
  date,
  dayOrNone,
  definedText,
  earlier,
  flag,
  history,
  id,
  int,
  list,
  mail,
  obj,
  ok,
  oneOf,
  requiredText,
  route,
  text,
  version,
} from './schema'

const firm = obj({
  version: int().required(),
  name: definedText(),
  line1: definedText(),
  town: definedText(),
  postcode: definedText(),
  phone: definedText(),
  email: definedText(),
  taxNumber: definedText(),
  legalName: definedText(),
  registration: definedText(),
  payee: definedText(),
  bank: definedText(),
  iban: definedText(42),
  bic: definedText(20),
  chequeName: definedText(),
  logoId: id().nullable().defined(),
  terms: terms().required(),
  payTo: definedText(1000),
  conditions: definedText(2000),
  /** how long the price of a quote is held where nobody says otherwise */
  quoteDays: int().required(),
  locale: definedText(),
  timeZone: definedText(),
  taxMode: oneOf(TAX_MODES).required(),
  currency: definedText(),
  /** those of its country */
  timeZones: list(definedText()),
})
const beginSchema = obj({
  code: requiredText('Write the code that was printed when the server started.', 40),
  firm: requiredText('Write the name of the firm.', 120),
  name: requiredText('Write your name.', 120),
  email: mail().required('Write your mail address.'),
  password: requiredText('Choose a password.', 200),
  /** the owner goes to customers, too */
  alsoGoes: flag().default(false),
  country: text(2).required('Choose the country.'),
  locale: requiredText('Choose how days and figures are written.', 16),
  timeZone: requiredText('Choose the time zone.', 64),
  taxMode: oneOf(TAX_MODES).required(),
  taxName: text(40).default(''),
  /** per cent */
  taxRate: text(9)
    .matches(/^(\d{1,2}(\.\d{1,4})?)?$/, 'Write the rate in per cent, for example 7.5.')
    .default(''),
  /** a rate that is seldom: somebody looked at it again */
  sure: flag().default(false),
})
const rateName = () => requiredText('Say what this rate is called.', 40)
/** When and where a rate of tax holds; where nothing is said, always and everywhere. */
const whenAndWhere = {
  /** the first day on which it holds */
  from: dayOrNone(),
  /** the last one */
  until: dayOrNone(),
  /** what the postcodes begin with where it is charged, with commas between */
  postcodes: text(200).default(''),
}
const taxClasses = obj({
  mode: oneOf(TAX_MODES).required(),
  classes: list(
    obj({
      id: definedText(20),
      name: definedText(),
      usualFor: oneOf(TAXED_AS).nullable().default(null),
      /** per cent */
      rates: list(obj({ name: definedText(), percent: definedText(), ...whenAndWhere })),
    }),
  ),
})
const numbers = obj({
  items: list(
    obj({
      kind: oneOf(NUMBER_KINDS).required(),
      prefix: text(16).defined(),
      width: int(1, 9).required(),
      yearly: flag().required(),
      next: int(1).required(),
      /** the next as it is said */
      example: definedText(),
      version: int().required(),
    }),
  ),
})
const settingsHistory = obj({
  items: history(),
  /** the entries whose change can be put back */
  undoable: list(int().required()),
})
export const firmRoutes = {
  beginning: route({
    method: 'GET',
    path: '/begin',
    who: 'public',
    summary: 'Whether a firm waits here for its first owner, and what each country proposes',
    answer: obj({
      waits: flag().required(),
      /** everything is here, from an archive: only its owner is missing */
      takenIn: flag().required(),
      countries: list(
        obj({
          code: definedText(),
          name: definedText(),
          currency: definedText(),
          locale: definedText(),
          timeZones: list(definedText()),
          taxMode: oneOf(TAX_MODES).required(),
          taxName: definedText(),
        }),
      ),
    }),
  }),
  begin: route({
    method: 'POST',
    path: '/begin',
    who: 'public',
    session: 'opens',
    secret: true,
    summary: 'A firm begins, with its first owner, by the code that was printed',
    body: beginSchema,
    answer: me,
  }),
  guide: route({
    method: 'GET',
    path: '/guide',
    may: 'settings.see',
    summary: 'What a firm that sets itself up has done, and what is missing for what',
    answer: obj({
      steps: list(
        obj({
          code: oneOf(STEP_CODES).required(),
          done: flag().required(),
          unlocks: list(oneOf(TASKS).required()),
        }),
      ),
      tasks: list(
        obj({ task: oneOf(TASKS).required(), missing: list(oneOf(STEP_CODES).required()) }),
      ),
    }),
  }),
  tryMail: route({
    method: 'POST',
    path: '/set-up/try-mail',
    may: 'settings.change',
    summary: 'A mail to whoever asks, to see that ours arrive',
    answer: ok,
  }),
  taxClasses: route({
    method: 'GET',
    path: '/set-up/taxes',
    may: 'settings.see',
    summary: 'The classes that what is sold is taxed by, with their rates',
    answer: taxClasses,
  }),
  keepTaxClass: route({
    method: 'POST',
    path: '/set-up/taxes',
    may: 'settings.change',
    summary: 'Make a class of taxes, or change its rates for what is billed from now on',
    body: obj({
      /** of a class that is there already */
      id: text(20).default(''),
      name: requiredText('Say what is taxed so.', 60),
      rates: list(
        obj({
          name: rateName(),
          percent: text(9)
            .matches(/^\d{1,2}(\.\d{1,4})?$/, 'Write the rate in per cent, for example 7.5.')
            .required('Write the rate.'),
          ...whenAndWhere,
          from: date().default(''),
          until: date().default(''),
        }),
      ).max(12, 'Twelve rates in a class are the most.'),
      /** what stood there when it was changed */
      shown: obj({
        name: definedText(60),
        rates: list(obj({ name: definedText(40), percent: definedText(20), ...whenAndWhere })),
      })
        .nullable()
        .default(null),
      /** a rate that is seldom: somebody looked at it again */
      sure: flag().default(false),
    }),
    answer: taxClasses,
  }),
  numbers: route({
    method: 'GET',
    path: '/set-up/numbers',
    may: 'settings.see',
    summary: 'The series of numbers that people say, each with its next',
    answer: numbers,
  }),
  keepNumbers: route({
    method: 'POST',
    path: '/set-up/numbers',
    may: 'settings.change',
    summary:
      'A series goes on otherwise, as where another program stopped; no number is given twice',
    body: obj({
      kind: oneOf(NUMBER_KINDS).required(),
      version: version(),
      prefix: text(16).default(''),
      width: int(1, 9).required('Say how many figures.'),
      yearly: flag().default(false),
      next: int(1, 99_999_999).required('Write the number that comes next.'),
    }),
    answer: numbers,
  }),
  firm: route({
    method: 'GET',
    path: '/set-up/firm',
    may: 'settings.see',
    summary: 'Who the firm is: what stands on its papers',
    answer: firm,
  }),
  settingsHistory: route({
    method: 'GET',
    path: '/set-up/history',
    may: 'settings.see',
    summary: 'What was set up, by whom, from what to what, and what of it can be put back',
    query: earlier.query,
    answer: settingsHistory,
  }),
  undoSetting: route({
    method: 'POST',
    path: '/set-up/history/{entry}/undo',
    may: 'settings.change',
    summary: 'Puts back what an entry of the history changed, where nobody changed it since',
    answer: settingsHistory,
  }),
  keepLogo: route({
    method: 'POST',
    path: '/set-up/firm/logo',
    may: 'settings.change',
    summary: 'Gives papers a picture above the name (JPEG, PNG or WebP, 5 MB at most), or none',
    maxBytes: 7_000_000,
    body: obj({ version: version(), data: text(6_900_000).default('') }),
    answer: firm,
  }),
  logo: route({
    method: 'GET',
    path: '/logos/{id}',
    who: 'public',
    summary: 'A picture above the name, as papers and the pages of customers show it',
    mime: 'image/*',
  }),
  changeFirm: route({
    method: 'PATCH',
    path: '/set-up/firm',
    may: 'settings.change',
    summary: 'Change what stands on papers from now on; what is not named stays',
    body: obj({
      version: version(),
      name: text(120).min(1, 'Write the name of the firm.'),
      line1: text(160),
      town: text(80),
      postcode: text(16),
      phone: text(32),
      email: mail(),
      taxNumber: text(40),
      legalName: text(160),
      registration: text(160),
      payee: text(120),
      bank: text(120),
      iban: text(42),
      bic: text(20),
      chequeName: text(120),
      terms: terms().optional().default(undefined),
      payTo: text(1000),
      conditions: text(2000),
      quoteDays: int(1, 365),
      locale: text(16).min(1, 'Choose how days and figures are written.'),
      timeZone: text(64).min(1, 'Choose the time zone.'),
      taxMode: oneOf(TAX_MODES),
    }),
    answer: firm,
  }),
}
