// A text service that plays the outside world: it takes texts over HTTP on loopback, keeps them, and shows them.
// A number that ends in 0000 is out of service. POST /answers plays a customer who texts back; the word is signed and told to the app.
import { createHmac, timingSafeEqual } from 'node:crypto'
import { createServer } from 'node:http'

const kept = []
const secret = process.env.TEXT_SECRET
const same = (a, b) => a.length === b.length && timingSafeEqual(Buffer.from(a), Buffer.from(b))
const read = async (request) => {
  const chunks = []
  for await (const c of request) chunks.push(c)
  return JSON.parse(Buffer.concat(chunks).toString('utf8') || '{}')
}
const refused = (detail) => ({ status: 422, body: { detail } })
const ok = (body) => ({ status: 200, body })
async function take(request) {
  if (!same(request.headers.authorization ?? '', `Bearer ${secret}`))
    return { status: 401, body: { detail: 'Whose texts are these?' } }
  const { id, to, text } = await read(request)
  if (!to || !text) return refused('A text needs a number and words.')
  if (to.replace(/\D/g, '').endsWith('0000')) return refused('This number is out of service.')
  // The same text twice is one text.
  if (!kept.some((k) => k.id === id)) kept.push({ id, to, text })
  if (kept.length > 500) kept.shift()
  return ok({ id })
}
async function tell(request) {
  const body = JSON.stringify(await read(request))
  const t = Math.floor(Date.now() / 1000)
  const v = createHmac('sha256', secret).update(`${t}.`).update(body).digest('hex')
  const told = await fetch(`${process.env.APP_URL}/api/v1/webhooks/text`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', 'X-Signature': `t=${t},v=${v}` },
    body,
  })
  return { status: told.status, body: await told.json() }
}
const ROUTES = {
  'GET /health': () => ok({ status: 'ok' }),
  'GET /texts': () => ok(kept),
  'POST /texts': take,
  'POST /answers': tell,
}
async function answerTo(request) {
  try {
    const route = ROUTES[`${request.method} ${request.url}`]
    return route ? await route(request) : { status: 404, body: {} }
  } catch (error) {
    return { status: 500, body: { detail: error.message } }
  }
}
createServer(async (request, response) => {
  const { status, body } = await answerTo(request)
  response.writeHead(status, { 'Content-Type': 'application/json' })
  response.end(JSON.stringify(body))
}).listen(Number(process.env.TEXT_PORT), '127.0.0.1')
