<script setup lang="ts">
// Who, at what time, for how long, and what is promised: typed by hand.
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import type { Draft } from '~/stores/call'
import Choice from '~/base/Choice.vue'
import Field from '~/base/Field.vue'
import { PROMISES, type Technician } from './usePromise'

type Kind = (typeof PROMISES)[number]['value']
defineProps<{ technicians: readonly Technician[]; kind: Kind; isOwn: boolean }>()
const emit = defineEmits<{ promise: [kind: Kind]; propose: [] }>()
const draft = defineModel<Draft>({ required: true })
/** what a visit may take: a quarter of an hour to eight hours */
const LENGTHS = Array.from({ length: 32 }, (_, i) => (i + 1) * 900).map((seconds) => ({
  value: seconds,
  label: hoursMinutes(seconds),
}))
/** quarters from seven in the morning to six in the evening */
const TIMES = Array.from({ length: 45 }, (_, i) => {
  const hour = String(7 + Math.floor(i / 4)).padStart(2, '0')
  const time = `${hour}:${String((i % 4) * 15).padStart(2, '0')}`
  return { value: time, label: time }
})
</script>

<template>
  <div class="row wrap">
    <Field label="Technician"
      ><Choice
        v-model="draft.technicianId"
        :options="[
          { value: null, label: 'nobody yet' },
          ...technicians.map((t) => ({ value: t.id, label: t.name })),
        ]"
    /></Field>
    <Field label="Start"
      ><Choice
        v-model="draft.start"
        :options="[{ value: '', label: 'no time yet' }, ...TIMES]"
        @change="emit('propose')"
    /></Field>
    <Field label="Takes"
      ><Choice
        v-model="draft.durationSeconds"
        :options="LENGTHS"
    /></Field>
    <Field label="Promise"
      ><Choice
        :model-value="kind"
        :options="PROMISES"
        @change="emit('promise', $event)"
    /></Field>
    <span
      v-if="draft.promiseFrom && !isOwn"
      class="num told"
      >{{ draft.promiseFrom }}–{{ draft.promiseTo }}</span
    >
    <template v-if="isOwn"
      ><Field label="from"
        ><Choice
          v-model="draft.promiseFrom"
          :options="[{ value: '', label: '–' }, ...TIMES]"
      /></Field>
      <Field label="to"
        ><Choice
          v-model="draft.promiseTo"
          :options="[{ value: '', label: '–' }, ...TIMES]" /></Field
    ></template>
  </div>
</template>

<style scoped>
.wrap {
  flex-wrap: wrap;
  gap: 6px;
}
.told {
  align-self: end;
  padding-bottom: 7px;
}
</style>
