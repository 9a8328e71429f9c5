<script setup lang="ts">
// What labour costs at other times of the day or the week.
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Field from '~/base/Field.vue'
import FigureInput from '~/base/FigureInput.vue'
import TextInput from '~/base/TextInput.vue'
import type { Rules } from './useRules'

defineProps<{ wrong: (path: string) => string }>()
const times = defineModel<Rules['times']>({ required: true })
const DAYS = [
  [1, 'Mon'],
  [2, 'Tue'],
  [3, 'Wed'],
  [4, 'Thu'],
  [5, 'Fri'],
  [6, 'Sat'],
  [7, 'Sun'],
  [8, 'holidays'],
] as const
</script>

<template>
  <h2>Labour by the time of day</h2>
  <p class="small quiet">
    Labour, and the labour in a task, times this, for a visit that begins then. Of several the
    highest holds.
  </p>
  <div
    v-for="(t, i) in times"
    :key="i"
    class="rule"
  >
    <div class="row top">
      <Field
        class="grow"
        label="Called"
        :error="wrong(`times[${i}].name`)"
        ><TextInput v-model="t.name" /></Field
      ><Field
        label="from"
        :error="wrong(`times[${i}].from`)"
        ><TextInput
          v-model="t.from"
          class="num"
          placeholder="17:00"
          style="width: 76px" /></Field
      ><Field
        label="to"
        :error="wrong(`times[${i}].to`)"
        ><TextInput
          v-model="t.to"
          class="num"
          placeholder="24:00"
          style="width: 76px" /></Field
      ><Field
        label="times"
        :error="wrong(`times[${i}].factor`)"
        ><FigureInput
          v-model="t.factor"
          style="width: 76px" /></Field
      ><ActButton
        quiet
        :aria-label="`Take out ${t.name}`"
        @click="times.splice(i, 1)"
      >
        ×
      </ActButton>
    </div>
    <div
      class="row days"
      role="group"
      :aria-label="`Days of ${t.name}`"
    >
      <Check
        v-for="[n, name] in DAYS"
        :key="n"
        v-model="t.days"
        class="small"
        :value="n"
      >
        {{ name }}</Check
      >
    </div>
    <i
      v-if="wrong(`times[${i}].days`)"
      class="wrong"
      >{{ wrong(`times[${i}].days`) }}</i
    >
  </div>
  <div class="row">
    <ActButton
      @click="times.push({ name: '', days: [6, 7], from: '00:00', to: '24:00', factor: '1.5' })"
    >
      A time of day
    </ActButton>
  </div>
</template>

<style scoped>
.days {
  gap: 12px;
  flex-wrap: wrap;
}
.top {
  align-items: flex-start;
}
</style>
