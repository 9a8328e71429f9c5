<script setup lang="ts">
// Who could be at a site soonest: from where each is now, once they are free, by drive time along the roads.
import { ref, watch } from 'vue'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import type { Answer } from '~~/shared/api'
import { call } from '~/lib/api'
import { onLive, SHOWS } from '~/lib/live'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import DataTable from '~/base/DataTable.vue'

const props = defineProps<{ siteId: string; skills: string[]; chosen?: string | null }>()
const emit = defineEmits<{ choose: [one: Answer<'nearest'>['items'][number]] }>()
const session = useSession()
const found = ref<Answer<'nearest'>['items']>([])
let turn = 0
async function load() {
  const mine = ++turn
  const got = await call('nearest', { body: { siteId: props.siteId, skills: props.skills } }).catch(
    () => null,
  )
  if (got && mine === turn) found.value = got.items
}
watch(() => [props.siteId, props.skills.join()], load, { immediate: true })
onLive(() => void load(), 0, SHOWS.day)
</script>

<template>
  <DataTable
    v-if="found.length"
    label="Who is near"
    :rows="found"
    :row-key="(n) => n.technicianId"
    :tone="(n) => ({ out: !n.works })"
    :opened="() => true"
    :columns="[
      { key: 'who', label: 'Who' },
      { key: 'drive', label: 'Drive', figures: true, text: (n) => hoursMinutes(n.driveSeconds) },
      {
        key: 'there',
        label: 'Could be there',
        look: 'num',
        text: (n) => (n.works ? session.time(n.arriveAt) : 'not today'),
      },
      { key: 'act', right: true },
    ]"
  >
    <template #who="{ row: n }"
      ><b>{{ n.name.split(' ')[0] }}</b
      ><span
        v-if="n.lacks.length"
        class="soon small"
      >
        lacks {{ n.lacks.join(', ') }}</span
      ><span
        v-if="n.foreign"
        class="soon small"
      >
        another territory</span
      ></template
    >

    <template #act="{ row: n }"
      ><ActButton
        :disabled="!n.works || chosen === n.technicianId"
        :aria-label="`Send ${n.name}`"
        @click="emit('choose', n)"
      >
        Send
      </ActButton></template
    >
    <template #under="{ row: n }"
      ><span class="small quiet">{{ n.from }}; {{ n.now }}</span></template
    ></DataTable
  >
</template>
