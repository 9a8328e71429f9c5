// Asks for health every few milliseconds, in a thread of its own: what else the trial does delays no measurement.
import { parentPort, workerData } from 'node:worker_threads'

const times = []
let over = false
parentPort.once('message', () => {
  over = true
})
while (!over) {
  const from = performance.now()
  const ok = await fetch(`${workerData.base}/api/health`).then(
    (r) => r.ok,
    () => false,
  )
  times.push(ok ? performance.now() - from : Infinity)
  await new Promise((done) => setTimeout(done, 10))
}
// The first ones open the connection.
parentPort.postMessage(times.slice(3))
parentPort.close()
