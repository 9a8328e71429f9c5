// What a bill of a work order made now would be, and what speaks against making it.
import { beyondAgreedMinor } from '../../core/costing/notAgreedMinor'
import { documentTotals } from '../../core/documents/documentTotals'
import { dueDate } from '../../core/documents/dueDate'
import { mailText } from '../../core/text/mailWords'
import type { Answer } from '../../shared/api'
import { accountFrom, asPaperLine, partialLine } from './account'
import { ownDetails } from './details'
import type { LineRow } from './lines.queries'
import { agreedOn, moneyOf, taxOf, type WorkRead } from './workOrderParts'

type Paper = Answer<'workOrder'>
type Missing = Paper['bill']['missing'][number]
const ofLine = ({ id, version, name }: LineRow, why: Missing['why'], is: string): Missing => ({
  ...{ why, text: `“${name}” ${is}` },
  ...{ lineId: id, version },
})
const saidUndone = ({ promisedMinor }: LineRow) =>
  promisedMinor > 0 ? 'was promised and is not marked done' : 'is not marked done'
const NO_MAIL: Missing = {
  ...{ why: 'no_mail', text: 'this customer has no mail address' },
  ...{ lineId: null, version: null },
}
/** What a bill made now would be, and what speaks against making it. */
export function billPart(read: WorkRead): Paper['bill'] {
  const { ctx, lines, parties, pricing } = read
  const { work, customer, callbackOf } = parties
  const money = moneyOf(read)
  const byId = new Map(lines.map((l) => [l.id, l]))
  const account = accountFrom(lines, read.around.billed)
  const open = account.lines.filter((l) => l.unbilledMinor > 0)
  const bill = documentTotals(
    open.map((a) => {
      const line = byId.get(a.id)!
      return a.billedMinor === 0
        ? asPaperLine(line, pricing.classes)
        : partialLine(a.unbilledMinor, line, pricing.classes, work.currency)
    }),
    taxOf(read),
  )
  const unpriced = lines.filter((l) => l.done && l.netMinor === 0 && !callbackOf)
  const undone = lines.filter((l) => !l.done)
  return {
    net: money(bill.netMinor),
    tax: money(bill.taxMinor),
    total: money(bill.totalMinor),
    issueOn: ctx.today,
    mail: mailText('bill', ctx.company.wording, {
      ...{ name: customer.name, title: work.title, company: ctx.company.name },
    }),
    beyond: money(
      beyondAgreedMinor(
        open.map(({ id, unbilledMinor }) => ({ ...byId.get(id)!, unbilledMinor })),
        agreedOn(read.around),
      ),
    ),
    dueOn: dueDate(ctx.today, customer.terms ?? ctx.company.terms),
    missing: [
      ...unpriced.map((l) => ofLine(l, 'no_price', 'has no price')),
      ...undone.map((l) => ofLine(l, 'undone', saidUndone(l))),
      ...(ownDetails(work, customer, parties.site).email ? [] : [NO_MAIL]),
    ],
  }
}
