// What is over somebody's limit, asked of another person.
import { ASKABLE } from '../core/access/limits'
import {
  definedText,
  flag,
  id,
  instant,
  list,
  obj,
  ok,
  oneOf,
  requiredText,
  route,
  text,
} from './schema'

/** what waits for a yes on a paper */
export const asks = () =>
  list(
    obj({
      id: id().required(),
      what: definedText(400),
      reason: definedText(400),
      askedBy: definedText(),
      askedAt: instant().required(),
      mine: flag().required(),
    }),
  )

export const askRoutes = {
  askForYes: route({
    method: 'POST',
    path: '/asks',
    may: 'limits.ask',
    summary: 'Ask for another person’s yes to what is over one’s limit',
    body: obj({
      id: id().required(),
      route: oneOf(ASKABLE).required(),
      /** the line, work order, visit, stretch of time or quote that the act is about */
      subjectId: id().required(),
      /** what the act was sent with, as JSON */
      body: text(12_000).required(),
      reason: requiredText('Say why, for whoever decides.', 200),
    }),
    answer: ok,
  }),
  answerAsk: route({
    method: 'POST',
    path: '/asks/{id}/answer',
    may: 'limits.ask',
    summary: 'Say yes or no to what was asked; or take back what one asked oneself',
    body: obj({ yes: flag().required(), words: text(200).default('') }),
    answer: ok,
  }),
}
