// What work of the call's kind usually charges: read out with it, and left out only for a reason.
import { computed, type Ref } from 'vue'
import { missingCharges } from '~~/core/visits/workKinds'
import { entriesNamed } from '~/lib/book'
import type { Draft } from '~/stores/call'
import { useSession } from '~/stores/session'
import type { ReadLine } from './useReadOut'

/** Entries of the book as they are read out, one of each; and whether those that are not among them are gone from it. */
export async function readEntries(
  ids: readonly string[],
): Promise<{ found: ReadLine[]; isSure: boolean }> {
  const { found, isSure } = await entriesNamed(useSession().me!.person.id, ids)
  return { found: found.map((entry) => ({ ...entry, quantity: '1' })), isSure }
}
export function useUsualCharges(draft: Ref<Draft>, lines: Ref<ReadLine[]>) {
  const session = useSession()
  const chargesOf = (kind: string): readonly string[] => session.kindOf(kind)?.charges ?? []
  const usual = computed(() => chargesOf(draft.value.kind))
  const missing = computed(() => {
    const read = lines.value.map(({ id }) => id)
    return missingCharges(usual.value, read, draft.value.leftOut)
  })
  async function take(ids: readonly string[]) {
    const { found } = await readEntries(ids)
    // While the book was opened, somebody may have chosen the same, or another kind.
    const still = found.filter(({ id }) => missing.value.includes(id))
    if (still.length) lines.value = [...lines.value, ...still]
  }
  /** What only the kind before charges goes with it; what this one charges is read out. */
  async function follow(before: string) {
    const gone = chargesOf(before).filter((id) => !usual.value.includes(id))
    lines.value = lines.value.filter(({ id, quantity }) => !gone.includes(id) || quantity !== '1')
    draft.value.leftOut = draft.value.leftOut.filter(({ entryId }) => usual.value.includes(entryId))
    await take(missing.value)
  }
  function leaveOut(entryId: string, reason: string) {
    lines.value = lines.value.filter(({ id }) => id !== entryId)
    draft.value.leftOut = [
      ...draft.value.leftOut.filter((one) => one.entryId !== entryId),
      { entryId, reason },
    ]
  }
  async function readOut(entryId: string) {
    draft.value.leftOut = draft.value.leftOut.filter((one) => one.entryId !== entryId)
    await take([entryId])
  }
  return { usual, missing, follow, leaveOut, readOut }
}
