// The pages of the books: customers, sites, agreements, the price book, papers, what is unpaid, set-up.
import { tryPages } from './tryPage'

const OF_THE_DAY = /^\/(calls|schedule|field|on-site|to-bill|messages|work)/
/** The public pages are fetched on the server, and tried in a browser. */
const PUBLIC = ['/', '/i/:token', '/q/:token', '/request', '/begin', '/come-in/:token']
tryPages((path) => !OF_THE_DAY.test(path) && !PUBLIC.includes(path))
