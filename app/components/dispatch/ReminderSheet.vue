<script setup lang="ts">
// Before a day: who is reminded, how, in which words; whoever cannot be reached by a message stands there to be rung.
import { computed, ref, watch } from 'vue'
import type { Answer } from '~~/shared/api'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useSession } from '~/stores/session'

const props = defineProps<{ date: string | null }>()
const emit = defineEmits<{ close: [] }>()
const session = useSession()
const list = ref<Answer<'reminders'> | null>(null)
const { busy, problem, act } = useAct()
watch(
  () => props.date,
  (date) =>
    date &&
    act(async () => {
      list.value = await call('reminders', { params: { date } })
    }),
)
const left = computed(
  () => list.value?.items.filter((i) => !i.told && i.channel !== 'none').length ?? 0,
)
const send = () =>
  act(async () => {
    list.value = await call('sendReminders', { params: { date: props.date! } })
  })
const HOW: Record<string, string> = { mail: 'mail to', text: 'text to', none: 'ring' }
</script>

<template>
  <el-dialog
    :model-value="date !== null"
    :title="date ? `Remind the customers of ${session.day(date)}` : ''"
    width="760"
    @close="emit('close')"
  >
    <div class="stack">
      <p
        v-if="problem"
        class="note bad"
        role="alert"
      >
        {{ problem.message }}
      </p>
      <table
        v-if="list?.items.length"
        class="book"
      >
        <tbody>
          <tr
            v-for="i in list.items"
            :key="i.visitId"
          >
            <td class="num">{{ i.when }}</td>
            <td>
              <b>{{ i.customer }}</b><br /><span class="small quiet"
                >{{ HOW[i.channel] }} {{ i.to || 'no number known' }}</span
              >
            </td>
            <td class="small words">
              {{
                i.channel === 'none'
                  ? 'Wants no messages, or has no address: somebody rings.'
                  : i.body
              }}
            </td>
            <td>
              <span
                v-if="i.told"
                class="chip good"
                >told</span
              >
            </td>
          </tr>
        </tbody>
      </table>
      <p
        v-else-if="list"
        class="empty"
      >
        No visit on this day has a technician yet.
      </p>
      <div class="row">
        <button
          class="btn act"
          :disabled="busy || !left"
          @click="send"
        >
          {{
            left
              ? `Remind ${left} ${left === 1 ? 'customer' : 'customers'}`
              : 'Everybody has been told'
          }}</button><span class="quiet small">Each is told once.</span>
      </div>
    </div>
  </el-dialog>
</template>

<style scoped>
.words {
  white-space: normal;
  max-width: 380px;
}
</style>
