<script setup lang="ts">
// Customers from a file: what each column means, a dry run that says what is wrong row by row, then for good, with progress and undo.
import { computed, ref, watch } from 'vue'
import {
  cardsAsTable,
  guessColumns,
  IMPORT_FIELDS,
  type ImportField,
} from '~~/core/customers/importRows'
import { readCsv } from '~~/core/formats/readCsv'
import { readVcf } from '~~/core/formats/vcf'
import { PIECE_ROWS } from '~~/shared/imports'
import type { Answer } from '~~/shared/api'
import { call, newId } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useAnswer } from '~/lib/useAnswer'
import { useFileRows } from '~/lib/useFileRows'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import FileInput from '~/base/FileInput.vue'
import DataTable from '~/base/DataTable.vue'
import EarlierImports from '~/components/base/EarlierImports.vue'
import FileColumns from '~/components/base/FileColumns.vue'
import ImportNews from '~/components/base/ImportNews.vue'

definePageMeta({ layout: 'office' })
const { data: earlier, refresh } = useAnswer('imports', undefined, { subjects: ['import'] })
const { busy, problem, act } = useAct()
const file = useFileRows<ImportField>(guessColumns, (text) =>
  /BEGIN:VCARD/i.test(text.slice(0, 2000)) ? cardsAsTable(readVcf(text)) : readCsv(text),
)
const { fileName, table, columns, said, progress } = file
const skip = ref(true)
const dry = ref<{ rows: Answer<'importPiece'>['rows']; added: number; skipped: number } | null>(
  null,
)
const done = ref<{ id: string; added: number; skipped: number } | null>(null)
// What was tried dry is what is taken in: with other columns it is tried again.
file.whenOther(() => (dry.value = null))
watch(skip, () => (dry.value = null))
async function read(files: File[]) {
  done.value = null
  await file.choose(files)
}
const ready = computed(() => columns.value.includes('name'))
async function run(forGood: boolean) {
  await act(async () => {
    const { rows } = table.value!
    const id = forGood ? file.id() : newId()
    const sum = { rows: [] as Answer<'importPiece'>['rows'], added: 0, skipped: 0 }
    await file.inPieces(rows, PIECE_ROWS, async (some, i) => {
      const piece = await call('importPiece', {
        params: { id },
        body: {
          fileName: fileName.value,
          dry: !forGood,
          skipDuplicates: skip.value,
          columns: columns.value,
          rows: some.map((r) => r.map((cell) => cell.slice(0, 2000))),
          first: i + 2,
        },
      })
      sum.rows.push(...piece.rows.filter((r) => r.state !== 'new').slice(0, 300 - sum.rows.length))
      sum.added += piece.added
      sum.skipped += piece.skipped
      if (forGood) done.value = { id, added: sum.added, skipped: sum.skipped }
    })
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
    <FileInput
      class="pick"
      label="Choose a file"
      accept=".csv,.txt,.tsv,.vcf,text/csv,text/vcard"
      :disabled="busy"
      @choose="read"
    />
    <ImportNews
      v-bind="{ said, problem, busy }"
      :progress="table ? progress : null"
      :done="Boolean(done)"
      @undo="undo(done!.id)"
      ><b>{{ done?.added }} customers taken in</b>, {{ done?.skipped }} rows left out.</ImportNews
    >
    <template v-if="table">
      <h2>{{ fileName }}: {{ table.rows.length }} rows</h2>
      <FileColumns
        v-model="columns"
        :head="table.head"
        :rows="table.rows"
        :fields="IMPORT_FIELDS"
        :label="label"
      />
      <p
        v-if="!ready"
        class="wrong"
      >
        Say which column holds the name.
      </p>
      <div class="row">
        <Check v-model="skip"> Leave out rows that are perhaps known already</Check
        ><span class="grow" /><ActButton
          :disabled="busy || !ready"
          @click="run(false)"
        >
          Try it dry</ActButton
        ><ActButton
          primary
          :disabled="busy || !ready || !dry"
          @click="run(true)"
        >
          Take in {{ dry?.added ?? '' }} customers
        </ActButton>
      </div>
      <template v-if="dry">
        <p role="status">
          <b>{{ dry.added }}</b> would be taken in, <b>{{ dry.skipped }}</b> left out. Nothing has
          been changed yet.
        </p>
        <DataTable
          v-if="dry.rows.length"
          :rows="dry.rows"
          :row-key="(r) => r.row"
          :columns="[
            { key: 'row', label: 'Row', figures: true, text: (r) => r.row },
            { key: 'name', label: 'Name', text: (r) => r.name || '–' },
            {
              key: 'what',
              label: 'What',
              tone: (r) => (r.state === 'wrong' ? 'late' : r.state === 'more' ? 'good' : 'soon'),
              text: (r) =>
                r.state === 'more'
                  ? `adds a site or contact to ${r.of.split(':')[0]}`
                  : r.state === 'wrong'
                    ? r.problems.map((p) => `${label(p.field)}: ${p.message}`).join(' ')
                    : `perhaps ${r.of}`,
            },
          ]"
        >
        </DataTable>
      </template>
    </template>
    <EarlierImports
      v-if="earlier"
      :items="earlier.items"
      :busy="busy"
      @undo="undo"
    />
  </section>
</template>

<style scoped>
.page {
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
</style>
