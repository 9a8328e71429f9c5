<script setup lang="ts">
// By which classes what is sold is taxed, at which rates; several may stand on one line, as of a state and a county.
import { ref } from 'vue'
import ActButton from '~/base/ActButton.vue'
import DataTable from '~/base/DataTable.vue'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'
import type { Answer } from '~~/shared/api'
import TaxClassForm from './TaxClassForm.vue'

defineProps<{ may: boolean }>()
type Class = Answer<'taxClasses'>['classes'][number]
const { data, problem, refresh } = useAnswer('taxClasses', undefined, SHOWS.setUp)
const session = useSession()
const editing = ref<Class | 'new' | null>(null)
const MODES = {
  added: 'Our prices are without tax, which is added.',
  included: 'Our prices have the tax inside.',
  withheld: 'Customers withhold the tax from what they pay.',
} as const
/** @example 'VAT 19 % until 31 Dec 2026' */
const sayRate = ({ name, percent, from, until, postcodes }: Class['rates'][number]) =>
  [
    `${name} ${percent} %`,
    from && `from ${session.day(from, 'withYear')}`,
    until && `until ${session.day(until, 'withYear')}`,
    postcodes && `at ${postcodes}…`,
  ]
    .filter(Boolean)
    .join(' ')
const sayRates = ({ rates }: Class) => rates.map(sayRate).join(' + ') || 'no tax'
const USUAL = { goods: 'what is handed over', work: 'what is done' } as const
</script>

<template>
  <h2 id="taxes">Taxes</h2>
  <template v-if="data">
    <p class="quiet">{{ MODES[data.mode] }}</p>
    <Notice :of="problem" />
    <DataTable
      :rows="data.classes"
      :row-key="(c) => c.id"
      label="Classes of taxes"
      :columns="[
        { key: 'what', label: 'What is taxed so' },
        { key: 'rates', label: 'Rates', text: sayRates },
        ...(may ? [{ key: 'act', right: true }] : []),
      ]"
    >
      <template #what="{ row: c }"
        >{{ c.name
        }}<span
          v-if="c.usualFor"
          class="quiet small"
          ><br />usual for {{ USUAL[c.usualFor] }}</span
        ></template
      >
      <template #act="{ row: c }">
        <ActButton
          :aria-label="`Change the taxes of ${c.name}`"
          @click="editing = c"
          >Change</ActButton
        >
      </template>
    </DataTable>
    <ActButton
      v-if="may"
      @click="editing = 'new'"
      >A further class</ActButton
    >
    <TaxClassForm
      v-if="editing"
      :of="editing === 'new' ? null : editing"
      @kept="data = $event"
      @close="editing = null"
    />
  </template>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
  />
</template>
