// A mail server that plays the outside world: it takes mail over SMTP on loopback, keeps it, and shows it over HTTP.
// An address that begins with "bounce" is refused, as a dead mailbox would be.
import { createServer } from 'node:http'
import { SMTPServer } from 'smtp-server'

const kept = []
const smtp = new SMTPServer({
  authOptional: true, disabledCommands: ['STARTTLS'], size: 20_000_000,
  onRcptTo({ address }, _session, done) {
    done(address.startsWith('bounce') ? Object.assign(new Error('No such mailbox here'), { responseCode: 550 }) : undefined)
  },
  onData(stream, session, done) {
    const chunks = []
    stream.on('data', c => chunks.push(c)).on('end', () => {
      kept.push({ from: session.envelope.mailFrom && session.envelope.mailFrom.address, to: session.envelope.rcptTo.map(r => r.address), raw: Buffer.concat(chunks).toString('utf8') })
      if (kept.length > 500) kept.shift()
      done()
    })
  },
})
smtp.on('error', () => {})
smtp.listen(Number(process.env.MAIL_PORT), '127.0.0.1')
createServer((request, response) => {
  response.setHeader('Content-Type', 'application/json')
  if (request.url === '/health') return response.end('{"status":"ok"}')
  if (request.url === '/mails') return response.end(JSON.stringify(kept))
  response.statusCode = 404
  response.end('{}')
}).listen(Number(process.env.MAIL_HTTP_PORT), '127.0.0.1')
