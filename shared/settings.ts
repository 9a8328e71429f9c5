// What the firm sets up for calls: its standing questions, its own fields, where callers come from.
import { TIME_STEPS, TIME_WAYS } from '../core/hours/billedTime'
import { phraseFields, phraseList } from './phrases'
import { kindFields, workKindList } from './workKinds'
import { WORK_ORDER_STATES } from '../core/visits/workOrderState'
import { firmRoutes } from './firm'
import { layoutRoutes } from './layouts'
import { roleRoutes } from './roles'
import {
  flag,
  id,
  int,
  list,
  requiredText,
  obj,
  oneOf,
  ok,
  route,
  text,
  definedText,
} from './schema'

export const FIELD_SUBJECTS = ['customer', 'site', 'work_order', 'invoice'] as const
export const FIELD_KINDS = ['text', 'number', 'date', 'choice', 'yes_no'] as const
export const QUESTION_KINDS = ['yes_no', 'text', 'choice'] as const
const choices = () =>
  list(text(60).min(1, 'A choice without a word.').defined()).max(30, 'Not more than 30 choices.')
const asked = {
  text: definedText(),
  kind: oneOf(QUESTION_KINDS).required(),
  choices: list(definedText()),
  retired: flag().required(),
}
const question = obj({ id: id().required(), ...asked })
const own = {
  subject: oneOf(FIELD_SUBJECTS).required(),
  name: definedText(),
  kind: oneOf(FIELD_KINDS).required(),
  choices: list(definedText()),
  retired: flag().required(),
}
const field = obj({ id: id().required(), ...own })
const billedTime = {
  way: oneOf(TIME_WAYS).required('Say how it is rounded.'),
  stepMinutes: int(1, 60).oneOf(TIME_STEPS, 'Choose a step.').required('Choose a step.'),
  leastMinutes: int(0, 480).required('Write a whole number of minutes, up to 480.'),
}
export const settingRoutes = {
  ...firmRoutes,
  ...layoutRoutes,
  ...roleRoutes,
  setUp: route({
    method: 'GET',
    path: '/set-up',
    may: 'settings.see',
    summary: 'What calls and customers are set up with',
    answer: obj({
      country: definedText(),
      sources: list(definedText()),
      warrantyMonths: int().required(),
      billedTime: obj(billedTime),
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
      retired: flag().default(false),
      /** as it stood when its form was opened; nothing where it is new */
      shown: obj(asked).nullable().default(null),
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
      retired: flag().default(false),
      /** as it stood when its form was opened; nothing where it is new */
      shown: obj(own).nullable().default(null),
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
  workKinds: route({
    method: 'GET',
    path: '/set-up/work-kinds',
    may: 'settings.see',
    summary: 'The kinds of work that the firm does',
    answer: workKindList,
  }),
  keepWorkKind: route({
    method: 'POST',
    path: '/set-up/work-kinds',
    may: 'settings.change',
    summary: 'One more kind of work, or one otherwise',
    body: obj({
      /** of one that is there already */
      code: text(40).default(''),
      ...kindFields,
      name: requiredText('Say what it is called.', 40),
      /** as it was read */
      shown: obj(kindFields).nullable().default(null),
    }),
    answer: workKindList,
  }),
  phrases: route({
    method: 'GET',
    path: '/set-up/phrases',
    may: 'settings.see',
    summary: 'What the firm writes often, by where it is proposed',
    answer: obj({ items: list(phraseList) }),
  }),
  keepPhrases: route({
    method: 'POST',
    path: '/set-up/phrases',
    may: 'settings.change',
    summary: 'What is proposed in one place, in the firm’s own words',
    body: obj({
      ...phraseFields,
      /** as they were read */
      shown: phraseFields.phrases,
    }),
    answer: obj({ items: list(phraseList) }),
  }),
  keepSources: route({
    method: 'POST',
    path: '/set-up/sources',
    may: 'settings.change',
    summary: 'One more way in which callers hear of the firm, or one less',
    body: obj({ add: text(60).default(''), takeOut: text(60).default('') }),
    answer: ok,
  }),
  keepBilledTime: route({
    method: 'POST',
    path: '/set-up/billed-time',
    may: 'settings.change',
    summary: 'How time on site becomes time that is charged',
    body: obj({
      ...billedTime,
      /** as it was read */
      shown: obj(billedTime),
    }),
    answer: ok,
  }),
  keepWarranty: route({
    method: 'POST',
    path: '/set-up/warranty',
    may: 'settings.change',
    summary: 'How long the firm stands for what it supplied',
    body: obj({ months: int(0, 120).required('Write a whole number of months, up to 120.') }),
    answer: ok,
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
