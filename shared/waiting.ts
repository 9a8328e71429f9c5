// What waits for somebody: the list to act on, made from the one rule of where everything stands.
import { KINDS, PLACES, type Place } from '../core/waiting/whereItStands'
import { definedText, id, int, list, money, obj, oneOf, route } from './schema'

const PLACE_NAMES = Object.keys(PLACES) as Place[]
export const waitingRoutes = {
  toActOn: route({
    method: 'GET',
    path: '/to-act-on',
    may: 'figures.see',
    summary: 'What waits, place by place, with its reason and the next act',
    answer: obj({
      places: list(
        obj({
          place: oneOf(PLACE_NAMES).required(),
          says: definedText(),
          /** where all of it is looked at */
          to: definedText(),
          count: int().required(),
          sum: money().nullable().defined(),
          items: list(
            obj({
              id: id().required(),
              kind: oneOf(KINDS).required(),
              label: definedText(400),
              whose: definedText(),
              reason: definedText(800),
              next: definedText(),
              sum: money().nullable().defined(),
              to: definedText(),
            }),
          ),
        }),
      ),
    }),
  }),
}
