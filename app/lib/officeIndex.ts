// The index of the office: what stands at its right edge, and who may open it.
import type { Permission } from '~~/core/access/permissions'

type Link = readonly [to: string, name: string, may: Permission]
/** The stops of the run, in their order: Alt 1 to 5. */
export const RUN: readonly Link[] = [
  ['/calls', 'Calls', 'calls.see'],
  ['/schedule', 'Schedule', 'dispatch.see'],
  ['/on-site', 'On site', 'visits.list'],
  ['/to-bill', 'To bill', 'visits.list'],
  ['/unpaid', 'Unpaid', 'collections.work'],
]
/** What stands at an address of the run or the index. */
export const linkAt = (path: string): Link | undefined =>
  [...RUN, ...INDEX.flatMap(({ links }) => links)].find(([to]) => to === path)
/** What stands at the right edge, by what it is to a person. */
export const INDEX: readonly {
  group: string
  links: readonly Link[]
}[] = [
  {
    group: 'Day',
    links: [
      ['/to-act-on', 'To act on', 'figures.see'],
      ['/messages', 'Mail', 'messages.see'],
    ],
  },
  {
    group: 'Books',
    links: [
      ['/customers', 'Customers', 'customers.see'],
      ['/sites', 'Sites', 'customers.see'],
      ['/price-book', 'Price book', 'pricebook.see'],
      ['/agreements', 'Agreements', 'agreements.see'],
    ],
  },
  {
    group: 'Papers',
    links: [
      ['/quotes', 'Quotes', 'quotes.list'],
      ['/work', 'Work orders', 'visits.list'],
      ['/invoices', 'Invoices', 'invoices.list'],
    ],
  },
  {
    group: 'Firm',
    links: [
      ['/guide', 'Guide', 'settings.see'],
      ['/people', 'People', 'settings.see'],
      ['/schedule/set-up', 'Hours', 'dispatch.plan'],
      ['/set-up', 'Set-up', 'settings.see'],
    ],
  },
]
