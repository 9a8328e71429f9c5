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
createServer(async (request, response) => {
  const answer = (status, body) => {
    response.writeHead(status, { 'Content-Type': 'application/json' })
    response.end(JSON.stringify(body))
  }
  try {
    if (request.url === '/health') return answer(200, { status: 'ok' })
    if (request.method === 'GET' && request.url === '/texts') return answer(200, kept)
    if (request.method === 'POST' && request.url === '/texts') {
      if (!same(request.headers.authorization ?? '', `Bearer ${secret}`))
        return answer(401, { detail: 'Whose texts are these?' })
      const { id, to, text } = await read(request)
      if (!to || !text) return answer(422, { detail: 'A text needs a number and words.' })
      if (to.replace(/\D/g, '').endsWith('0000'))
        return answer(422, { detail: 'This number is out of service.' })
      // The same text twice is one text.
      if (!kept.some((k) => k.id === id)) kept.push({ id, to, text })
      if (kept.length > 500) kept.shift()
      return answer(200, { id })
    }
    if (request.method === 'POST' && request.url === '/answers') {
      const body = JSON.stringify(await read(request))
      const t = Math.floor(Date.now() / 1000)
      const told = await fetch(`${process.env.APP_URL}/api/v1/webhooks/text`, {
        method: 'POST',
        headers: {
          'Content-Type': 'application/json',
          'X-Signature': `t=${t},v=${createHmac('sha256', secret).update(`${t}.`).update(body).digest('hex')}`,
        },
        body,
      })
      return answer(told.status, await told.json())
    }
    return answer(404, {})
  } catch (error) {
    return answer(500, { detail: error.message })
  }
}).listen(Number(process.env.TEXT_PORT), '127.0.0.1')
