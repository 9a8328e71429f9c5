<script setup lang="ts">
// What a change of prices would do: entry by entry, to what follows, to the margins and to a year's sales. Questions are answered once.
import { computed, ref, watch } from 'vue'
import type { Answer } from '~~/shared/api'
import MarginChart from './MarginChart.vue'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import DateInput from '~/base/DateInput.vue'
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'
import DataTable from '~/base/DataTable.vue'

type Preview = Omit<Answer<'previewPrices'>, 'stamp' | 'count'>
const props = defineProps<{
  preview: Preview
  busy: boolean
  /** names the act, where it is not the caller's own */ act?: boolean
}>()
const emit = defineEmits<{
  change: [how: { title: string; holdsFrom: string }]
  propose: [ids: string[], byRule: boolean]
}>()
const session = useSession()
const title = ref('')
const holdsFrom = ref('')
const meant = ref<string[]>([])
// Whatever is asked is asked of what is shown now.
watch(
  () => props.preview,
  () => {
    meant.value = []
  },
)
const answered = computed(() => props.preview.questions.every((q) => meant.value.includes(q)))
const count = computed(() => props.preview.changed + props.preview.follow)
const proposals = computed(() => props.preview.rows.filter((r) => r.proposed !== null))
const show = (amount: string | null) => (amount === null ? '–' : session.figure(amount))
const percent = (f: string | null) => (f === null ? '–' : `${(Number(f) * 100).toFixed(1)} %`)
defineExpose({ answered })
</script>

<template>
  <div class="sheet box">
    <div class="row top">
      <div class="grow">
        <p>
          <b class="num">{{ preview.changed }}</b>
          {{ preview.changed === 1 ? 'entry changes' : 'entries change'
          }}<template v-if="preview.follow"
            >, <b class="num">{{ preview.follow }}</b>
            {{ preview.follow === 1 ? 'follows' : 'follow' }}</template
          >. Nothing has changed yet.
        </p>
        <p>
          The last twelve months sold at these prices would have brought
          <b class="num">{{
            session.money({ ...preview.effect, amount: preview.effect.amount.replace('-', '') })
          }}</b>
          {{ preview.effect.amount.startsWith('-') ? 'less' : 'more' }} ({{ preview.soldLines }}
          lines).
        </p>
        <Check
          v-for="q in preview.questions"
          :key="q"
          v-model="meant"
          class="note warn"
          :value="q"
        >
          {{ q }} Yes, it is meant.</Check
        >
        <p
          v-if="preview.questions.length"
          class="quiet small"
        >
          What is asked about stands first in the table.
        </p>
        <p
          v-if="proposals.length"
          class="note row"
          role="status"
        >
          <span class="grow"
            ><b>{{ proposals.length }}</b> with a fixed price
            {{ proposals.length === 1 ? 'has' : 'have' }} a new cost. The rule would make another
            price of it, shown beside each.</span
          ><ActButton
            :disabled="busy"
            @click="
              emit(
                'propose',
                proposals.map((p) => p.id),
                true,
              )
            "
          >
            Let all follow the rule
          </ActButton>
        </p>
      </div>
      <MarginChart
        :margins="preview.margins"
        class="chart"
      />
    </div>
    <div
      v-if="act && count"
      class="row end"
    >
      <Field
        class="grow"
        label="Called"
        ><TextInput
          v-model="title"
          placeholder="spring list, new wages…" /></Field
      ><Field label="Holds from"
        ><DateInput
          v-model="holdsFrom"
          :min="session.today" /></Field
      ><ActButton
        primary
        :disabled="busy || !answered"
        @click="emit('change', { title, holdsFrom })"
      >
        Change {{ count }} {{ count === 1 ? 'price' : 'prices' }}
      </ActButton>
    </div>
    <div class="wide">
      <DataTable
        :rows="preview.rows"
        :row-key="(r) => r.id"
        :columns="[
          { key: 'code', label: 'Code', look: 'num', text: (r) => r.code },
          { key: 'name', label: 'Name' },
          {
            key: 'cost',
            label: 'Cost',
            figures: true,
            look: 'quiet',
            text: (r) =>
              r.becomes.cost === r.was.cost
                ? show(r.was.cost)
                : `${show(r.was.cost)} → ${show(r.becomes.cost)}`,
          },
          { key: 'now', label: 'Now', figures: true, text: (r) => show(r.was.price) },
          { key: 'then', label: 'Then', figures: true },
          {
            key: 'difference',
            label: 'Difference',
            figures: true,
            tone: (r) => ({ late: r.odd.includes('far') }),
            text: (r) => show(r.difference),
          },
          {
            key: 'margin',
            label: 'Margin',
            figures: true,
            look: 'nowrap',
            tone: (r) => ({ late: r.odd.includes('below') }),
          },
          {
            key: 'sold',
            label: 'Sold',
            figures: true,
            look: 'quiet',
            text: (r) => (r.sold === '0' ? '' : r.sold),
          },
          {
            key: 'effect',
            label: 'Effect',
            figures: true,
            text: (r) => (r.effect === '0.00' ? '' : show(r.effect)),
          },
        ]"
      >
        <template #name="{ row: r }"
          >{{ r.name }}
          <span
            v-if="r.follows"
            class="chip"
            >follows</span
          ></template
        >

        <template #then="{ row: r }"
          ><b>{{ show(r.becomes.price) }}</b
          ><ActButton
            v-if="r.proposed !== null"
            quiet
            class="small"
            :disabled="busy"
            :aria-label="`Let ${r.code} follow the rule: ${show(r.proposed)}`"
            @click="emit('propose', [r.id], true)"
          >
            by the rule {{ show(r.proposed) }}
          </ActButton></template
        >

        <template #margin="{ row: r }"
          >{{ percent(r.marginWas) }} → {{ percent(r.marginBecomes) }}</template
        >
      </DataTable>
    </div>
    <p
      v-if="count > preview.rows.length"
      class="quiet small"
    >
      and {{ count - preview.rows.length }} more, counted above
    </p>
  </div>
</template>

<style scoped>
.box {
  padding: 14px;
  display: flex;
  flex-direction: column;
  gap: 10px;
}
.top {
  align-items: flex-start;
  gap: 12px;
}
.end {
  align-items: flex-end;
}
.chart {
  width: 480px;
}
p {
  margin: 0 0 6px;
}
.wide {
  max-height: 460px;
  overflow: auto;
}
.wide th {
  position: sticky;
  top: 0;
  background: var(--sheet);
}
td .btn {
  display: block;
  margin-left: auto;
  min-height: 22px;
  padding: 0 2px;
  color: var(--green);
}
</style>
