<script setup lang="ts">
// Before a day: who is reminded, how, in which words; whoever cannot be reached by a message stands there to be rung.
import { computed, ref, watch } from 'vue'
import type { Answer } from '~~/shared/api'
import { call, type Problem } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import Dialog from '~/base/Dialog.vue'
import DataTable from '~/base/DataTable.vue'
import Notice from '~/base/Notice.vue'

const props = defineProps<{ date: string | null }>()
const emit = defineEmits<{ close: [] }>()
const session = useSession()
const list = ref<Answer<'reminders'> | null>(null)
const { busy, problem, act } = useAct()
/** why nothing is known of the day */
const unseen = ref<Problem | null>(null)
/** A list is shown while the sheet is still about its day: a late one for another day is nobody's. */
async function show(date: string, asked: Promise<Answer<'reminders'>>) {
  const got = await asked
  if (props.date === date) list.value = got
}
watch(
  () => props.date,
  async (date) => {
    list.value = unseen.value = null
    if (!date) return
    await show(date, call('reminders', { params: { date } })).catch((error: Problem) => {
      if (props.date === date) unseen.value = error
    })
  },
  { immediate: true },
)
const left = computed(
  () => list.value?.items.filter((i) => !i.told && !i.broken && i.channel !== 'none').length ?? 0,
)
const send = () => {
  const date = props.date!
  return act(() => show(date, call('sendReminders', { params: { date } })))
}
const HOW: Record<string, string> = { mail: 'mail to', text: 'text to', none: 'ring' }
</script>

<template>
  <Dialog
    :model-value="date !== null"
    :title="date ? `Remind the customers of ${session.day(date)}` : ''"
    width="760"
    @close="emit('close')"
  >
    <div class="stack">
      <Notice :of="problem ?? unseen" />
      <DataTable
        v-if="list?.items.length"
        :rows="list.items"
        :row-key="(i) => i.visitId"
        cards
        :columns="[
          { key: 'c1', look: 'num', text: (i) => i.when },
          { key: 'c2', look: 'what' },
          {
            key: 'c3',
            look: 'small words',
            text: (i) =>
              i.broken
                ? `Was promised for ${i.broken}, which does not hold any more: promise another time first.`
                : i.channel === 'none'
                  ? 'Wants no messages, or has no address: somebody rings.'
                  : i.body,
          },
          { key: 'c4' },
        ]"
      >
        <template #c2="{ row: i }"
          ><b>{{ i.customer }}</b
          ><br /><span class="small quiet"
            >{{ HOW[i.channel] }} {{ i.to || 'no number known' }}</span
          ></template
        >

        <template #c4="{ row: i }"
          ><span
            v-if="i.told"
            class="chip good"
            >told</span
          ></template
        ></DataTable
      >
      <p
        v-else-if="list"
        class="empty"
      >
        No visit on this day has a technician yet.
      </p>
      <div class="row">
        <ActButton
          primary
          :disabled="busy || !left"
          @click="send"
        >
          {{
            left
              ? `Remind ${left} ${left === 1 ? 'customer' : 'customers'}`
              : 'Everybody has been told'
          }}</ActButton><span class="quiet small">Each is told once.</span>
      </div>
    </div>
  </Dialog>
</template>

<style scoped>
.words {
  white-space: normal;
  max-width: 380px;
}
</style>
