// What a firm writes often, as screens know it.
import { PHRASE_LIST_NAMES } from '../core/settings/phrases'
import { definedText, list, obj, oneOf } from './schema'

/** As many as the shortest box that one is written in. */
const MOST_SIGNS = 60
export const phraseFields = {
  name: oneOf(PHRASE_LIST_NAMES).required('Say where it is written.'),
  phrases: list(definedText(MOST_SIGNS).min(1)).max(
    12,
    'Not more than 12 phrases: they are to be seen at a glance.',
  ),
}
export const phraseList = obj(phraseFields)
