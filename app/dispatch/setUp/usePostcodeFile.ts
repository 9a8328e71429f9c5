// A table of postcodes with their places: read here, tried dry, and sent piece by piece.
import { computed, ref } from 'vue'
import {
  guessPostcodes,
  POSTCODE_FIELDS,
  postcodePlaces,
  readPostcodes,
  type PostcodeField,
} from '~~/core/customers/postcodePlaces'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useFileRows } from '~/lib/useFileRows'

const PIECE = 2000
const MOST_ROWS = 150_000

export function usePostcodeFile(refresh: () => Promise<unknown>) {
  const file = useFileRows<PostcodeField>(guessPostcodes, readPostcodes, MOST_ROWS)
  const { busy, problem, act } = useAct()
  /** what the table would do, or did */
  const done = ref<{ postcodes: number; wrong: number; sites: number; kept: boolean } | null>(null)
  file.whenOther(() => (done.value = null))
  const missing = computed(() =>
    POSTCODE_FIELDS.filter((field) => field !== 'town' && !file.columns.value.includes(field)),
  )
  const go = (kept: boolean) =>
    act(async () => {
      const { places, wrong } = postcodePlaces(file.table.value!.rows, file.columns.value)
      const sum = { postcodes: places.length, wrong: wrong.length, sites: 0, kept }
      await file.inPieces(places, PIECE, async (some, first) => {
        const last = first + some.length === places.length
        const body = { places: some, dryRun: !kept, last }
        sum.sites += (await call('keepPostcodes', { body })).sites
      })
      done.value = sum
      if (kept) await refresh()
    })
  return { ...file, busy, problem, act, done, missing, go }
}
