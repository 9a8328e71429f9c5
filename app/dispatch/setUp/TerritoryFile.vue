<script setup lang="ts">
// Territories from a CSV file: what it would change is shown before it is kept.
import { reactive } from 'vue'
import type { Answer } from '~~/shared/api'
import ActButton from '~/base/ActButton.vue'
import DataTable from '~/base/DataTable.vue'
import FileInput from '~/base/FileInput.vue'
import Notice from '~/base/Notice.vue'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'

const emit = defineEmits<{ kept: [] }>()
const { busy, problem, act } = useAct()
const file = reactive({ data: '', found: null as Answer<'importTerritories'> | null })
const MOST_ERRORS = 8
const read = ([chosen]: File[]) =>
  act(async () => {
    if (!chosen) return
    file.data = await chosen.text()
    file.found = null
    file.found = await call('importTerritories', { body: { data: file.data, dryRun: true } })
  })
const keep = () =>
  act(async () => {
    file.found = await call('importTerritories', { body: { data: file.data, dryRun: false } })
    file.data = ''
    emit('kept')
  })
</script>

<template>
  <div class="sheet box">
    <div class="row">
      <span class="small quiet grow"
        >Or a CSV file with a territory and a postcode in each row</span
      >
      <FileInput
        label="Choose a CSV file"
        accept=".csv,text/csv"
        @choose="read"
      />
      <a
        class="btn"
        href="/api/v1/export/territories.csv"
        >Save as CSV</a
      >
      <NuxtLink
        class="btn"
        to="/schedule/map"
        >See them on the map</NuxtLink
      >
    </div>
    <Notice :of="problem" />
    <template v-if="file.found">
      <DataTable
        :rows="file.found.territories"
        :row-key="(t) => t.name"
        :columns="[
          { key: 'name', look: 'strong', text: (t) => t.name },
          { key: 'postcodes', look: 'num', text: (t) => `${t.postcodes} postcodes` },
          { key: 'added', look: 'good num', text: (t) => `${t.added} new` },
          {
            key: 'dropped',
            look: 'num',
            tone: (t) => ({ soon: t.dropped }),
            text: (t) => `${t.dropped} dropped`,
          },
        ]"
      />
      <p
        v-for="error in file.found.errors.slice(0, MOST_ERRORS)"
        :key="error.line"
        class="wrong"
      >
        Line {{ error.line }}: {{ error.message }}
      </p>
      <p
        v-if="file.found.errors.length > MOST_ERRORS"
        class="wrong"
      >
        and {{ file.found.errors.length - MOST_ERRORS }} more lines
      </p>
      <div class="row">
        <ActButton
          v-if="!file.found.kept"
          primary
          :disabled="busy || !file.found.territories.length"
          @click="keep"
        >
          Keep {{ file.found.territories.length }}
          {{ file.found.territories.length === 1 ? 'territory' : 'territories' }}
        </ActButton>
        <span
          v-else
          class="good"
          >Kept.</span
        >
      </div>
    </template>
  </div>
</template>
