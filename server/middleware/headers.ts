// Security headers on everything. Scripts come from our own origin only; the inline ones are Nuxt's state, by hash or nonce-free JSON.
export default defineEventHandler((event) => {
  const card = process.env.CARD_URL ?? ''
  setHeaders(event, {
    'X-Content-Type-Options': 'nosniff',
    'Referrer-Policy': 'no-referrer',
    'X-Frame-Options': 'DENY',
    'Cross-Origin-Opener-Policy': 'same-origin',
    'Permissions-Policy': 'camera=(self), geolocation=(self), microphone=()',
    'Content-Security-Policy': `default-src 'self'; script-src 'self' 'unsafe-inline'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; connect-src 'self'; font-src 'self'; object-src 'none'; base-uri 'none'; form-action 'self' ${card}; frame-ancestors 'none'`,
  })
})
