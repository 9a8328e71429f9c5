// Work that goes on beside requests: the mail sender, poked by commits and by a slow tick for what has to be tried again.
import { poke } from '../messages/sender'
import { closePool } from '../db/pool'

export default defineNitroPlugin((nitro) => {
  const tick = setInterval(poke, 15_000)
  setTimeout(poke, 500)
  nitro.hooks.hook('close', async () => {
    clearInterval(tick)
    await closePool()
  })
})
