// The routes of work orders and visits, bound to their service.
import { notFound } from '../../core/errors/LedgerError'
import { toMoney } from '../../core/money/formatMinor'
import { whyToBill } from '../../core/waiting/whereItStands'
import type { visitRoutes } from '../../shared/visits'
import { outside, Raw, type Handlers } from '../http/route'
import { historyOf } from '../http/queries'
import { pageOf, paging } from '../http/paging'
import { visibleWorkOrder } from './account'
import { workOrderPaper } from './views'
import { callBack } from './callBacks'
import { signedDocument } from '../../core/visits/signedPaper'
import { clock } from './clock'
import { enterTime, mendTime } from './mending'
import { fieldDay, fieldVisit, proposeNext, writeFindings } from './field'
import { addLines, changeLine, keepWorkRates } from './lines'
import { addPhoto, photo, sign } from './evidence'
import { cancelWorkOrder, closeWorkOrder, reopenWorkOrder } from './ending'
import { chargeTime, explainTime } from './time'
import { leaveUndone } from './undone'
import { discountLines } from './discounts'
import { beginBill } from './withoutVisit'
import { keepPhases } from './phases'
import { carryOver, park, writeWorkOrder } from './words'
import { followUpLists } from './queries'
import { workOrderPage } from './list.queries'
import { waitsAt } from '../waiting/at'
import { onSite } from './waiting.queries'
import { signatureImage, signedPaperById } from './papers.queries'

export const visitHandlers: Handlers<typeof visitRoutes> = {
  async workOrders(ctx, { query }) {
    const p = paging(query, ['created', 'number'], '-created')
    const { rows, total } = await workOrderPage(ctx.tx, {
      ...p,
      q: query.q ?? '',
      states: (query.state ?? '').split(',').filter(Boolean),
      kind: query.kind,
      followUp: query.followUp,
      onSite: query.onSite ? onSite(waitsAt(ctx).sql) : null,
    })
    const why = ({
      state,
      toBill,
      uncoveredSeconds,
      undone,
      notAgreed,
      doneAt,
      ahead,
    }: (typeof rows)[number]) =>
      state === 'to_bill'
        ? whyToBill(
            {
              ...{
                state,
                uncoveredSeconds,
                undone,
                notAgreed,
                toBillMinor: toBill,
                ahead: Boolean(ahead),
              },
              doneAt: doneAt === null ? null : Date.parse(doneAt),
            },
            ctx,
          ).reason
        : ''
    return pageOf(rows, total, p.limit, (r) => ({
      id: r.id,
      number: r.number,
      title: r.title,
      customer: r.customer,
      town: r.town,
      kind: r.kind,
      state: r.state,
      createdAt: r.createdAt,
      doneAt: r.doneAt,
      toBill: toMoney(r.toBill, ctx.company.currency),
      technician: r.technician ?? '',
      startedAt: r.startedAt,
      why: why(r),
      followUp: r.followUp,
      followUpOn: r.followUpOn,
      overdue: r.followUpOn !== null && r.followUpOn <= ctx.today,
    }))
  },
  workOrder: (ctx, { params }) => workOrderPaper(ctx, params.id!),
  async workOrderEarlier(ctx, { params, query }) {
    const { id } = await visibleWorkOrder(ctx, params.id!)
    return { items: await historyOf(ctx, 'work_order_id', [id], query.before) }
  },
  followUpLists: async (ctx) => ({ items: await followUpLists(ctx.tx) }),
  followUp: (ctx, { params, body }) => park(ctx, params.id!, body),
  callBack: (ctx, { params, body }) => callBack(ctx, params.id!, body),
  carryOver: (ctx, { params }) => carryOver(ctx, params.id!),
  beginBill: (ctx, { body }) => beginBill(ctx, body),
  keepPhases: (ctx, { params, body }) => keepPhases(ctx, params.id!, body),
  writeWorkOrder: (ctx, { params, body }) => writeWorkOrder(ctx, params.id!, body),
  keepWorkRates: (ctx, { params, body }) => keepWorkRates(ctx, params.id!, body),
  addLines: (ctx, { params, body }) => addLines(ctx, params.id!, body),
  changeLine: (ctx, { params, body }) => changeLine(ctx, params.id!, body),
  discountLines: (ctx, { params, body }) => discountLines(ctx, params.id!, body),
  sign: outside((call, { params, body }) => sign(call, params.id!, body)),
  async signedPaper(ctx, { params }) {
    const found = await signedPaperById(ctx.tx, params.id!)
    if (!found) throw notFound('signed paper')
    await visibleWorkOrder(ctx, found.workOrderId)
    const paper = signedDocument(found.shown, found.hash)
    const facts = paper.facts.map(({ text, strong = false }) => ({ text, strong }))
    const sums = paper.sums.map(({ strong = false, ...sum }) => ({ ...sum, strong }))
    return { ...paper, facts, sums }
  },
  async signature(ctx, { params }) {
    const found = await signatureImage(ctx.tx, params.id!)
    if (!found) throw notFound('signature')
    await visibleWorkOrder(ctx, found.workOrderId)
    return new Raw('image/png', found.image)
  },
  addPhoto: outside((call, { params, body }) => addPhoto(call, params.id!, body)),
  photo: (ctx, { params, query }) => photo(ctx, params.id!, query.size),
  explainTime: (ctx, { params, body }) => explainTime(ctx, params.id!, body),
  leaveUndone: (ctx, { params, body }) => leaveUndone(ctx, params.id!, body),
  chargeTime: (ctx, { params, body }) => chargeTime(ctx, params.id!, body.lineId),
  closeWorkOrder: (ctx, { params, body }) => closeWorkOrder(ctx, params.id!, body.reason),
  cancelWorkOrder: (ctx, { params, body }) => cancelWorkOrder(ctx, params.id!, body),
  reopenWorkOrder: (ctx, { params, body }) => reopenWorkOrder(ctx, params.id!, body),
  fieldDay: (ctx, { query }) => fieldDay(ctx, query.date || ctx.today),
  fieldVisit: (ctx, { params }) => fieldVisit(ctx, params.id!),
  proposeNext: (ctx, { params, body }) => proposeNext(ctx, params.id!, body),
  enterTime: (ctx, { params, body }) => enterTime(ctx, params.id!, body),
  mendTime: (ctx, { params, body }) => mendTime(ctx, params.id!, body),
  clock: (ctx, { params, body }) => clock(ctx, params.id!, body),
  findings: (ctx, { params, body }) => writeFindings(ctx, params.id!, body.version, body.findings),
}
