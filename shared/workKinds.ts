// The firm's kinds of work, as screens know them.
import { definedText, flag, id, int, list, obj, text } from './schema'

/** What a kind may usually charge at most. */
export const MOST_CHARGES = 6
export const kindFields = {
  name: definedText(40),
  minutes: int(5, 1440).required('Say how many minutes it takes.'),
  skills: list(text(60).min(1).defined()).max(12, 'Not more than 12 skills.'),
  charges: list(id().required())
    .max(MOST_CHARGES, `Not more than ${MOST_CHARGES} charges.`)
    .default([]),
  retired: flag().required(),
}
export const workKind = obj({ code: definedText(40), ...kindFields })
export const workKindList = obj({
  items: list(
    obj({
      code: definedText(40),
      ...kindFields,
      /** how many of its charges are gone from the price book, and charged by nobody */
      gone: int().required(),
    }),
  ),
})
