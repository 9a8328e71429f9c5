// Something that was supplied before, and whether it is in warranty, as screens say it.
import type { Answer } from '~~/shared/api'
import { useSession } from '~/stores/session'

type Supplied = Pick<
  Answer<'caller'>['supplied'][number],
  'name' | 'number' | 'on' | 'warrantyUntil'
>
export const sayWarranty = ({ warrantyUntil }: Pick<Supplied, 'warrantyUntil'>): string => {
  const session = useSession()
  if (!warrantyUntil) return ''
  const day = session.day(warrantyUntil, 'withYear')
  return warrantyUntil < session.today ? `warranty ran until ${day}` : `in warranty until ${day}`
}
export const saySupplied = (supplied: Supplied): string =>
  [
    `${supplied.name}, ${supplied.number}`,
    useSession().day(supplied.on, 'withYear'),
    sayWarranty(supplied),
  ]
    .filter(Boolean)
    .join(' · ')
