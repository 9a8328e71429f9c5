<script setup lang="ts">
// What is promised of a visit, changed where it stays; and whether its customer knows.
import { computed, watch } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import DateInput from '~/base/DateInput.vue'
import Field from '~/base/Field.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import TimeInput from '~/base/TimeInput.vue'
import { useForm } from '~/base/useForm'
import { call } from '~/lib/api'
import { useSession } from '~/stores/session'
import { promiseSaid } from './promise'
import { telling } from './telling'
import type { Visit } from './visit'

const props = defineProps<{ visit: Visit }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const asIs = ({ promiseDate, promiseFrom, promiseTo }: Visit) => ({
  promise: { date: promiseDate ?? '', from: promiseFrom ?? '', to: promiseTo ?? '' },
  known: false,
})
const form = useForm(asIs(props.visit), { draft: `promise ${props.visit.id}` })
watch(
  () => props.visit.version,
  () => form.follow(asIs(props.visit)),
)
const told = computed(() => promiseSaid(props.visit.told, session.day))
const save = () =>
  form.send(async () => {
    const { promise, known } = form.values
    const { id, version } = props.visit
    const { date, from, to } = promise
    const wanted = date ? { date, from: from || null, to: to || null } : null
    const body = { version, promise: wanted, known }
    const saved = await call('promiseVisit', { params: { id }, body })
    if (saved.toTell) telling.value = id
    emit('changed')
  })
</script>

<template>
  <Form
    :of="form"
    @submit="save"
  >
    <p
      v-if="visit.toTell"
      class="note warn row"
    >
      <span class="grow">They were told {{ told }}.</span>
      <ActButton @click="telling = visit.id"> Tell them… </ActButton>
    </p>
    <div class="row">
      <Field
        class="grow"
        name="promise.date"
        label="Promised day"
        ><DateInput v-model="form.values.promise.date" /></Field
      ><Field
        name="promise.from"
        label="From"
        ><TimeInput v-model="form.values.promise.from" /></Field
      ><Field
        name="promise.to"
        label="To"
        ><TimeInput v-model="form.values.promise.to"
      /></Field>
    </div>
    <Notice />
    <div class="row">
      <ActButton submit>{{
        form.values.promise.date ? 'Promise it' : 'Promise nothing'
      }}</ActButton>
      <Check
        v-model="form.values.known"
        class="left"
        >They know already</Check
      >
    </div>
  </Form>
</template>

<style scoped>
.row {
  align-items: flex-end;
}
</style>
