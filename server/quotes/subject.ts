// What quotes tell the rest of the server about themselves.
import type { Subject } from '../subject'
import { encloseQuote } from './enclosure'
import { linkOfMessage } from './customersPage'
import { quotePapers } from './papers'
import { ERASURES, FINDING } from './subject.queries'
import { WAITS } from './waiting.queries'

export const quotes: Subject = {
  name: 'quotes',
  moves: {
    quotes: { one: 'quote', several: 'quotes' },
  },
  erases: ERASURES,
  finds: [FINDING],
  encloses: { quote: encloseQuote },
  linkFor: linkOfMessage,
  papers: quotePapers,
  waits: WAITS,
}
