// Several at the same moment: one time is booked once, one invoice is paid once, one card page is one charge.
import { v7 } from 'uuid'
import type { Copy } from './copy'
import { Person, type Reply, type Trial } from './tools'
import { DAY } from '../../core/time/units'

const AT_ONCE = 10
const won = (replies: Reply[]) => replies.filter((r) => r.status === 200).length

export async function races(copy: Copy, rounds: number): Promise<Trial> {
  const office = await new Person(copy.base, 'office@demo.test').signIn()
  const books = await new Person(copy.base, 'books@demo.test').signIn()
  const faults: string[] = []
  let acts = 0
  let doubled = 0
  const all = async (what: string, make: (n: number) => Promise<Reply>, most = 1) => {
    const replies = await Promise.all(Array.from({ length: AT_ONCE }, (_, n) => make(n)))
    acts += AT_ONCE
    const got = won(replies)
    if (got > most) doubled += got - most
    if (got === 0)
      faults.push(
        `${what}: nobody got it: ${replies[0]!.status} ${JSON.stringify(replies[0]!.body).slice(0, 160)}`,
      )
    if (replies.some((r) => r.status >= 500))
      faults.push(`${what}: ${replies.find((r) => r.status >= 500)!.status}`)
  }
  const found = (await office.once('GET', '/api/v1/matches?q=lowfold')).body as {
    items: { customerId: string }[]
  }
  const caller = (await office.once('GET', `/api/v1/callers/${found.items[0]!.customerId}`))
    .body as { customerId: string; sites: { id: string }[] }
  const who = { customerId: caller.customerId, siteId: caller.sites[0]!.id }
  const schedule = (await office.once('GET', '/api/v1/schedule')).body as {
    date: string
    technicians: { id: string; goesWith: string | null }[]
  }
  const technicians = schedule.technicians.filter((t) => !t.goesWith)
  const book = (body: object) =>
    office.act('POST', `/calls/${v7()}/book`, {
      workOrderId: v7(),
      visitId: v7(),
      ...who,
      problem: 'Race',
      ...body,
    })
  // Weeks in which nobody has booked anything yet: the demo's own visits end long before.
  const day = (n: number) =>
    new Date(Date.parse(`${schedule.date}T12:00Z`) + (91 + n * 7) * DAY).toISOString().slice(0, 10)
  for (let round = 0; round < rounds; round++) {
    const technicianId = technicians[round % technicians.length]!.id
    const date = day(Math.floor(round / technicians.length))
    await all('one free time', () =>
      book({ technicianId, date, start: '09:00', durationSeconds: 3600 }),
    )
    const visits = await Promise.all(
      Array.from(
        { length: AT_ONCE },
        async () => (await book({})).body as { visitId: string; workOrderId: string },
      ),
    )
    await all('one place', (n) =>
      office.act('POST', `/visits/${visits[n]!.visitId}/place`, {
        version: 1,
        technicianId,
        startAt: `${date}T19:00:00.000Z`,
        durationSeconds: 3600,
        override: false,
      }),
    )
    const { workOrderId } = visits[0]!
    await office.act('POST', `/work-orders/${workOrderId}/lines`, {
      lines: [{ id: v7(), name: 'Work', kind: 'other', quantity: '1', unitPrice: '100' }],
    })
    const invoice = (await books.act('POST', `/work-orders/${workOrderId}/invoice`, { id: v7() }))
      .body as { id: string; open: { amount: string }; link: string }
    const token = invoice.link.split('/i/')[1]!
    const pages = await Promise.all(
      Array.from({ length: AT_ONCE }, () =>
        new Person(copy.base, '').act('POST', `/public/invoices/${token}/card`, {}),
      ),
    )
    const urls = new Set(pages.map((p) => p.body.url))
    if (urls.size !== 1) doubled += urls.size - 1
    await all('one payment', () =>
      books.act('POST', '/payments', {
        id: v7(),
        customerId: who.customerId,
        method: 'cash',
        amount: invoice.open.amount,
        invoiceIds: [invoice.id],
      }),
    )
    // The card that is approved after all goes back.
    await fetch(String([...urls][0]), {
      method: 'POST',
      redirect: 'manual',
      headers: { 'Content-Type': 'application/x-www-form-urlencoded' },
      body: 'number=9000000000000019',
    })
    const paper = (await books.once('GET', `/api/v1/invoices/${invoice.id}`)).body as {
      payments: unknown[]
    }
    if (paper.payments.length !== 1) doubled += paper.payments.length - 1
  }
  return { name: 'races', acts, faults, lost: 0, doubled, rounds }
}
