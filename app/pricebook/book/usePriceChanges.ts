// Prices that were typed over: looked at first, made, and taken back in one act.
import { reactive, ref } from 'vue'
import type { Answer } from '~~/shared/api'
import { call, newId } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { usePriceEdits } from '~/stores/priceEdits'

export function usePriceChanges(refresh: () => Promise<unknown>) {
  const edits = usePriceEdits()
  const { busy, problem, act } = useAct()
  const preview = ref<Answer<'previewPrices'> | null>(null)
  const done = ref<Answer<'changePrices'> | null>(null)
  const said = ref('')
  /** what was pasted and has no place */
  const left = ref('')
  const look = () =>
    act(async () => {
      if (!edits.ids.length || edits.wrong.length) return
      done.value = null
      said.value = left.value = ''
      preview.value = await call('previewPrices', { body: { rule: 'each', each: edits.each() } })
    })
  async function propose(ids: string[]) {
    edits.follow(ids)
    await look()
  }
  let actId = newId()
  const change = ({ title, holdsFrom }: { title: string; holdsFrom: string }) =>
    act(async () => {
      done.value = await call('changePrices', {
        body: {
          id: actId,
          title: title || `${edits.ids.length} prices by hand`,
          holdsFrom: holdsFrom || null,
          stamp: preview.value!.stamp,
          rule: 'each',
          each: edits.each(),
        },
      })
      actId = newId()
      preview.value = null
      edits.clear()
      await refresh()
    })
  const undo = () =>
    act(async () => {
      const { left: stays } = await call('undoPrices', { params: { id: done.value!.id } })
      said.value = stays
        ? `Taken back, but for ${stays} that somebody changed since.`
        : 'Taken back.'
      done.value = null
      await refresh()
    })
  function back() {
    preview.value = null
    problem.value = null
  }
  const acts = { look, propose, change, undo, back }
  return reactive({ busy, problem, preview, done, said, left, ...acts })
}
export type PriceChanges = ReturnType<typeof usePriceChanges>
