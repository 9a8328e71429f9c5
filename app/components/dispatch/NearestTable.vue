<script setup lang="ts">
// Who could be at a site soonest: from where each is now, once they are free, by drive time along the roads.
import { ref, watch } from 'vue'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import type { Answer } from '~~/shared/api'
import { call } from '~/lib/api'
import { onLive, SHOWS } from '~/lib/live'
import { useSession } from '~/stores/session'

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
  <table
    class="book"
    aria-label="Who is near"
  >
    <thead>
      <tr>
        <th>Who</th>
        <th class="right">Drive</th>
        <th>Could be there</th>
        <th />
      </tr>
    </thead>
    <tbody
      v-for="n in found"
      :key="n.technicianId"
      :class="{ out: !n.works }"
    >
      <tr>
        <td>
          <b>{{ n.name.split(' ')[0] }}</b><span
            v-if="n.lacks.length"
            class="soon small"
          >
            lacks {{ n.lacks.join(', ') }}</span
          ><span
            v-if="n.foreign"
            class="soon small"
          >
            another territory</span
          >
        </td>
        <td class="right num">{{ hoursMinutes(n.driveSeconds) }}</td>
        <td class="num">{{ n.works ? session.time(n.arriveAt) : 'not today' }}</td>
        <td class="right">
          <button
            type="button"
            class="btn"
            :disabled="!n.works || chosen === n.technicianId"
            :aria-label="`Send ${n.name}`"
            @click="emit('choose', n)"
          >
            Send
          </button>
        </td>
      </tr>
      <tr>
        <td
          colspan="4"
          class="small quiet why"
        >
          {{ n.from }}; {{ n.now }}
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.out {
  color: var(--ink-2);
}
td {
  padding: 4px 8px !important;
  border: 0;
}
.why {
  white-space: normal;
  padding-top: 0 !important;
}
tbody {
  border-bottom: 1px solid var(--rule);
}
</style>
