<script setup lang="ts">
// From which hour on what was planned for the day, and not begun, waits for another time.
import Field from '~/base/Field.vue'
import Notice from '~/base/Notice.vue'
import TimeInput from '~/base/TimeInput.vue'
import { call } from '~/lib/api'
import { useKeep, type SetUp } from './useSetUp'

defineProps<{ at: string; owns: boolean }>()
const emit = defineEmits<{ kept: [setUp: SetUp] }>()
const { busy, problem, keep } = useKeep((now) => emit('kept', now))
const change = (at: string | null | undefined) =>
  at && keep(() => call('keepClosing', { body: { at } }))
</script>

<template>
  <div class="sheet box">
    <Field
      label="The day ends at"
      :error="problem?.at('at')"
      ><TimeInput
        :model-value="at"
        :disabled="!owns || busy"
        @update:model-value="change"
    /></Field>
    <span class="quiet small"
      >What nobody began by then waits among what has no slot yet, and says so.</span
    >
    <Notice :of="problem" />
  </div>
</template>
