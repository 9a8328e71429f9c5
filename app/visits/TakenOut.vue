<script setup lang="ts">
// Lines that were taken out of a work order, until it is closed: each comes back by one press.
import ActButton from '~/base/ActButton.vue'
import type { Answer } from '~~/shared/api'
import { useSession } from '~/stores/session'

type Gone = Answer<'workOrder'>['takenOut'][number]
defineProps<{ lines: readonly Gone[]; busy: boolean }>()
const emit = defineEmits<{ back: [line: Gone] }>()
const session = useSession()
</script>

<template>
  <ul
    v-if="lines.length"
    class="gone small"
    aria-label="Taken out"
  >
    <li
      v-for="line in lines"
      :key="line.id"
      class="row"
    >
      <span class="quiet grow"
        >Taken out: {{ line.name }},
        <span class="num">{{ session.money(line.net, false) }}</span></span
      >
      <ActButton
        :disabled="busy"
        :aria-label="`Put ${line.name} back`"
        @click="emit('back', line)"
      >
        Put it back
      </ActButton>
    </li>
  </ul>
</template>

<style scoped>
.gone {
  list-style: none;
  margin: 0;
  padding: 0;
}
.gone li {
  padding: 4px 10px;
  border-top: 1px solid var(--rule);
}
</style>
