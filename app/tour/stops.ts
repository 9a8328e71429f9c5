// A first call, from the telephone to the money: the places that a tour points at, in their order.
import type { Permission } from '~~/core/access/permissions'

export interface TourStop {
  /** the address of the pages that it is on */
  page: RegExp
  /** what it points at: `data-tour` of an element */
  place: string
  title: string
  says: string
  may?: Permission
  /** is shown once this one was seen */
  after?: string
}
const on = (page: RegExp, may?: Permission) => (place: string, title: string, says: string) => ({
  ...{ page, place, title, says },
  ...(may && { may }),
})
const onCall = on(/^\/calls\/[^/]+$/, 'calls.take')
const onWork = on(/^\/work\/[^/]+$/)
const onDay = on(/^\/field\/?$/)
const onVisit = on(/^\/field\/visits\//)
export const TOUR_STOPS: readonly TourStop[] = [
  onCall(
    'call.who',
    'Who is calling',
    'Type a name, a number or a street. Whoever is not known yet is entered here as new.',
  ),
  onCall(
    'call.what',
    'What is wrong',
    'In the caller’s words. The kind of work proposes how long it takes.',
  ),
  onCall(
    'call.price',
    'What it would cost',
    'Entries of your price book, read out as this caller pays them.',
  ),
  onCall(
    'call.when',
    'A time that can be kept',
    'Each is worked out with the drives and the promises of its day. Choose one.',
  ),
  onCall(
    'call.book',
    'Book it',
    'The visit is on the schedule and on the technician’s phone at once.',
  ),
  onWork(
    'work.account',
    'One account of this work',
    'Promised, done, billed, paid. On a phone the next steps are pressed; the guide has a code that leads there.',
  ),
  onDay('day.visits', 'The day', 'Each visit in its order. Open the one to go to.'),
  onVisit(
    'visit.clock',
    'The clock',
    'Press when you set off, begin and finish: time that nobody pressed is billed by nobody.',
  ),
  onVisit(
    'visit.lines',
    'What is done',
    'Tick off what was done. What came with it is added out of the price book.',
  ),
  onVisit(
    'visit.bill',
    'The money',
    'Bill what is done: the invoice is sent and paid at the door.',
  ),
  onVisit('bill.make', 'The invoice', 'Made and sent in one press. The mail has it as a paper.'),
  onVisit(
    'bill.pay',
    'The payment',
    'How they pay, and how much. The receipt goes to them by mail.',
  ),
  {
    ...on(/^\/(calls|schedule|on-site|to-bill|unpaid)$/)(
      'home.run',
      'Nothing falls between',
      'What is promised, done, billed and not paid, of all work. What waits is here until somebody sees to it.',
    ),
    after: 'work.account',
  },
]

/** What can be pointed at on a page, in its order. */
export const stopsOn = (
  path: string,
  seen: readonly string[],
  may: (permission: Permission) => boolean,
): TourStop[] =>
  TOUR_STOPS.filter(
    (stop) =>
      stop.page.test(path) &&
      (!stop.may || may(stop.may)) &&
      (!stop.after || seen.includes(stop.after)),
  )
