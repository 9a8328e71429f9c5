// Work that goes on beside requests: the sender of messages, reminders of tomorrow's visits, poked by commits and by a slow tick for what has to be tried again; housekeeping.
import { poke } from '../messages/sender'
import { closePool } from '../db/pool'
import { warmMatching } from '../customers/matching'
import { failRunningPlans } from '../dispatch/queries'
import { remindTomorrow } from '../dispatch/visitMessages'
import { inContext } from '../http/context'
import { log } from '../http/log'
import { sweep } from '../http/sweep'

export default defineNitroPlugin((nitro) => {
  const tick = setInterval(poke, 15_000)
  const tidy = () => void sweep(Date.now()).catch(error => log.error({ err: (error as Error).message }, 'sweep'))
  const hourly = setInterval(tidy, 3_600_000)
  const evening = setInterval(() => void inContext({ actor: null, ip: '' }, remindTomorrow).catch(error => log.error({ err: (error as Error).message }, 'reminders')), 300_000)
  setTimeout(() => {
    poke()
    tidy()
    void inContext({ actor: null, ip: '' }, ctx => failRunningPlans(ctx.tx)).catch(() => { /* not set up yet */ })
    void inContext({ actor: null, ip: '' }, warmMatching).catch(() => { /* the first question builds it */ })
  }, 500)
  nitro.hooks.hook('close', async () => {
    clearInterval(tick)
    clearInterval(hourly)
    clearInterval(evening)
    await closePool()
  })
})
