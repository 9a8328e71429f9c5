<script setup lang="ts">
// Enters when somebody is off: days, or a part of one.
import { reactive } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Choice from '~/base/Choice.vue'
import DateInput from '~/base/DateInput.vue'
import Field from '~/base/Field.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import TimeInput from '~/base/TimeInput.vue'
import { call, newId } from '~/lib/api'
import { given } from '~/lib/given'
import { peopleOf, useKeep, type SetUp } from './useSetUp'

defineProps<{ setUp: SetUp }>()
const emit = defineEmits<{ kept: [setUp: SetUp] }>()
const { busy, problem, keep, wrong } = useKeep((now) => emit('kept', now))
const NONE = { from: '', fromTime: '', to: '', toTime: '', reason: '' }
const off = reactive({ personId: '', ...NONE })
const save = () =>
  keep(
    () =>
      call('addTimeOff', {
        body: {
          id: newId(),
          personId: given(off.personId),
          from: given(off.from),
          fromTime: off.fromTime || null,
          to: given(off.to || off.from),
          toTime: off.toTime || null,
          reason: off.reason,
        },
      }),
    () => Object.assign(off, NONE),
  )
</script>

<template>
  <form
    class="sheet box"
    @submit.prevent="save"
  >
    <h2>Time off</h2>
    <Field
      label="Who is off"
      :error="wrong('personId')"
    >
      <Choice
        v-model="off.personId"
        :options="peopleOf(setUp)"
      />
    </Field>
    <div class="row">
      <Field
        class="grow"
        label="From"
        :error="wrong('from', 'fromTime')"
      >
        <DateInput v-model="off.from" />
      </Field>
      <Field label="at"><TimeInput v-model="off.fromTime" /></Field>
      <Field
        class="grow"
        label="To"
        :error="wrong('to', 'toTime')"
      >
        <DateInput v-model="off.to" />
      </Field>
      <Field label="at"><TimeInput v-model="off.toTime" /></Field>
    </div>
    <div class="row">
      <Field
        class="grow"
        label="Reason"
        :error="wrong('reason')"
      >
        <TextInput v-model="off.reason" />
      </Field>
      <ActButton
        primary
        submit
        :disabled="busy"
      >
        Enter time off
      </ActButton>
    </div>
    <Notice
      :of="problem"
      unplaced
    />
  </form>
</template>
