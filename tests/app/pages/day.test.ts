// The pages of the day: calls, the schedule, what is on site, to bill, mail, work orders, the technician's own.
import { tryPages } from './tryPage'

tryPages((path) => /^\/(calls|schedule|field|on-site|to-bill|messages|work)/.test(path))
