// What an archive of everything holds, by subject, and what it leaves here, with the reason: the only list of it. A test
// compares it with the tables that there are.
import { invoiceLinkHash } from '../invoices/index'
import { quoteLinkHash } from '../quotes/index'
import type { Row } from './rows'

/** How a table goes along where it does not go along whole. */
export interface Kept {
  /** columns that open something, or that only mean something here: never written; taken in at what a new row has */
  without?: readonly string[]
  /** columns of bytes, each a file of its own: how such a file is called, or the column that says so */
  files?: Readonly<Record<string, { ending: string } | { kindIn: string }>>
  /** columns that only say whether there is one, and are made anew where it is taken in: by the secret of that place */
  remade?: Readonly<Record<string, (row: Row) => string>>
  /** which rows */
  where?: string
}
const WHOLE: Kept = {}
const PICTURES: Kept = { files: { bytes: { kindIn: 'mime' } } }

export const KEPT: Readonly<Record<string, Readonly<Record<string, Kept>>>> = {
  settings: {
    company: WHOLE,
    logos: PICTURES,
    counters: WHOLE,
    tax_classes: WHOLE,
    paper_layouts: WHOLE,
    call_questions: WHOLE,
    custom_fields: WHOLE,
    export_schedules: WHOLE,
  },
  access: { people: { without: ['password_hash', 'feed_hash'] }, cost_rates: WHOLE },
  customers: {
    customers: WHOLE,
    sites: WHOLE,
    contacts: WHOLE,
    equipment: WHOLE,
    imports: WHOLE,
    merges: WHOLE,
    postcodes: WHOLE,
    not_duplicates: WHOLE,
    attachments: PICTURES,
  },
  agreements: { agreements: WHOLE, agreement_plans: WHOLE },
  calls: { calls: WHOLE },
  dispatch: {
    territories: WHOLE,
    time_off: WHOLE,
    day_entries: WHOLE,
    holidays: WHOLE,
    saved_filters: WHOLE,
    road_networks: { files: { data: { ending: 'roads' } } },
  },
  visits: {
    work_orders: WHOLE,
    work_phases: WHOLE,
    visits: WHOLE,
    visit_crew: WHOLE,
    clock_intervals: WHOLE,
    work_lines: WHOLE,
    photos: PICTURES,
    signatures: { files: { image: { ending: 'png' } } },
  },
  pricebook: {
    price_entries: WHOLE,
    price_entry_parts: WHOLE,
    price_levels: WHOLE,
    price_pictures: PICTURES,
    price_pins: WHOLE,
    price_batches: WHOLE,
    price_history: WHOLE,
    price_imports: WHOLE,
    price_import_rows: WHOLE,
    price_import_entries: WHOLE,
    markup_rules: WHOLE,
    column_meanings: WHOLE,
  },
  quotes: {
    quotes: { remade: { token_hash: (row) => quoteLinkHash(row.id as string) } },
    quote_lines: WHOLE,
  },
  invoices: {
    invoices: {
      remade: { token_hash: (row) => invoiceLinkHash(row.id as string, row.linkTurn as number) },
    },
    invoice_lines: WHOLE,
  },
  payments: { payments: WHOLE, allocations: WHOLE, card_charges: WHOLE },
  collections: { collection_notes: WHOLE },
  ledger: { ledger_entries: WHOLE, ledger_postings: WHOLE },
  messages: {
    messages: { without: ['open_hash'] },
    // What waits to be sent is sent from where the archive is taken in; what each process does now and then begins anew.
    jobs: {
      where: `state IN ('waiting', 'running') AND job_key NOT LIKE 'every %'`,
      without: ['state', 'claimed_by', 'claimed_until', 'ended_at'],
    },
  },
  tasks: { tasks: WHOLE },
  asks: { asks: WHOLE },
  trail: { trail: WHOLE },
}

export const LEFT: Readonly<Record<string, string>> = {
  sessions: 'opens the app: everybody signs in anew',
  second_steps: 'a secret that is sealed with this installation’s own',
  recovery_codes: 'opens the app',
  door_keys: 'opens the app',
  connections: 'their secrets are sealed with this installation’s own: each is named anew',
  tries: 'how often somebody asked lately',
  request_marks: 'how often somebody asked lately',
  idempotency_keys: 'answers of the last two weeks, for whoever asks again here',
  sent_forms: 'a form that comes back to whoever sent it',
  events: 'what changed lately, for the windows that are open',
  progress: 'how far long work is',
  day_plans: 'proposals, made anew when somebody asks',
  import_looks: 'a look at a file, made anew when somebody asks',
  positions: 'where the vans are at this moment',
  export_runs: 'when somebody took what along from here',
  schema_migrations: 'how this database was made',
}

/** Each table that goes along, with its subject. */
export const keptTables: readonly { subject: string; table: string; kept: Kept }[] = Object.entries(
  KEPT,
).flatMap(([subject, tables]) =>
  Object.entries(tables).map(([table, kept]) => ({ subject, table, kept })),
)
