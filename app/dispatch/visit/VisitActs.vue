<script setup lang="ts">
// What else is done with a visit: a further one, a part of it, none at all.
import { computed, ref } from 'vue'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Choice from '~/base/Choice.vue'
import Field from '~/base/Field.vue'
import Notice from '~/base/Notice.vue'
import OneField from '~/base/OneField.vue'
import { useAct } from '~/lib/useAct'
import { useBoard } from '~/stores/board'
import { halfOf, lengthsFor, type Visit } from './visit'

const props = defineProps<{ visit: Visit }>()
const emit = defineEmits<{ changed: []; close: [] }>()
const board = useBoard()
const known = ref(false)
const { busy, problem, act } = useAct()
const SHORTEST_TO_SPLIT = 30 * 60
const part = ref(halfOf(props.visit))
const parts = computed(() =>
  lengthsFor(props.visit)
    .filter((n) => n < props.visit.durationSeconds)
    .map((n) => ({ value: n, label: hoursMinutes(n) })),
)
const further = (split: boolean) =>
  act(async () => {
    const { durationSeconds } = props.visit
    const left = split ? durationSeconds - part.value : durationSeconds
    await board.further(props.visit, { split, durationSeconds: left })
    emit('changed')
  })
async function cancel(reason: string) {
  await board.cancel(props.visit, reason, known.value)
  emit('changed')
  emit('close')
}
</script>

<template>
  <div class="row">
    <ActButton
      :disabled="busy"
      @click="further(false)"
    >
      A further visit <kbd>C</kbd>
    </ActButton>
    <span class="grow" />
    <Field
      inline
      label="Split after"
    >
      <Choice
        v-model="part"
        aria-label="Split after"
        :options="parts"
      />
    </Field>
    <ActButton
      :disabled="busy || visit.durationSeconds < SHORTEST_TO_SPLIT"
      @click="further(true)"
    >
      Split <kbd>X</kbd>
    </ActButton>
  </div>
  <Notice :of="problem" />
  <OneField
    label="Why it will not be"
    placeholder="why it will not be"
    act="Cancel the visit"
    :draft="`cancel visit ${visit.id}`"
    phrases="cancelled"
    :send="cancel"
  />
  <Check
    v-if="visit.told"
    v-model="known"
    class="left"
    >The customer knows that nobody comes</Check
  >
  <p class="quiet small">
    Where no other visit was finished or is to come, its work order waits for another time. Nothing
    at all any more?
    <NuxtLink :to="{ path: `/work/${visit.workOrderId}`, query: { end: 'cancel' } }"
      >Cancel {{ visit.number }}</NuxtLink
    >
  </p>
</template>

<style scoped>
.row {
  flex-wrap: wrap;
  align-items: flex-end;
}
</style>
