<script setup lang="ts">
// What a change of prices would do: entry by entry, to what follows, to the margins and to a year's sales. Questions are answered once.
import { computed, ref, watch } from 'vue'
import type { Answer } from '~~/shared/api'
import MarginChart from './MarginChart.vue'
import { useSession } from '~/stores/session'

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
const show = (amount: string | null) =>
  amount === null ? '–' : session.money({ amount, currency: session.me!.company.currency }, false)
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
        <label
          v-for="q in preview.questions"
          :key="q"
          class="row note warn"
          ><input
            v-model="meant"
            type="checkbox"
            :value="q"
          />
          {{ q }} Yes, it is meant.</label
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
          ><button
            type="button"
            class="btn"
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
          </button>
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
      <label class="field grow"
        ><span>Called</span
        ><input
          v-model="title"
          class="plain"
          placeholder="spring list, new wages…" /></label
      ><label class="field"
        ><span>Holds from</span
        ><input
          v-model="holdsFrom"
          class="plain"
          type="date"
          :min="session.today" /></label
      ><button
        type="button"
        class="btn act"
        :disabled="busy || !answered"
        @click="emit('change', { title, holdsFrom })"
      >
        Change {{ count }} {{ count === 1 ? 'price' : 'prices' }}
      </button>
    </div>
    <div class="wide">
      <table class="book">
        <thead>
          <tr>
            <th>Code</th>
            <th>Name</th>
            <th class="right">Cost</th>
            <th class="right">Now</th>
            <th class="right">Then</th>
            <th class="right">Difference</th>
            <th class="right">Margin</th>
            <th class="right">Sold</th>
            <th class="right">Effect</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="r in preview.rows"
            :key="r.id"
          >
            <td class="num">{{ r.code }}</td>
            <td>
              {{ r.name }}
              <span
                v-if="r.follows"
                class="chip"
                >follows</span
              >
            </td>
            <td class="right num quiet">
              {{
                r.becomes.cost === r.was.cost
                  ? show(r.was.cost)
                  : `${show(r.was.cost)} → ${show(r.becomes.cost)}`
              }}
            </td>
            <td class="right num">{{ show(r.was.price) }}</td>
            <td class="right num">
              <b>{{ show(r.becomes.price) }}</b><button
                v-if="r.proposed !== null"
                type="button"
                class="btn plain small"
                :disabled="busy"
                :aria-label="`Let ${r.code} follow the rule: ${show(r.proposed)}`"
                @click="emit('propose', [r.id], true)"
              >
                by the rule {{ show(r.proposed) }}
              </button>
            </td>
            <td
              class="right num"
              :class="{ late: r.odd.includes('far') }"
            >
              {{ show(r.difference) }}
            </td>
            <td
              class="right num nowrap"
              :class="{ late: r.odd.includes('below') }"
            >
              {{ percent(r.marginWas) }} → {{ percent(r.marginBecomes) }}
            </td>
            <td class="right num quiet">{{ r.sold === '0' ? '' : r.sold }}</td>
            <td class="right num">{{ r.effect === '0.00' ? '' : show(r.effect) }}</td>
          </tr>
        </tbody>
      </table>
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
