// The one entry of the API; what happens behind it is told by the catalogue in shared/api.ts.
import { handle } from '../../http/handle'

export default defineEventHandler((event) =>
  handle(event, `/${getRouterParam(event, 'path') ?? ''}`),
)
