<script setup lang="ts">
// Minutes on site that no line charges for: charged, or left out with a reason.
import { ref } from 'vue'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import Phrases from '~/base/Phrases.vue'
import { useSession } from '~/stores/session'
import type { Work } from './useFieldVisit'

defineProps<{ time: Work['time']; busy: boolean }>()
const emit = defineEmits<{ charge: []; explain: [reason: string] }>()
const session = useSession()
const explaining = ref(false)
const reason = ref('')
const SECONDS = 60
</script>

<template>
  <div class="note warn stack">
    <p>
      <b
        >{{ Math.round(time.uncoveredSeconds / SECONDS) }} minutes were worked that no line charges
        for.</b
      >
      {{ hoursMinutes(time.siteSeconds) }} h on site, lines cover
      {{ hoursMinutes(time.coveredSeconds) }} h.
    </p>
    <div class="row">
      <button
        class="btn act grow"
        :disabled="busy"
        @click="emit('charge')"
      >
        Charge {{ session.money(time.charge) }}
      </button>
      <button
        class="btn grow"
        @click="explaining = true"
      >
        Leave out
      </button>
    </div>
    <form
      v-if="explaining"
      class="row"
      @submit.prevent="emit('explain', reason)"
    >
      <input
        v-model="reason"
        class="plain"
        placeholder="Say why"
        aria-label="Why these minutes are not charged"
      />
      <button
        class="btn"
        :disabled="busy"
      >
        Keep
      </button>
    </form>
    <Phrases
      v-if="explaining"
      v-model="reason"
      of="left_out"
    />
  </div>
</template>
