// Every setting of the server's surroundings, read here and nowhere else; what is wrong with one is said when the server starts.
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
  get smtpUrl() {
    return text('SMTP_URL')
  },
  get textUrl() {
    return text('TEXT_URL')
  },
  get cardUrl() {
    return text('CARD_URL')
  },
  get supplierUrl() {
    return text('SUPPLIER_URL')
  },
  /** what a machine signs with, or is asked with; ours where it has none of its own */
  secretOf(machine: 'CARD' | 'POSITIONS' | 'TEXT' | 'SUPPLIER'): string {
    return text(`${machine}_SECRET`)
  },
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
