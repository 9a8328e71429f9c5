<script setup lang="ts">
// What may change: which days, who is away, who is planned, and how long the planner thinks.
import { computed, ref, watch } from 'vue'
import { plusDays } from '~~/core/time/zone'
import type { Given } from '~~/shared/api'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Choice from '~/base/Choice.vue'
import DateInput from '~/base/DateInput.vue'
import Field from '~/base/Field.vue'
import Form from '~/base/Form.vue'
import TextInput from '~/base/TextInput.vue'
import { useForm } from '~/base/useForm'
import { newId } from '~/lib/api'
import { useSession } from '~/stores/session'

const date = defineModel<string>('date', { required: true })
const props = defineProps<{
  people: { id: string; name: string }[]
  absent: string
  again: boolean
  busy: boolean
  may: boolean
}>()
const emit = defineEmits<{ propose: [wish: Given<'beginPlan'>]; wish: [] }>()
const session = useSession()
const form = useForm({
  days: 1,
  absentId: props.absent,
  reason: 'ill',
  seconds: 4,
  tray: true,
  keepTechnicians: false,
})
const leftOut = ref<string[]>([])
const DAYS = [1, 2, 3, 4, 5].map((n) => ({ value: n, label: n === 1 ? 'this day' : `${n} days` }))
const THINK = [2, 4, 10, 30].map((n) => ({ value: n, label: `${n} s` }))
const away = computed(() => [
  { value: '', label: 'nobody' },
  ...props.people.map((p) => ({ value: p.id, label: p.name })),
])
const planned = computed(() => props.people.filter((p) => p.id !== form.values.absentId))
const toggle = (id: string) => {
  const out = leftOut.value
  leftOut.value = out.includes(id) ? out.filter((other) => other !== id) : [...out, id]
}
// What was proposed for another wish is no answer to this one.
watch([date, leftOut, () => JSON.stringify(form.values)], () => emit('wish'))
function propose() {
  const { days, absentId, ...rest } = form.values
  const chosen = props.people.filter((p) => !leftOut.value.includes(p.id)).map((p) => p.id)
  emit('propose', {
    ...rest,
    id: newId(),
    dates: Array.from({ length: days }, (_, i) => plusDays(date.value, i)),
    technicianIds: leftOut.value.length ? chosen : [],
    absentId: absentId || null,
  })
}
</script>

<template>
  <Form
    :of="form"
    light
    class="sheet wrapped wish"
    @submit="propose"
  >
    <Field label="From">
      <DateInput
        v-model="date"
        :min="session.today"
      />
    </Field>
    <Field label="Days">
      <Choice
        v-model="form.values.days"
        :options="DAYS"
      />
    </Field>
    <Field label="Somebody is away">
      <Choice
        v-model="form.values.absentId"
        :options="away"
      />
    </Field>
    <Field
      v-if="form.values.absentId"
      label="because"
    >
      <TextInput
        v-model="form.values.reason"
        style="width: 130px"
      />
    </Field>
    <Field label="Think for">
      <Choice
        v-model="form.values.seconds"
        :options="THINK"
      />
    </Field>
    <Check v-model="form.values.tray"> take in what has no slot</Check>
    <Check v-model="form.values.keepTechnicians"> everybody keeps their visits</Check>
    <fieldset class="row who">
      <legend class="quiet small">Who is planned</legend>
      <Check
        v-for="p in planned"
        :key="p.id"
        class="small"
        :model-value="!leftOut.includes(p.id)"
        @change="toggle(p.id)"
      >
        {{ p.name.split(' ')[0] }}</Check
      >
    </fieldset>
    <ActButton
      v-if="may"
      primary
      submit
      :disabled="busy"
    >
      {{ again ? 'Propose anew' : 'Propose a plan' }}
    </ActButton>
  </Form>
</template>

<style scoped>
.wish {
  gap: 12px;
  padding: 12px;
  align-items: flex-end;
}
.who {
  min-height: 34px;
  border: 0;
  padding: 0;
  margin: 0;
  gap: 12px;
  flex-wrap: wrap;
}
</style>
