// Every setting of the server's surroundings, read here and nowhere else; what is wrong with one is said when the server starts.
import type { CONNECTION_KINDS } from '../shared/connections'

const text = (name: string): string => process.env[name]?.trim() ?? ''
/** An address without the slash at its end. */
const address = (name: string): string => text(name).replace(/\/$/, '')

export const config = {
  get databaseUrl() {
    return text('DATABASE_URL')
  },
  /** where customers reach us: what stands before the links in mails */
  get publicUrl() {
    return address('PUBLIC_URL')
  },
  /** signs cookies, links and what has no secret of its own */
  get secret() {
    return text('OPEN_LEDGER_SECRET')
  },
  /** cookies go over TLS only, and browsers are told to stay there */
  get cookieSecure() {
    const said = text('COOKIE_SECURE')
    return said ? said === '1' : this.publicUrl.startsWith('https://')
  },
  /** addresses of proxies that are believed, with commas between */
  get trustedProxies() {
    return text('OPEN_LEDGER_TRUSTED_PROXIES')
  },
  /** the moment at which the clock is pinned, for tests and pictures */
  get pinnedNow() {
    return text('OPEN_LEDGER_NOW')
  },
  /** where what goes out by itself is written; empty for nowhere */
  get exportFolder() {
    return text('OPEN_LEDGER_EXPORTS')
  },
  get logLevel() {
    return text('LOG_LEVEL') || 'warn'
  },
  /** as the surroundings name it, whatever the firm says itself */
  surroundingsOf(kind: ConnectionKind): Connected {
    const name = kind.toUpperCase()
    if (kind === 'mail') return { address: text('SMTP_URL'), secret: '' }
    return {
      address: kind === 'positions' ? '' : address(`${name}_URL`),
      secret: text(`${name}_SECRET`),
    }
  },
  /** where an outside service is, and what it knows us by: as the firm named it, else as the surroundings do */
  connectionTo(kind: ConnectionKind): Connected {
    return named.get(kind) ?? this.surroundingsOf(kind)
  },
}
export type ConnectionKind = (typeof CONNECTION_KINDS)[number]
/** An empty address is a service that is not there. */
export interface Connected {
  address: string
  secret: string
}
let named: ReadonlyMap<ConnectionKind, Connected> = new Map()
/** Services that the firm named itself: they hold before those of the surroundings. */
export function connectTo(services: ReadonlyMap<ConnectionKind, Connected>): void {
  named = services
}

const ADDRESSES = ['PUBLIC_URL', 'TEXT_URL', 'CARD_URL', 'SUPPLIER_URL', 'SMTP_URL', 'DATABASE_URL']
const LEVELS = ['trace', 'debug', 'info', 'warn', 'error', 'fatal', 'silent']

/** What is wrong with the settings, a sentence each. */
export function configProblems(): string[] {
  const problems = ADDRESSES.filter((name) => text(name) && !URL.canParse(text(name))).map(
    // What stands in it is not said: it may hold a password.
    (name) => `${name} is not an address.`,
  )
  if (!LEVELS.includes(config.logLevel))
    problems.push(`LOG_LEVEL is none of ${LEVELS.join(', ')}: ${config.logLevel}`)
  const pinned = config.pinnedNow
  if (pinned && !pinned.startsWith('file:') && Number.isNaN(Date.parse(pinned)))
    problems.push(`OPEN_LEDGER_NOW is no local time like 2026-11-24T10:21: ${pinned}`)
  return problems
}
