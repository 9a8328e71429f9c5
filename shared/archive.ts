// Everything in and out: what can be taken in and along, the archive of everything, and what goes out by itself.
import { me } from './access'
import {
  date,
  definedText,
  flag,
  history,
  id,
  instant,
  int,
  list,
  mail,
  obj,
  oneOf,
  requiredText,
  route,
  version,
} from './schema'

/** What can be taken along, as it is called in its address. */
export const EXPORTED = [
  'archive',
  'customers',
  'sites',
  'contacts',
  'work-orders',
  'invoices',
  'payments',
  'price-book',
  'journal',
] as const
export const TAKEN_IN = ['customers', 'prices', 'brought', 'roads'] as const
export const EVERY = ['day', 'week', 'month'] as const
export const EXPORT_WAYS = ['mail', 'folder'] as const
const run = { at: instant().nullable().defined(), by: definedText() }
const schedule = obj({
  id: id().required(),
  version: int().required(),
  what: oneOf(EXPORTED).required(),
  every: oneOf(EVERY).required(),
  way: oneOf(EXPORT_WAYS).required(),
  email: definedText(160),
  dueOn: date().defined(),
  lastAt: instant().nullable().defined(),
  /** why it did not go out */
  problem: definedText(255),
})
const everything = obj({
  imports: list(obj({ what: oneOf(TAKEN_IN).required(), ...run, file: definedText() })),
  exports: list(obj({ what: oneOf(EXPORTED).required(), ...run })),
  schedules: list(schedule),
  /** what went along and out, the last first, for whoever may have things go out */
  history: history(),
  /** where files go by themselves; empty where no folder is set up */
  folder: definedText(400),
  /** whoever asks may have things go out by themselves */
  maySchedule: flag().required(),
})
const LARGEST = 8_000_000_000
const PASSWORD_SIGNS = 200
export const archiveRoutes = {
  inAndOut: route({
    method: 'GET',
    path: '/in-and-out',
    may: 'figures.export',
    summary: 'What can be taken in and along, when it was last, and what goes out by itself',
    answer: everything,
  }),
  archive: route({
    method: 'GET',
    path: '/archive.zip',
    may: 'archive.take',
    summary: 'Everything of the firm as one file, which another Open Ledger takes in',
    mime: 'application/zip',
  }),
  keepExportSchedule: route({
    method: 'POST',
    path: '/export-schedules',
    may: 'archive.take',
    summary: 'Something goes out by itself from now on, by mail or into a folder',
    body: obj({
      id: id().required(),
      what: oneOf(EXPORTED).required('Choose what goes out.'),
      every: oneOf(EVERY).required('Choose how often.'),
      way: oneOf(EXPORT_WAYS).required('Choose where it goes.'),
      email: mail().default(''),
    }),
    answer: everything,
  }),
  endExportSchedule: route({
    method: 'POST',
    path: '/export-schedules/{id}/end',
    may: 'archive.take',
    summary: 'Something goes out by itself no more',
    body: obj({ version: version() }),
    answer: everything,
  }),
  takeInArchive: route({
    method: 'POST',
    path: '/begin/archive',
    who: 'public',
    takesFile: true,
    maxBytes: LARGEST,
    summary:
      'An empty Open Ledger takes in an archive; the code that was printed stands in the header Begin-Code',
    answer: obj({ firm: definedText(), rows: int().required() }),
  }),
  beginAsOwner: route({
    method: 'POST',
    path: '/begin/owner',
    who: 'public',
    session: 'opens',
    secret: true,
    summary: 'The owner of a firm that was taken in chooses a password and is signed in',
    body: obj({
      code: requiredText('Write the code that was printed when the server started.', 40),
      email: mail().required('Write the mail address that you signed in with before.'),
      password: requiredText('Choose a password.', PASSWORD_SIGNS),
    }),
    answer: me,
  }),
}
