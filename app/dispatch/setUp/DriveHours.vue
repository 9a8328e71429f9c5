<script setup lang="ts">
// Whether the first and the last drive of a day are working time.
import Notice from '~/base/Notice.vue'
import Radio from '~/base/Radio.vue'
import { call } from '~/lib/api'
import { useKeep, type SetUp } from './useSetUp'

defineProps<{ outside: boolean; owns: boolean }>()
const emit = defineEmits<{ kept: [setUp: SetUp] }>()
const { busy, problem, keep } = useKeep((now) => emit('kept', now))
const DRIVES = [
  [false, 'are within the hours'],
  [true, 'lie outside them'],
] as const
const change = (outside: boolean) => keep(() => call('keepDrives', { body: { outside } }))
</script>

<template>
  <div
    class="sheet box"
    role="group"
    aria-label="Drives from and to home"
  >
    <b>The drive to the first visit and the one home</b>
    <div class="row">
      <Radio
        v-for="[value, words] in DRIVES"
        :key="words"
        name="drives"
        :model-value="outside"
        :value="value"
        :disabled="!owns || busy"
        @change="change"
      >
        {{ words }}
      </Radio>
    </div>
    <span class="quiet small">{{
      outside
        ? 'The first visit can begin when the hours do; the way home is no overtime.'
        : 'Whoever begins at 8:00 sets off then, and is home when the hours end.'
    }}</span>
    <Notice :of="problem" />
  </div>
</template>
