// A card terminal that plays the outside world: it makes a page for a charge, takes the card's number there, and tells the
// result to the app in a signed message. Test cards: 9000 0000 0000 0027 is declined, 9000 0000 0000 0035 never answers. They begin with 9, which
// ISO/IEC 7812 leaves to national bodies: no card company has them.
import { createHmac } from 'node:crypto'
import { createServer } from 'node:http'

const { CARD_PORT, CARD_SECRET } = process.env
const charges = new Map()
const escape = (text) => String(text).replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`)
const digitSum = (n) => (n > 9 ? n - 9 : n)
const luhn = (n) =>
  [...n].reverse().reduce((sum, d, i) => sum + (i % 2 ? digitSum(d * 2) : +d), 0) % 10 === 0

async function tell(charge) {
  const body = JSON.stringify({
    chargeId: charge.id,
    state: charge.state,
    reference: charge.reference,
    reason: charge.reason,
    amount: charge.amount,
    at: Math.floor(Date.now() / 1000),
  })
  for (let attempt = 0; attempt < 4; attempt++) {
    const t = Math.floor(Date.now() / 1000)
    const v = createHmac('sha256', CARD_SECRET).update(`${t}.`).update(body).digest('hex')
    const ok = await fetch(charge.tell, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', 'X-Signature': `t=${t},v=${v}` },
      body,
    }).then(
      (r) => r.ok,
      () => false,
    )
    if (ok) return true
    await new Promise((done) => setTimeout(done, 300 * 2 ** attempt))
  }
  return false
}
const STYLE = `
body { font: 16px/1.5 sans-serif; max-width: 26rem; margin: 3rem auto; padding: 0 1rem; color: #16241f }
label { display: block; margin: 1rem 0 .25rem }
input, button { font: inherit; width: 100%; padding: .7rem; box-sizing: border-box }
button { margin-top: 1.2rem; background: #1d5c49; color: #fff; border: 0; border-radius: 6px }
p.e { color: #b23a24 }`
const form = (charge, error) => {
  const sum = `${escape(charge.amount)} ${escape(charge.currency)}`
  return `<!doctype html><html lang="en"><meta charset="utf-8">
<meta name="viewport" content="width=device-width"><title>Pay by card</title><style>${STYLE}</style>
<h1>Pay by card</h1><p>${escape(charge.what)}: <b>${sum}</b></p>
<p>This is the simulated card terminal of the demo. No real card works here;
9000 0000 0000 0019 is approved.</p>
${error ? `<p class="e" role="alert">${escape(error)}</p>` : ''}
<form method="post"><label for="n">Card number</label>
<input id="n" name="number" inputmode="numeric" autocomplete="off" required autofocus>
<button>Pay ${sum}</button></form>
<p><a href="${escape(charge.back)}">Back without paying</a></p></html>`
}
const read = async (request) => {
  let text = ''
  for await (const chunk of request)
    if ((text += chunk).length > 10_000) throw new Error('too large')
  return text
}

const json = (status, body) => ({ status, type: 'application/json', body: JSON.stringify(body) })
const html = (status, body) => ({ status, type: 'text/html; charset=utf-8', body })
const backTo = (charge, card) => ({ status: 303, location: `${charge.back}?card=${card}` })
const known = ({ id, state, reference, reason }) => ({ id, state, reference, reason })

async function begin(request) {
  const wanted = JSON.parse(await read(request))
  if (!charges.has(wanted.id))
    charges.set(wanted.id, { ...wanted, state: 'asked', reference: '', reason: '' })
  return json(201, { id: wanted.id, url: `http://127.0.0.1:${CARD_PORT}/pay/${wanted.id}` })
}
function look(_, id) {
  const charge = charges.get(id)
  return charge ? json(200, known(charge)) : json(404, { error: 'unknown' })
}
function refund(_, id) {
  const charge = charges.get(id)
  if (charge?.state !== 'approved' && charge?.state !== 'refunded')
    return json(409, { error: 'not approved' })
  charge.state = 'refunded'
  return json(200, { id: charge.id, state: 'refunded' })
}
/** The page that somebody pays on; once paid, it leads back. */
function page(_, id) {
  const charge = charges.get(id)
  if (!charge) return { status: 404, type: 'text/plain', body: 'There is no such payment.' }
  if (charge.state === 'asked') return html(200, form(charge))
  return backTo(charge, charge.state === 'declined' ? 'declined' : 'approved')
}
async function pay(request, id) {
  const charge = charges.get(id)
  if (charge?.state !== 'asked') return page(request, id)
  const number = (new URLSearchParams(await read(request)).get('number') ?? '').replace(/\D/g, '')
  if (number.length < 12 || !luhn(number))
    return html(422, form(charge, 'This is not a card number. Check the digits.'))
  if (number === '9000000000000035') return null // it never answers: the time-out of the real world
  charge.state = number === '9000000000000027' ? 'declined' : 'approved'
  charge.reason = charge.state === 'declined' ? 'The bank declined the card.' : ''
  charge.reference = `T${charge.id.slice(-6)} card ${number.slice(-4)}`
  const told = await tell(charge)
  if (charge.state === 'declined') return backTo(charge, 'declined')
  return backTo(charge, told ? 'approved' : 'waiting')
}
const ROUTES = [
  { method: 'GET', path: /^\/health$/, answer: () => json(200, { status: 'ok' }) },
  { method: 'POST', path: /^\/charges$/, secret: true, answer: begin },
  { method: 'GET', path: /^\/charges\/([\w-]+)$/, secret: true, answer: look },
  { method: 'POST', path: /^\/charges\/([\w-]+)\/refund$/, secret: true, answer: refund },
  { method: 'GET', path: /^\/pay\/([\w-]+)$/, answer: page },
  { method: 'POST', path: /^\/pay\/([\w-]+)$/, answer: pay },
]
async function answerTo(request) {
  const route = ROUTES.find((r) => r.method === request.method && r.path.test(request.url))
  if (!route) return page(request, '')
  if (route.secret && request.headers.authorization !== `Bearer ${CARD_SECRET}`)
    return json(401, { error: 'unauthorized' })
  return route.answer(request, route.path.exec(request.url)[1])
}

createServer(async (request, response) => {
  const answer = await answerTo(request).catch(() => json(400, { error: 'malformed' }))
  if (!answer) return
  const { status, type, location, body = '' } = answer
  response.writeHead(status, location ? { Location: location } : { 'Content-Type': type })
  response.end(body)
}).listen(Number(CARD_PORT), '127.0.0.1')
