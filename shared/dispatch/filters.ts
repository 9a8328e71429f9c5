// What somebody looks at on the schedule again and again.
import { id, list, requiredText, obj, route, text, definedText } from '../schema'

export const scheduleFilter = obj({
  technicianIds: list(id().required()).max(200).default([]),
  territory: text(80).default(''),
  skill: text(60).default(''),
  state: text(20).default(''),
  kind: text(40).default(''),
})
const savedFilterList = obj({
  items: list(obj({ id: id().required(), name: definedText(), filter: scheduleFilter })),
})

export const filterRoutes = {
  savedFilters: route({
    method: 'GET',
    path: '/saved-filters',
    may: 'dispatch.see',
    summary: 'My kept filters of the schedule',
    answer: savedFilterList,
  }),
  saveFilter: route({
    method: 'POST',
    path: '/saved-filters',
    may: 'dispatch.see',
    summary: 'Keep a filter of the schedule by name, for myself',
    body: obj({
      id: id().required(),
      name: requiredText('Give it a name.', 60),
      filter: scheduleFilter,
    }),
    answer: savedFilterList,
  }),
  removeSavedFilter: route({
    method: 'POST',
    path: '/saved-filters/{id}/remove',
    may: 'dispatch.see',
    summary: 'Take a kept filter away',
    answer: savedFilterList,
  }),
}
