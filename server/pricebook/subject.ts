// What the price book tells the rest of the server about itself.
import type { Subject } from '../subject'
import { FINDING } from './subject.queries'

export const pricebook: Subject = { name: 'pricebook', finds: [FINDING] }
