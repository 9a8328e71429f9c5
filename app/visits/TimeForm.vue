<script setup lang="ts">
// A stretch of time at a visit: entered by hand, or the one that it was opened for corrected or taken out; with its reason.
import { CLOCK_KIND_NAMES, CLOCK_KINDS } from '~~/core/hours/mendTime'
import { localDate, localTime, localToInstant, plusDays } from '~~/core/time/zone'
import type { Answer } from '~~/shared/api'
import ActButton from '~/base/ActButton.vue'
import Choice from '~/base/Choice.vue'
import DateInput from '~/base/DateInput.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import Phrases from '~/base/Phrases.vue'
import TextInput from '~/base/TextInput.vue'
import TimeInput from '~/base/TimeInput.vue'
import { useForm } from '~/base/useForm'
import { call, newId } from '~/lib/api'
import { useSession } from '~/stores/session'

type Work = Answer<'workOrder'>
type Time = Work['visits'][number]['times'][number]
const props = defineProps<{
  visitId: string
  /** the one that is corrected; none where one is entered */
  time: Time | null
  /** whose time it may be */
  people: { id: string; name: string }[]
}>()
const emit = defineEmits<{ changed: [work: Work]; close: [] }>()
const session = useSession()
const local = (iso: string) => ({
  day: localDate(Date.parse(iso), session.zone),
  time: localTime(Date.parse(iso), session.zone),
})
const { time } = props
const began = time ? local(time.from) : { day: session.today, time: '' }
const form = useForm({
  personId: time?.personId ?? props.people[0]?.id ?? '',
  kind: time?.kind ?? ('on_site' as Time['kind']),
  day: began.day,
  from: began.time,
  to: time?.to ? local(time.to).time : '',
  reason: '',
})
const id = newId()
const kinds = CLOCK_KIND_NAMES.map((value) => ({ value, label: CLOCK_KINDS[value] }))
const instant = (day: string, at: string) =>
  new Date(localToInstant(day, at, session.zone)).toISOString()
/** Until past midnight, where the end is before the beginning. A minute that was not touched keeps its seconds. */
function span() {
  const { day, from, to } = form.values
  const kept = (typed: string, was: string | null | undefined) =>
    was && instant(local(was).day, local(was).time) === typed ? was : typed
  const begins = from ? kept(instant(day, from), time?.from) : ''
  const ends = to ? kept(instant(to < from ? plusDays(day, 1) : day, to), time?.to) : ''
  return { from: begins, to: ends }
}
function send(removed: boolean): Promise<Work> {
  const { personId, kind, reason } = form.values
  const { from, to } = span()
  if (!time)
    return call('enterTime', {
      params: { id: props.visitId },
      body: { id, personId, kind, from, to, reason },
    })
  const was = { from: time.from, to: time.to }
  const body = { was, kind, from, to: to || null, removed, reason }
  return call('mendTime', { params: { id: time.id }, body })
}
const save = (removed: boolean) =>
  form.send(async () => {
    emit('changed', await send(removed))
    emit('close')
  })
</script>

<template>
  <Dialog
    :title="time ? `Correct the time of ${time.person}` : 'Enter time'"
    width="440"
    @close="emit('close')"
  >
    <Form
      :of="form"
      @submit="save(false)"
    >
      <Field
        v-if="!time && people.length > 1"
        name="personId"
        label="Whose"
        ><Choice
          v-model="form.values.personId"
          :options="people.map(({ id: value, name: label }) => ({ value, label }))"
      /></Field>
      <div class="row">
        <Field
          class="grow"
          name="kind"
          label="What"
          ><Choice
            v-model="form.values.kind"
            :options="kinds" /></Field
        ><Field
          class="grow"
          label="Day"
          ><DateInput v-model="form.values.day"
        /></Field>
      </div>
      <div class="row">
        <Field
          class="grow"
          name="from"
          label="From"
          ><TimeInput v-model="form.values.from" /></Field
        ><Field
          v-if="!time || time.to"
          class="grow"
          name="to"
          label="Until"
          ><TimeInput v-model="form.values.to"
        /></Field>
        <p
          v-else
          class="grow quiet small"
        >
          It still runs.
        </p>
      </div>
      <Field
        name="reason"
        label="Why"
        ><TextInput v-model="form.values.reason"
      /></Field>
      <Phrases
        v-model="form.values.reason"
        of="mended"
      />
      <Notice />
      <div class="row">
        <ActButton
          primary
          submit
          >{{ time ? 'Keep the correction' : 'Enter it' }}</ActButton
        >
        <span class="grow" />
        <ActButton
          v-if="time?.to"
          :disabled="form.busy"
          @click="save(true)"
          >Take it out</ActButton
        >
      </div>
    </Form>
  </Dialog>
</template>
