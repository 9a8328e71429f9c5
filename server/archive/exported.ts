// Everything that can be taken along: what it is called as a file, who may, and how it is written.
import type { Permission } from '../../core/access/permissions'
import { EXPORTED } from '../../shared/archive'
import { contactCards } from '../customers/exports'
import { csvExports, journal } from '../figures/exports'
import { exported, may, writtenAtOneMoment, type Ctx } from '../http/context'
import { record } from '../http/queries'
import { Raw, type Call } from '../http/route'
import { archiveFacts } from './facts'
import { putExportRun, type Exported } from './inAndOut.queries'
import { archive } from './write'

interface Writing {
  ending: string
  mime: string
  permission: Permission
  pieces(who: Pick<Call, 'actor' | 'ip'>): AsyncGenerator<string | Buffer>
}
const CSV = {
  ending: 'csv',
  mime: 'text/csv; charset=utf-8',
  permission: 'figures.export',
} as const
const OTHERS: Readonly<Partial<Record<Exported, Writing>>> = {
  archive: {
    ...{ ending: 'zip', mime: 'application/zip', permission: 'archive.take' },
    pieces: (who) => writtenAtOneMoment(who, archive),
  },
  contacts: {
    ...{ ending: 'vcf', mime: 'text/vcard; charset=utf-8', permission: 'figures.contacts' },
    pieces: (who) => exported(who, contactCards),
  },
  journal: {
    ...{ ending: 'ledger', mime: 'text/plain; charset=utf-8', permission: 'ledger.see' },
    pieces: (who) => exported(who, journal),
  },
}
export const isExported = (what: string): what is Exported =>
  (EXPORTED as readonly string[]).includes(what)
export const writingOf = (what: Exported): Writing =>
  OTHERS[what] ?? { ...CSV, pieces: (who) => exported(who, csvExports.get(what)!) }
export const mayTake = (ctx: Pick<Ctx, 'actor'>, what: Exported): boolean =>
  may(ctx, writingOf(what).permission)

/** It goes out: that it did, and with whom, is kept. */
export async function takenAlong(call: Call, what: Exported, filename: string): Promise<Raw> {
  await call.inContext(async (ctx) => {
    await putExportRun(ctx.tx, what, ctx.actor?.id ?? null, ctx.now)
    const fact = archiveFacts.taken({ what })
    await record(ctx, { subject: 'settings', id: ctx.id(), fact })
  })
  const { mime, pieces } = writingOf(what)
  return new Raw(mime, pieces(call), filename)
}
/** An archive is called after the firm and the day. */
export const archiveName = ({ company, today }: Pick<Ctx, 'company' | 'today'>): string =>
  `${company.name.replace(/[^\p{L}\p{N}]+/gu, '-').replace(/^-|-$/g, '') || 'firm'}-${today}.zip`
