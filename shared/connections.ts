// The outside services that the app speaks with.
import { definedText, flag, int, list, obj, oneOf, route, text } from './schema'

export const CONNECTION_KINDS = ['mail', 'text', 'card', 'supplier', 'positions'] as const
/** Named by the firm here, by the surroundings of the server, or nowhere. */
export const CONNECTION_SOURCES = ['here', 'surroundings', 'none'] as const
const connections = obj({
  items: list(
    obj({
      kind: oneOf(CONNECTION_KINDS).required(),
      from: oneOf(CONNECTION_SOURCES).required(),
      /** without user and secret */
      address: definedText(300),
      user: definedText(),
      hasSecret: flag().required(),
      version: int().required(),
    }),
  ),
  /** where devices send their positions to */
  positionsTo: definedText(300),
})
export const connectionRoutes = {
  connections: route({
    method: 'GET',
    path: '/connections',
    may: 'connections.change',
    summary: 'The outside services, where each is, and who named it',
    answer: connections,
  }),
  keepConnection: route({
    method: 'POST',
    path: '/connections',
    may: 'connections.change',
    secret: true,
    summary: 'Name an outside service; nothing for that of the surroundings',
    body: obj({
      kind: oneOf(CONNECTION_KINDS).required('Say which service it is.'),
      address: text(300).default(''),
      user: text(160).default(''),
      /** nothing: as it is */
      secret: text(400).default(''),
      /** as it was read; 0 where it was not named here */
      version: int(0).required(),
    }),
    answer: connections,
  }),
  tryConnection: route({
    method: 'POST',
    path: '/connections/{kind}/try',
    may: 'connections.change',
    summary: 'Ask a service whether it is there and knows us; nothing is sent to anybody',
    answer: obj({ works: flag().required(), said: definedText(400) }),
  }),
}
