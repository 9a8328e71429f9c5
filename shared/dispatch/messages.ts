// What customers are told of their visits.
import {
  date,
  flag,
  id,
  int,
  list,
  mail,
  requiredText,
  obj,
  ok,
  oneOf,
  route,
  text,
  version,
  definedText,
} from '../schema'
import { VISIT_WORDS } from './setUp'

const reminders = obj({
  date: date().required(),
  items: list(
    obj({
      visitId: id().required(),
      customer: definedText(),
      when: definedText(),
      channel: oneOf(['mail', 'text', 'none'] as const).required(),
      to: definedText(400),
      body: definedText(1000),
      told: flag().required(),
      /** what is promised, where it does not hold any more */
      broken: definedText(),
    }),
  ),
})

export const visitMessageRoutes = {
  inviteToVisit: route({
    method: 'POST',
    path: '/visits/{id}/invitation',
    may: 'dispatch.plan',
    summary: 'Send a visit as an invitation to a calendar (RFC 5545, RFC 5546)',
    body: obj({ to: list(mail().required()).min(1, 'Write to whom it goes.').max(4) }),
    answer: ok,
  }),
  reminders: route({
    method: 'GET',
    path: '/visit-messages/{date}',
    may: 'dispatch.plan',
    summary: 'Who would be reminded of a visit on that day, how, and in which words',
    answer: reminders,
  }),
  sendReminders: route({
    method: 'POST',
    path: '/visit-messages/{date}',
    may: 'dispatch.plan',
    summary: 'Remind the customers of that day, each once',
    answer: reminders,
  }),
  textIn: route({
    method: 'POST',
    path: '/webhooks/text',
    who: 'signature',
    signedBy: 'text',
    summary: 'A text that came in; STOP ends texts to that number',
    body: obj({ from: requiredText('Say from whom.', 32), text: text(1000).default('') }),
    answer: ok,
  }),
  visitNotice: route({
    method: 'GET',
    path: '/visits/{id}/notice',
    may: 'dispatch.plan',
    summary: 'What would be said to a customer about a visit, and how they can be reached',
    answer: obj({
      visitId: id().required(),
      version: int().required(),
      kind: oneOf(VISIT_WORDS).required(),
      customer: definedText(),
      phone: definedText(),
      to: list(definedText()),
      mails: flag().required(),
      texts: flag().required(),
      late: flag().required(),
      subject: definedText(),
      body: definedText(4000),
      text: definedText(600),
    }),
  }),
  tellCustomer: route({
    method: 'POST',
    path: '/visits/{id}/tell',
    may: 'dispatch.plan',
    summary: 'Tell a customer about a visit by mail or text, or note that they were rung',
    body: obj({
      /** the visit as the words speak of it */
      version: version(),
      channel: oneOf(['mail', 'text'] as const).default('mail'),
      to: list(text(160).required()).max(4).default([]),
      subject: text(200).default(''),
      body: text(4000).default(''),
      spoken: text(200).default(''),
    }),
    answer: ok,
  }),
}
