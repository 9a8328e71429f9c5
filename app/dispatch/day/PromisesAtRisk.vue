<script setup lang="ts">
// Promises that the day as it runs will not keep; each customer can be told.
import ActButton from '~/base/ActButton.vue'
import { useSession } from '~/stores/session'
import type { Visit } from './useDay'

defineProps<{ visits: Visit[]; may: boolean }>()
const emit = defineEmits<{ tell: [visitId: string] }>()
const session = useSession()
</script>

<template>
  <details v-if="visits.length">
    <summary class="late nowrap">
      <b>{{ visits.length }} {{ visits.length === 1 ? 'promise' : 'promises' }} at risk</b>
    </summary>
    <div class="sheet">
      <div
        v-for="v in visits"
        :key="v.id"
        class="row"
      >
        <span class="grow">
          <b>{{ v.customer }}</b>
          {{ ' ' }}
          <span class="small"
            >promised until {{ v.promiseTo }}, expected {{ session.time(v.arriveAt) }}</span
          >
        </span>
        <ActButton
          v-if="may"
          :aria-label="`Tell ${v.customer}`"
          @click="emit('tell', v.id)"
        >
          Tell them…
        </ActButton>
      </div>
      <p
        v-if="may"
        class="quiet small"
      >
        Or move a visit, swap two with <kbd>S</kbd>, or plan the day.
      </p>
    </div>
  </details>
</template>

<style scoped>
details {
  position: relative;
}
summary {
  cursor: pointer;
}
details > div {
  position: absolute;
  z-index: 20;
  top: 28px;
  left: 0;
  width: 440px;
  padding: 10px;
  display: flex;
  flex-direction: column;
  gap: 8px;
}
</style>
