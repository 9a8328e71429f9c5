// The layouts that a paper may be made with, to choose from where it is sent; none where the firm has none.
import { computed } from 'vue'
import { namesOf, type Option } from '~/base/fields'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import type { PaperKind } from '~~/core/documents/paperWords'

export function useLayouts(kind: PaperKind) {
  const { data } = useAnswer('layoutNames', undefined, SHOWS.setUp)
  return computed((): Option[] => {
    const there = data.value?.items.filter((one) => one.kind === kind) ?? []
    return there.length
      ? [{ value: null, label: 'as the customer has it, or as is usual' }, ...namesOf(there)]
      : []
  })
}
