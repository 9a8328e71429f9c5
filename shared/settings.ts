// What the firm sets up for calls: its standing questions, its own fields, where callers come from.
import { GRANTABLE_NAMES } from '../core/access/grantable'
import { ROLES } from '../core/access/permissions'
import { TAXED_AS } from '../core/pricebook/usualTaxClass'
import { STEP_CODES, TASKS } from '../core/settings/firstSteps'
import { TAX_MODES } from '../core/tax/taxTotals'
import { WORK_ORDER_STATES } from '../core/visits/workOrderState'
import { me } from './access'
import { terms } from './customers/shapes'
import {
  flag,
  id,
  int,
  list,
  mail,
  requiredText,
  obj,
  oneOf,
  ok,
  route,
  text,
  version,
  definedText,
} from './schema'

export const FIELD_SUBJECTS = ['customer', 'site', 'work_order', 'invoice'] as const
export const FIELD_KINDS = ['text', 'number', 'date', 'choice', 'yes_no'] as const
export const QUESTION_KINDS = ['yes_no', 'text', 'choice'] as const
const choices = () =>
  list(text(60).min(1, 'A choice without a word.').defined()).max(30, 'Not more than 30 choices.')
const question = obj({
  id: id().required(),
  text: definedText(),
  kind: oneOf(QUESTION_KINDS).required(),
  choices: list(definedText()),
  retired: flag().required(),
})
const field = obj({
  id: id().required(),
  subject: oneOf(FIELD_SUBJECTS).required(),
  name: definedText(),
  kind: oneOf(FIELD_KINDS).required(),
  choices: list(definedText()),
  retired: flag().required(),
})
const limits = obj({
  roles: list(
    obj({
      role: oneOf(ROLES).required(),
      lowerPercent: int(0, 100).required('Write a whole number of per cent, up to 100.'),
      belowCost: flag().required(),
      mendsTime: flag().required(),
    }),
  ).max(ROLES.length),
  /** to which roles each act is given that the owner may give; an owner always may */
  given: list(
    obj({
      permission: oneOf(GRANTABLE_NAMES).required(),
      roles: list(oneOf(ROLES).required()).max(ROLES.length),
    }),
  ).max(GRANTABLE_NAMES.length),
})
const firm = obj({
  version: int().required(),
  name: definedText(),
  line1: definedText(),
  town: definedText(),
  postcode: definedText(),
  phone: definedText(),
  email: definedText(),
  taxNumber: definedText(),
  terms: terms().required(),
  payTo: definedText(1000),
  conditions: definedText(2000),
  locale: definedText(),
  timeZone: definedText(),
  taxMode: oneOf(TAX_MODES).required(),
  currency: definedText(),
  /** those of its country */
  timeZones: list(definedText()),
})
export const beginSchema = obj({
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
const taxClasses = obj({
  mode: oneOf(TAX_MODES).required(),
  classes: list(
    obj({
      id: definedText(20),
      name: definedText(),
      usualFor: oneOf(TAXED_AS).nullable().default(null),
      /** per cent */
      rates: list(obj({ name: definedText(), percent: definedText() })),
    }),
  ),
})
export const settingRoutes = {
  beginning: route({
    method: 'GET',
    path: '/begin',
    who: 'public',
    summary: 'Whether a firm waits here for its first owner, and what each country proposes',
    answer: obj({
      waits: flag().required(),
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
  setUp: route({
    method: 'GET',
    path: '/set-up',
    may: 'settings.see',
    summary: 'What calls and customers are set up with',
    answer: obj({
      country: definedText(),
      sources: list(definedText()),
      warrantyMonths: int().required(),
      questions: list(question),
      fields: list(field),
      territories: list(
        obj({ id: id().required(), name: definedText(), postcodes: list(definedText()) }),
      ),
      levels: list(obj({ id: id().required(), name: definedText() })),
      people: list(
        obj({
          id: id().required(),
          name: definedText(),
          role: definedText(),
          bookable: flag().required(),
          skills: list(definedText()),
        }),
      ),
    }),
  }),
  keepQuestion: route({
    method: 'POST',
    path: '/set-up/questions',
    may: 'settings.change',
    summary: 'Add, change or retire a standing question',
    body: obj({
      id: id().required(),
      text: requiredText('Write the question.', 160),
      kind: oneOf(QUESTION_KINDS).required('Say how it is answered.'),
      choices: choices().default([]),
      position: int(0, 999).default(0),
      retired: flag().default(false),
    }),
    answer: ok,
  }),
  keepField: route({
    method: 'POST',
    path: '/set-up/fields',
    may: 'settings.change',
    summary: 'Add, change or retire a field of the firm’s own',
    body: obj({
      id: id().required(),
      subject: oneOf(FIELD_SUBJECTS).required('Say where it belongs.'),
      name: requiredText('Name the field.', 60),
      kind: oneOf(FIELD_KINDS).required('Say what it holds.'),
      choices: choices().default([]),
      position: int(0, 999).default(0),
      retired: flag().default(false),
    }),
    answer: ok,
  }),
  demoClockToNow: route({
    method: 'POST',
    path: '/demo/clock',
    may: 'settings.change',
    summary: 'Set the demo’s own clock to the time of day',
    answer: ok,
  }),
  keepSources: route({
    method: 'POST',
    path: '/set-up/sources',
    may: 'settings.change',
    summary: 'One more way in which callers hear of the firm, or one less',
    body: obj({ add: text(60).default(''), takeOut: text(60).default('') }),
    answer: ok,
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
        }),
      ).max(6, 'Six rates on one line are the most.'),
      /** a rate that is seldom: somebody looked at it again */
      sure: flag().default(false),
    }),
    answer: taxClasses,
  }),
  firm: route({
    method: 'GET',
    path: '/set-up/firm',
    may: 'settings.see',
    summary: 'Who the firm is: what stands on its papers',
    answer: firm,
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
      terms: terms().optional().default(undefined),
      payTo: text(1000),
      conditions: text(2000),
      locale: text(16).min(1, 'Choose how days and figures are written.'),
      timeZone: text(64).min(1, 'Choose the time zone.'),
      taxMode: oneOf(TAX_MODES),
    }),
    answer: firm,
  }),
  keepWarranty: route({
    method: 'POST',
    path: '/set-up/warranty',
    may: 'settings.change',
    summary: 'How long the firm stands for what it supplied',
    body: obj({ months: int(0, 120).required('Write a whole number of months, up to 120.') }),
    answer: ok,
  }),
  limits: route({
    method: 'GET',
    path: '/set-up/limits',
    may: 'settings.see',
    summary: 'What each role may do, and how far it may go alone',
    answer: limits,
  }),
  keepLimits: route({
    method: 'POST',
    path: '/set-up/limits',
    may: 'limits.change',
    summary: 'Change what roles may do, and how far alone; what is not named stays',
    body: limits,
    answer: limits,
  }),
  keepStateLabels: route({
    method: 'POST',
    path: '/set-up/states',
    may: 'settings.change',
    summary: 'The firm’s own words for some states of work; the others stay',
    body: obj({
      labels: list(
        obj({ state: oneOf(WORK_ORDER_STATES).required(), label: text(30).default('') }),
      ).max(20),
    }),
    answer: ok,
  }),
  fillField: route({
    method: 'POST',
    path: '/custom-values',
    may: 'settings.fields',
    summary: 'Fill a field of the firm’s own on a work order or invoice',
    body: obj({
      fieldId: id().required(),
      subjectId: id().required(),
      value: text(400).default(''),
    }),
    answer: ok,
  }),
}
