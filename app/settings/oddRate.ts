// A rate of tax that is seldom is sent once more by whoever is sure of it.
import { ask } from '~/base/leaving'
import type { Problem } from '~/lib/api'

/** Sends; where the rate is seldom, asks, and sends it as it is. */
export async function surely(
  send: (sure: boolean) => Promise<unknown>,
  problem: () => Problem | null,
): Promise<void> {
  await send(false)
  const refused = problem()
  if (refused?.code !== 'odd_rate') return
  const sure = await ask({
    ...{ title: 'A rate that is seldom', text: refused.message },
    ...{ yes: 'Keep this rate', no: 'Change it' },
  })
  if (sure) await send(true)
}
