// After each file of tests against the server: whatever they did, nothing is nowhere, and no state is kept that does not follow.
import { afterAll, expect } from 'vitest'
import { closePool } from '../../server/db/pool'
import { atOneMoment } from '../../server/http/context'
import { checkRun } from '../../server/waiting/checkRun'

afterAll(async () => {
  const astray = await atOneMoment({ actor: null, ip: '' }, checkRun)
  await closePool()
  expect(astray).toEqual([])
})
