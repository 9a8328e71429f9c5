<script setup lang="ts">
// Who could be at a site soonest: from where each is now, once they are free, by drive time along the roads.
import { ref, watch } from 'vue'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import type { Answer } from '~~/shared/api'
import { call } from '~/lib/api'
import { onLive } from '~/lib/live'
import { useSession } from '~/stores/session'

const props = defineProps<{ siteId: string, skills: string[], chosen?: string | null }>()
const emit = defineEmits<{ choose: [one: Answer<'nearest'>['items'][number]] }>()
const session = useSession()
const found = ref<Answer<'nearest'>['items']>([])
let turn = 0
async function load() {
  const mine = ++turn
  const got = await call('nearest', { body: { siteId: props.siteId, skills: props.skills } }).catch(() => null)
  if (got && mine === turn) found.value = got.items
}
watch(() => [props.siteId, props.skills.join()], load, { immediate: true })
onLive(() => void load())
</script>

<template>
  <table class="book" aria-label="Who is near"><thead><tr><th>Who</th><th class="right">Drive</th><th>Could be there</th><th>What they are at</th><th /></tr></thead><tbody>
    <tr v-for="n in found" :key="n.technicianId" :class="{ out: !n.works }"><td class="nowrap"><b>{{ n.name.split(' ')[0] }}</b></td><td class="right num">{{ hoursMinutes(n.driveSeconds) }}</td><td class="num">{{ n.works ? session.time(n.arriveAt) : 'not today' }}</td><td class="small">{{ n.from }}; {{ n.now }}<span v-if="n.lacks.length" class="soon">; lacks {{ n.lacks.join(', ') }}</span><span v-if="n.foreign" class="soon">; another territory</span></td><td class="right"><button type="button" class="btn" :disabled="!n.works || chosen === n.technicianId" :aria-label="`Send ${n.name}`" @click="emit('choose', n)">Send</button></td></tr>
  </tbody></table>
</template>

<style scoped>
.out { color: var(--ink-2); } td { padding: 4px 8px !important; }
</style>
