<script setup lang="ts">
// What labour and charges cost on this work order: the book's, the customer's, its own; the strongest is marked. Its own can be written here.
import { ref } from 'vue'
import type { Answer } from '~~/shared/api'
import { call } from '~/lib/api'
import { useFormAbout } from '~/base/useForm'
import Form from '~/base/Form.vue'
import Meanwhile from '~/base/Meanwhile.vue'
import Notice from '~/base/Notice.vue'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import FigureInput from '~/base/FigureInput.vue'
import DataTable from '~/base/DataTable.vue'

const props = defineProps<{
  work: Answer<'workOrder'>
  may: boolean
  refresh: () => Promise<unknown>
}>()
const emit = defineEmits<{ changed: [work: Answer<'workOrder'>] }>()
const session = useSession()
const open = ref(false)
const form = useFormAbout(
  () => props.work,
  ({ rates }): Record<string, string> =>
    Object.fromEntries(rates.map((r) => [r.entryId, r.workOrder ?? ''])),
  props.refresh,
  { draft: `rates ${props.work.id}` },
)
const show = (amount: string | null) =>
  amount === null ? '' : session.money({ amount, currency: props.work.currency }, false)
const keep = () =>
  form.keep(async (version) => {
    const rates = Object.entries(form.values)
      .filter(([, price]) => price.trim())
      .map(([entryId, price]) => ({ entryId, price: price.trim() }))
    emit(
      'changed',
      await call('keepWorkRates', {
        params: { id: props.work.id },
        body: { version, rates },
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
    <Form
      :of="form"
      @submit="keep"
    >
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
            v-model="form.values[r.entryId]"
            :aria-label="`${r.name}, on this work order only`" /><span
            v-else
            class="num"
            >{{ show(r.workOrder) }}</span
          ><Meanwhile :names="[r.entryId]" /></template
      ></DataTable>
      <Notice />
      <div
        v-if="may"
        class="row"
      >
        <span class="grow quiet small"
          >Lines that are added from now on take them. What stands here keeps its price.</span
        ><ActButton submit> Keep these rates </ActButton>
      </div>
    </Form>
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
