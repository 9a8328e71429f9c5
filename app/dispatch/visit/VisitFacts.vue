<script setup lang="ts">
// What decides about a visit without opening anything: where, who, what to mind, what was promised.
import { computed } from 'vue'
import { promiseSaid } from './promise'
import { useSession } from '~/stores/session'
import type { Visit } from './visit'

const props = defineProps<{ visit: Visit }>()
const session = useSession()
const promise = computed(() => {
  const { promiseDate: date, promiseFrom: from, promiseTo: to } = props.visit
  return date ? { date, from, to } : null
})
</script>

<template>
  <dl>
    <dt>Where</dt>
    <dd>
      {{ visit.place }}, {{ visit.town
      }}<span
        v-if="visit.territory"
        class="quiet"
      >
        · {{ visit.territory }}</span
      >
    </dd>
    <dt>Speak to</dt>
    <dd>{{ visit.contact || '–' }}</dd>
    <template v-if="visit.officeNote || visit.accessNote"
      ><dt>Mind</dt>
      <dd class="soon">
        {{ [visit.officeNote, visit.accessNote].filter(Boolean).join(' · ') }}
      </dd></template
    >
    <template v-if="visit.note"
      ><dt>Why again</dt>
      <dd>{{ visit.note }}</dd></template
    >
    <dt>Promised</dt>
    <dd>
      {{ promiseSaid(promise, session.day) }}
    </dd>
    <dt>Worth</dt>
    <dd class="num">{{ visit.net || '–' }}</dd>
  </dl>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: 84px 1fr;
  gap: 3px 8px;
  margin: 0;
}
dt {
  color: var(--ink-2);
}
dd {
  margin: 0;
}
</style>
