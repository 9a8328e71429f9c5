// The routes of calls, bound to their service.
import { DAY } from '../../core/time/units'
import type { callRoutes } from '../../shared/calls'
import type { Handlers } from '../http/route'
import { formStamp } from './requests'
import { sentForm } from './sentForms'
import { bookCall, saveCall } from './commands'
import { endCall, reopenCall } from './ending'
import { endedCalls } from './queries'
import { countedCalls, listCalls, oneCall } from './views'

/** As long as a mistake is found. */
const LATELY = 7 * DAY
export const callHandlers: Handlers<typeof callRoutes> = {
  async requestForm(ctx, { query }) {
    const back = query.form ? await sentForm(ctx, query.form) : null
    return {
      firm: ctx.company.name,
      phone: ctx.company.phone,
      stamp: formStamp(Date.now()),
      fields: Object.entries(back?.fields ?? {}).map(([name, value]) => ({ name, value })),
      detail: back?.problem.detail ?? '',
      errors: back?.problem.errors ?? [],
    }
  },
  calls: listCalls,
  callsCounted: (ctx, { query }) => countedCalls(ctx, query),
  call: (ctx, { params }) => oneCall(ctx, params.id!),
  saveCall: (ctx, { params, body }) => saveCall(ctx, params.id!, body),
  bookCall: (ctx, { params, body }) => bookCall(ctx, params.id!, body),
  endedCalls: async (ctx) => ({ items: await endedCalls(ctx.tx, ctx.now - LATELY) }),
  reopenCall: (ctx, { params }) => reopenCall(ctx, params.id!),
  endCall: (ctx, { params, body }) => endCall(ctx, params.id!, body),
}
