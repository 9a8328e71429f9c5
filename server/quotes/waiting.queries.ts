// SQL of where quotes wait.
import { whereQuoteStands, type QuoteFacts } from '../../core/waiting/whereItStands'
import { waits, type Waiting, type Waits } from '../subject'

type QuoteRow = Waiting &
  Omit<QuoteFacts, 'createdOn' | 'sentOn' | 'openedOn'> & {
    created: string
    sent: string | null
    opened: string | null
  }
export const WAITS: readonly Waits[] = [
  waits<QuoteRow>({
    kind: 'quote',
    from: 'quotes q',
    joins: 'JOIN customers c ON c.id = q.customer_id',
    id: 'q.id',
    columns: `CONCAT(q.number, ' ', q.title) AS label, c.name AS whose, q.net_minor AS sum, q.state,
      q.expires_on, q.created_at AS created, q.sent_at AS sent, q.opened_at AS opened,
      (q.state <> 'accepted' OR q.work_order_id IS NOT NULL) AS carried`,
    sum: 'q.net_minor',
    places: () => ({ quotes: [`q.state IN ('draft', 'sent')`] }),
    stands: ({ created, sent, opened, ...quote }, at) => {
      const on = (instant: string) => at.dateOf(Date.parse(instant))
      const dates = {
        ...{ createdOn: on(created), sentOn: sent && on(sent) },
        openedOn: opened && on(opened),
      }
      return whereQuoteStands({ ...quote, ...dates }, at)
    },
    to: ({ id }) => `/quotes/${id}`,
  }),
]
