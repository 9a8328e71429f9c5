// Security headers on everything. Pages get the hashes of their inline scripts added where they are drawn (plugins/scripts.ts).
import { contentPolicy } from '../http/policy'
import { config } from '../config'

export default defineEventHandler((event) => {
  // The request form may be shown inside the firm's own web page; nothing else may be framed.
  const framed = /^\/request(\?|\/|$)/.test(event.path)
  setHeaders(event, {
    'X-Content-Type-Options': 'nosniff',
    'Referrer-Policy': 'no-referrer',
    ...(framed ? {} : { 'X-Frame-Options': 'DENY', 'Cross-Origin-Opener-Policy': 'same-origin' }),
    'Permissions-Policy': 'camera=(self), geolocation=(self), microphone=()',
    'Content-Security-Policy': contentPolicy({ framed, scripts: [] }),
    // What is drawn for somebody is theirs alone, and changes: nothing on the way keeps it.
    ...(/^\/(?:i|q|s|request|field)(?:\/|\?|$)/.test(event.path)
      ? { 'Cache-Control': 'no-store' }
      : {}),
    // Where cookies go over HTTPS alone, everything does.
    ...(config.cookieSecure
      ? { 'Strict-Transport-Security': 'max-age=31536000; includeSubDomains' }
      : {}),
  })
})
