// Plays the devices in the technicians' vans: asks the app every few seconds who drives where, moves along the road, and tells where each is.
import { createHmac } from 'node:crypto'
import { createServer } from 'node:http'

const secret = process.env.POSITIONS_SECRET
const every = Number(process.env.POSITIONS_EVERY_MS || 5000)
let told = []
async function send(path, body) {
  const text = JSON.stringify(body)
  const t = Math.floor(Date.now() / 1000)
  const reply = await fetch(`${process.env.APP_URL}/api/v1${path}`, {
    method: 'POST',
    headers: {
      'Content-Type': 'application/json',
      'X-Signature': `t=${t},v=${createHmac('sha256', secret).update(`${t}.`).update(text).digest('hex')}`,
    },
    body: text,
  })
  if (!reply.ok) throw new Error(`${path}: ${reply.status}`)
  return reply.json()
}
/** On the globe's small patch of a county, a straight ruler is near enough for a van. */
function along(line, share) {
  const lengths = line
    .slice(1)
    .map(([x, y], i) =>
      Math.hypot((x - line[i][0]) * Math.cos((y * Math.PI) / 180), y - line[i][1]),
    )
  let left = Math.max(0, Math.min(1, share)) * lengths.reduce((a, b) => a + b, 0)
  for (let i = 0; i < lengths.length; i++) {
    if (left <= lengths[i] && lengths[i] > 0)
      return [0, 1].map((k) => line[i][k] + ((line[i + 1][k] - line[i][k]) * left) / lengths[i])
    left -= lengths[i]
  }
  return line.at(-1)
}
async function drive() {
  const { now, trips } = await send('/positions/trips', {})
  const at = Date.parse(now)
  told = trips.map((trip) => {
    const [from, to] = [Date.parse(trip.from), Date.parse(trip.to)]
    const [lon, lat] = along(trip.line, to > from ? (at - from) / (to - from) : 0)
    return { personId: trip.personId, at: now, lat, lon }
  })
  if (told.length) await send('/positions', { positions: told })
}
let ended = false
const round = () =>
  void drive()
    .catch(() => {
      /* the app is not up, or went away: the next round tries again */
    })
    .finally(() => {
      if (!ended) setTimeout(round, every)
    })
if (process.env.APP_URL) round()
createServer((request, response) => {
  response.setHeader('Content-Type', 'application/json')
  response.end(JSON.stringify(request.url === '/health' ? { status: 'ok' } : told))
}).listen(Number(process.env.POSITIONS_PORT), '127.0.0.1')
process.on('SIGTERM', () => {
  ended = true
  process.exit(0)
})
