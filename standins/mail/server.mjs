// A mail server that plays the outside world: it takes mail over SMTP on loopback, keeps it, and shows it over HTTP.
// An address that begins with "bounce" is refused, as a dead mailbox would be; one that begins with "stall" is taken and
// answered only after the next POST /behave; at one that begins with "lose" the mail is taken and the answer gets lost.
// POST /behave with {"stall": 0.1, "lose": 0.1} does the same to that share of all mails.
import { createServer } from 'node:http'
import { SMTPServer } from 'smtp-server'

const MOST_KEPT = 5000
const kept = []
const stalled = []
const behave = { stall: 0, lose: 0 }
const chance = (share) => Math.random() < share
const any = (session, word) => session.envelope.rcptTo.some((r) => r.address.startsWith(word))

const smtp = new SMTPServer({
  authOptional: true,
  disabledCommands: ['STARTTLS'],
  size: 20_000_000,
  onRcptTo({ address }, _session, done) {
    done(
      address.startsWith('bounce')
        ? Object.assign(new Error('No such mailbox here'), { responseCode: 550 })
        : undefined,
    )
  },
  onData(stream, session, done) {
    const chunks = []
    stream
      .on('data', (c) => chunks.push(c))
      .on('end', () => {
        const raw = Buffer.concat(chunks).toString('utf8')
        const lost = any(session, 'lose') || chance(behave.lose)
        kept.push({
          from: session.envelope.mailFrom && session.envelope.mailFrom.address,
          to: session.envelope.rcptTo.map((r) => r.address),
          messageId: /^Message-ID: (.*)$/im.exec(raw)?.[1] ?? '',
          lost,
          raw,
        })
        if (kept.length > MOST_KEPT) kept.shift()
        if (any(session, 'stall') || chance(behave.stall)) return stalled.push(done)
        if (!lost) return done()
        // Taken, and the line drops before that is said.
        for (const connection of smtp.connections)
          if (connection.id === session.id) connection._socket.destroy()
      })
  },
})
smtp.on('error', () => {})
smtp.listen(Number(process.env.MAIL_PORT), '127.0.0.1')

async function read(request) {
  let text = ''
  for await (const chunk of request) text += chunk
  return JSON.parse(text || '{}')
}
createServer(async (request, response) => {
  response.setHeader('Content-Type', 'application/json')
  if (request.url === '/health') return response.end('{"status":"ok"}')
  if (request.url === '/mails') return response.end(JSON.stringify(kept))
  if (request.url === '/ids')
    return response.end(JSON.stringify(kept.map(({ messageId, lost }) => ({ messageId, lost }))))
  if (request.url === '/behave' && request.method === 'POST') {
    Object.assign(behave, { stall: 0, lose: 0 }, await read(request).catch(() => ({})))
    for (const answer of stalled.splice(0)) answer()
    return response.end(JSON.stringify(behave))
  }
  response.statusCode = 404
  response.end('{}')
}).listen(Number(process.env.MAIL_HTTP_PORT), '127.0.0.1')
