<script setup lang="ts">
// What labour and charges cost on this work order: the book's, the customer's, its own; the strongest is marked. Its own can be written here.
import { reactive, ref, watch } from 'vue'
import type { Answer } from '~~/shared/api'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import FigureInput from '~/base/FigureInput.vue'
import DataTable from '~/base/DataTable.vue'

const props = defineProps<{ work: Answer<'workOrder'>; may: boolean }>()
const emit = defineEmits<{ changed: [work: Answer<'workOrder'>] }>()
const session = useSession()
const open = ref(false)
const own = reactive<Record<string, string>>({})
const { busy, problem, act } = useAct()
watch(
  () => props.work.rates,
  (rates) =>
    rates.forEach((r) => {
      own[r.entryId] = r.workOrder ?? ''
    }),
  { immediate: true },
)
const show = (amount: string | null) =>
  amount === null ? '' : session.money({ amount, currency: props.work.currency }, false)
const keep = () =>
  act(async () => {
    const rates = Object.entries(own)
      .filter(([, price]) => price.trim())
      .map(([entryId, price]) => ({ entryId, price: price.trim() }))
    emit(
      'changed',
      await call('keepWorkRates', {
        params: { id: props.work.id },
        body: { version: props.work.version, rates },
      }),
    )
    open.value = false
  })
</script>

<template>
  <details
    class="rates no-print"
    :open="open"
    @toggle="open = ($event.target as HTMLDetailsElement).open"
  >
    <summary>
      Rates of this work order<template
        v-for="r in work.rates.filter((x) => x.workOrder ?? x.customer)"
        :key="r.entryId"
      >
        · {{ r.name }} {{ show(r.workOrder ?? r.customer) }}</template
      >
    </summary>
    <DataTable
      :rows="work.rates"
      :row-key="(r) => r.entryId"
      :columns="[
        { key: 'labourAndCharges', label: 'Labour and charges', text: (r) => r.name },
        {
          key: 'priceBook',
          label: 'Price book',
          figures: true,
          tone: (r) => ({ quiet: r.customer !== null || r.workOrder !== null }),
          text: (r) => show(r.book),
        },
        {
          key: 'c3',
          label: work.customer.name,
          figures: true,
          tone: (r) => ({ quiet: r.workOrder !== null }),
          text: (r) => show(r.customer),
        },
        { key: 'hereOnly', label: 'Here only', right: true },
      ]"
    >
      <template #hereOnly="{ row: r }"
        ><FigureInput
          v-if="may"
          v-model="own[r.entryId]"
          :aria-label="`${r.name}, on this work order only`"
        /><span
          v-else
          class="num"
          >{{ show(r.workOrder) }}</span
        ></template
      ></DataTable
    >
    <p
      v-if="problem"
      class="wrong"
      role="alert"
    >
      {{ problem.message }}
    </p>
    <div
      v-if="may"
      class="row"
    >
      <span class="grow quiet small"
        >Lines that are added from now on take them. What stands here keeps its price.</span
      ><ActButton
        :disabled="busy"
        @click="keep"
      >
        Keep these rates
      </ActButton>
    </div>
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
  color: var(--ink-2);
  padding: 2px 0;
}
.rates table {
  max-width: 720px;
}
td .figures {
  width: 96px;
}
.row {
  max-width: 720px;
  padding-top: 6px;
}
</style>
