<script setup lang="ts">
// Customers from a file: what each column means, a dry run that says what is wrong row by row, then for good, with progress and undo.
import { computed, ref } from 'vue'
import {
  cardsAsTable,
  guessColumns,
  IMPORT_FIELDS,
  type ImportField,
} from '~~/core/customers/importRows'
import { readCsv, type Table } from '~~/core/formats/readCsv'
import { readVcf } from '~~/core/formats/vcf'
import { ROWS_A_PIECE } from '~~/shared/imports'
import type { Answer } from '~~/shared/api'
import { call, newId } from '~/lib/api'
import { tableOf, textOf } from '~/lib/readTable'
import { useAct } from '~/lib/useAct'
import { useLoad } from '~/lib/useLoad'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office' })
const session = useSession()
const { data: earlier, refresh } = useLoad(() => call('imports'), 0, { subjects: ['import'] })
const { busy, problem, act } = useAct()
const said = ref('')
const fileName = ref('')
const table = ref<Table | null>(null)
const columns = ref<(ImportField | null)[]>([])
const skip = ref(true)
const progress = ref(0)
const dry = ref<{ rows: Answer<'importPiece'>['rows']; added: number; skipped: number } | null>(
  null,
)
const done = ref<{ id: string; added: number; skipped: number } | null>(null)
const LARGEST = 20_000_000
const MOST_ROWS = 50_000
async function read(e: Event) {
  const input = e.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  said.value = ''
  dry.value = done.value = null
  if (!file) return
  table.value = null
  try {
    const text = await textOf(file, LARGEST)
    const got = tableOf(text, MOST_ROWS, (t) =>
      /BEGIN:VCARD/i.test(t.slice(0, 2000)) ? cardsAsTable(readVcf(t)) : readCsv(t),
    )
    table.value = got
    columns.value = guessColumns(got.head)
    fileName.value = file.name
  } catch (error) {
    said.value = `${file.name}: ${(error as Error).message}`
  }
}
const ready = computed(() => columns.value.includes('name'))
async function run(forGood: boolean) {
  await act(async () => {
    const { rows } = table.value!
    const id = newId()
    const sum = { rows: [] as Answer<'importPiece'>['rows'], added: 0, skipped: 0 }
    progress.value = 0
    for (let i = 0; i < rows.length; i += ROWS_A_PIECE) {
      const piece = await call('importPiece', {
        params: { id },
        body: {
          fileName: fileName.value,
          dry: !forGood,
          skipDuplicates: skip.value,
          columns: columns.value,
          rows: rows.slice(i, i + ROWS_A_PIECE).map((r) => r.map((cell) => cell.slice(0, 2000))),
          first: i + 2,
        } as never,
      })
      sum.rows.push(...piece.rows.filter((r) => r.state !== 'new').slice(0, 300 - sum.rows.length))
      sum.added += piece.added
      sum.skipped += piece.skipped
      progress.value = Math.min(100, Math.round(((i + ROWS_A_PIECE) / rows.length) * 100))
      if (forGood) done.value = { id, added: sum.added, skipped: sum.skipped }
    }
    if (!forGood) dry.value = sum
    else {
      dry.value = null
      table.value = null
    }
  })
  await refresh()
}
const undo = (id: string) =>
  act(async () => {
    const { removed, kept } = await call('undoImport', { params: { id } })
    said.value = `Taken back: ${removed} customers taken out${kept ? `, ${kept} stay because something was done with them since` : ''}.`
    done.value = null
    await refresh()
  })
const label = (f: string) => f.replaceAll('_', ' ').replace('email', 'mail')
</script>

<template>
  <section class="page">
    <h1>Import customers</h1>
    <p class="quiet">
      A file with comma-separated values (CSV) or address-book cards (vCard). Nothing is taken in
      before you have seen what would happen.
    </p>
    <label class="btn pick"
      ><input
        type="file"
        class="visually-hidden"
        accept=".csv,.txt,.tsv,.vcf,text/csv,text/vcard"
        :disabled="busy"
        @change="read"
      />Choose a file</label
    >
    <p
      v-if="said"
      class="note warn"
      role="status"
    >
      {{ said }}
    </p>
    <p
      v-if="problem"
      class="note bad"
      role="alert"
    >
      {{ problem.message }}
    </p>
    <div
      v-if="done"
      class="note row"
      role="status"
    >
      <span class="grow"
        ><b>{{ done.added }} customers taken in</b>, {{ done.skipped }} rows left out.</span
      ><button
        class="btn"
        :disabled="busy"
        @click="undo(done.id)"
      >
        Undo the import
      </button>
    </div>
    <p
      v-if="busy && table"
      role="status"
      class="row"
    >
      <progress
        :value="progress"
        max="100"
        aria-label="Progress"
      />
      {{ progress }} %
    </p>
    <template v-if="table">
      <h2>{{ fileName }}: {{ table.rows.length }} rows</h2>
      <div class="wide">
        <table class="book">
          <thead>
            <tr>
              <th>Column</th>
              <th>Means</th>
              <th>First row</th>
              <th>Second row</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="(h, i) in table.head"
              :key="i"
            >
              <td>{{ h }}</td>
              <td>
                <select
                  v-model="columns[i]"
                  class="plain"
                  :aria-label="`Meaning of ${h}`"
                >
                  <option :value="null">leave out</option>
                  <option
                    v-for="f in IMPORT_FIELDS"
                    :key="f"
                    :value="f"
                    :disabled="columns.includes(f) && columns[i] !== f"
                  >
                    {{ label(f) }}
                  </option>
                </select>
              </td>
              <td class="clip">{{ table.rows[0]?.[i] }}</td>
              <td class="clip">{{ table.rows[1]?.[i] }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p
        v-if="!ready"
        class="wrong"
      >
        Say which column holds the name.
      </p>
      <div class="row">
        <label class="row"
          ><input
            v-model="skip"
            type="checkbox"
          />
          Leave out rows that are perhaps known already</label
        ><span class="grow" /><button
          class="btn"
          :disabled="busy || !ready"
          @click="run(false)"
        >
          Try it dry</button
        ><button
          class="btn act"
          :disabled="busy || !ready || !dry"
          @click="run(true)"
        >
          Take in {{ dry?.added ?? '' }} customers
        </button>
      </div>
      <template v-if="dry">
        <p role="status">
          <b>{{ dry.added }}</b> would be taken in, <b>{{ dry.skipped }}</b> left out. Nothing has
          been changed yet.
        </p>
        <table
          v-if="dry.rows.length"
          class="book"
        >
          <thead>
            <tr>
              <th class="right">Row</th>
              <th>Name</th>
              <th>What</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="r in dry.rows"
              :key="r.row"
            >
              <td class="right num">{{ r.row }}</td>
              <td>{{ r.name || '–' }}</td>
              <td :class="r.state === 'wrong' ? 'late' : r.state === 'more' ? 'good' : 'soon'">
                {{
                  r.state === 'more'
                    ? `adds a site or contact to ${r.of.split(':')[0]}`
                    : r.state === 'wrong'
                      ? r.problems.map((p) => `${label(p.field)}: ${p.message}`).join(' ')
                      : `perhaps ${r.of}`
                }}
              </td>
            </tr>
          </tbody>
        </table>
      </template>
    </template>
    <template v-if="earlier?.items.length"
      ><h2>Earlier imports</h2>
      <table class="book">
        <tbody>
          <tr
            v-for="i in earlier.items"
            :key="i.id"
          >
            <td>{{ i.fileName }}</td>
            <td class="right num">{{ i.added }} taken in</td>
            <td class="right num">{{ i.skipped }} left out</td>
            <td class="quiet">{{ session.dayTime(i.at) }} · {{ i.by }}</td>
            <td class="right">
              <span
                v-if="i.undone"
                class="quiet"
                >taken back</span
              ><button
                v-else
                class="btn"
                :disabled="busy"
                @click="undo(i.id)"
              >
                Undo
              </button>
            </td>
          </tr>
        </tbody>
      </table></template
    >
  </section>
</template>

<style scoped>
.page {
  padding: 18px 20px;
  display: flex;
  flex-direction: column;
  gap: 12px;
  max-width: 1000px;
}
.pick {
  align-self: flex-start;
}
.wide {
  max-height: 380px;
  overflow: auto;
}
.clip {
  max-width: 220px;
}
progress {
  width: 260px;
  accent-color: var(--green);
}
</style>
