// SQL of where care agreements wait whose next visit is due.
import { whereAgreementStands, type AgreementFacts } from '../../core/waiting/whereAgreementStands'
import { waits, type Waiting, type Waits } from '../subject'
import { BOOKED } from './queries'

export const WAITS: readonly Waits[] = [
  waits<Waiting & AgreementFacts>({
    kind: 'agreement',
    from: 'agreements a',
    joins: 'JOIN customers c ON c.id = a.customer_id',
    id: 'a.id',
    columns: `a.plan AS label, c.name AS whose, NULL AS sum, a.ends_on, a.visit_due_on, (${BOOKED}) IS NOT NULL
      AS booked, TRUE AS carried`,
    booleans: ['booked'],
    places: ({ today }) => ({
      agreements: [
        `a.ends_on >= ? AND a.visit_due_on <= LAST_DAY(?) AND (${BOOKED}) IS NULL`,
        today,
        today,
      ],
    }),
    stands: (agreement, at) => whereAgreementStands(agreement, at),
    to: ({ id }) => `/agreements#${id}`,
  }),
]
