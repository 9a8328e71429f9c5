<script setup lang="ts">
// Nobody let us in: what is to be done next, said at the door while it is known.
import { ref } from 'vue'
import type { NextStep } from '~~/core/visits/visitLifecycle'
import { call } from '~/lib/api'
import ActButton from '~/base/ActButton.vue'
import type { useFieldVisit } from './useFieldVisit'

const props = defineProps<{ of: ReturnType<typeof useFieldVisit> }>()
const emit = defineEmits<{ add: [] }>()
const visit = () => props.of.data.value!
const note = ref(visit().proposed?.note ?? '')
const STEPS: readonly [step: NextStep, says: string][] = [
  ['come_again', 'Come again'],
  ['ring', 'Ring them first'],
  ['give_up', 'Give it up'],
]
const propose = (step: NextStep) =>
  props.of.act(async () => {
    const body = { step, note: note.value.trim() }
    props.of.take(await call('proposeNext', { params: { id: visit().visit.id }, body }))
  })
</script>

<template>
  <section
    class="block stack"
    aria-label="What next"
  >
    <h2>What next?</h2>
    <label class="field">
      <span>What the office should know</span>
      <input
        v-model="note"
        class="plain"
        maxlength="160"
      />
    </label>
    <div class="stack">
      <ActButton
        v-for="[step, says] in STEPS"
        :key="step"
        :on="visit().proposed?.step === step"
        :aria-pressed="visit().proposed?.step === step"
        :disabled="of.busy.value"
        @click="propose(step)"
      >
        {{ says }}
      </ActButton>
    </div>
    <p
      v-if="visit().proposed?.step"
      class="quiet small"
      role="status"
    >
      The office has it among what needs a time.
    </p>
    <ActButton @click="emit('add')"> Charge the way… </ActButton>
  </section>
</template>
