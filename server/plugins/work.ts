// Work that goes on beside requests: the mail sender, poked by commits and by a slow tick for what has to be tried again; housekeeping.
import { poke } from '../messages/sender'
import { closePool } from '../db/pool'
import { log } from '../http/log'
import { sweep } from '../http/sweep'

export default defineNitroPlugin((nitro) => {
  const tick = setInterval(poke, 15_000)
  const tidy = () => void sweep(Date.now()).catch(error => log.error({ err: (error as Error).message }, 'sweep'))
  const hourly = setInterval(tidy, 3_600_000)
  setTimeout(() => {
    poke()
    tidy()
  }, 500)
  nitro.hooks.hook('close', async () => {
    clearInterval(tick)
    clearInterval(hourly)
    await closePool()
  })
})
