// Who the rows of a list of open items are about.
import { payerOf, type OpenItem } from '../../core/broughtForward/openItem'
import { formatPhone } from '../../core/text/phone'
import { searchKey } from '../../core/text/searchKey'
import type { Ctx } from '../http/context'
import { payersLike, type PayerRow } from './queries'

/** Who a row is about: somebody known, or somebody whom the row makes. */
export type Payer = PayerRow & { isNew: boolean }
/** Who may be meant; whoever a row makes is there for the rows that follow. */
export async function payersOf(ctx: Ctx, items: readonly OpenItem[]) {
  const phoneOf = (item: OpenItem) => formatPhone(item.phone, ctx.company.country)
  const found = items.length
    ? await payersLike(ctx.tx, {
        names: [...new Set(items.map(({ customer }) => customer))],
        phones: [...new Set(items.map(phoneOf).filter(Boolean))],
        mails: [...new Set(items.map(({ email }) => email).filter(Boolean))],
      })
    : []
  const byKey = new Map<string, Payer[]>()
  const add = (payer: Payer) => {
    for (const key of keysOf(payer)) byKey.set(key, [...(byKey.get(key) ?? []), payer])
  }
  found.forEach((row) => add({ ...row, isNew: false }))
  const knownAs = (payer: Payer) => ({
    ...{ id: payer.id, name: payer.name, payer },
    phones: [payer.phone, payer.phone2].filter(Boolean),
    mails: [payer.email, payer.email2].filter(Boolean).map((mail) => mail.toLowerCase()),
  })
  return {
    find(item: OpenItem): { payer: Payer | null; several: boolean } {
      const phone = phoneOf(item)
      const near = keysOf({ name: item.customer, phone, phone2: '', email: item.email, email2: '' })
      const some = new Map(near.flatMap((key) => byKey.get(key) ?? []).map((p) => [p.id, p]))
      const { payer, several } = payerOf({ ...item, phone }, [...some.values()].map(knownAs))
      return { payer: payer ? some.get(payer.id)! : null, several }
    },
    make(item: OpenItem): Payer {
      const words = { name: item.customer, phone: phoneOf(item), email: item.email }
      const nowhere = { phone2: '', email2: '', line1: '', town: '', postcode: '' }
      const payer = { id: ctx.id(), ...words, ...nowhere, isNew: true }
      add(payer)
      return payer
    },
  }
}
type Reached = Pick<PayerRow, 'name' | 'phone' | 'phone2' | 'email' | 'email2'>
const keysOf = ({ name, phone, phone2, email, email2 }: Reached): string[] => [
  `n${searchKey(name)}`,
  ...[phone, phone2].filter(Boolean).map((p) => `p${p}`),
  ...[email, email2].filter(Boolean).map((m) => `m${m.toLowerCase()}`),
]
