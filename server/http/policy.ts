// What a page may load and run: our own origin, and the inline scripts that were named by their hash.
import { createHash } from 'node:crypto'
import { config } from '../config'

export function contentPolicy(page: { framed: boolean; scripts: readonly string[] }): string {
  const hashes = page.scripts.map(
    (script) => `'sha256-${createHash('sha256').update(script).digest('base64')}'`,
  )
  return [
    `default-src 'self'`,
    ["script-src 'self'", ...hashes].join(' '),
    `style-src 'self'`,
    `style-src-attr 'unsafe-inline'`,
    `img-src 'self' data: blob:`,
    `connect-src 'self'`,
    `font-src 'self'`,
    `object-src 'none'`,
    `base-uri 'none'`,
    `form-action 'self' ${config.connectionTo('card').address}`.trim(),
    page.framed ? 'frame-ancestors *' : `frame-ancestors 'none'`,
  ].join('; ')
}
/** The scripts that stand in a page itself; data blocks are no scripts. */
export const inlineScripts = (html: string): string[] =>
  [
    ...html.matchAll(
      /<script(?![^>]*\ssrc=)(?![^>]*type="application\/json")[^>]*>([\s\S]*?)<\/script>/g,
    ),
  ].map((m) => m[1]!)
