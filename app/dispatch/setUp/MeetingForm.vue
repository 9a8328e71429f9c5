<script setup lang="ts">
// Enters a meeting or a training into somebody's day.
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
const meeting = reactive({ personId: '', date: '', from: '08:00', to: '09:00', title: '' })
const save = () =>
  keep(
    () =>
      call('addEntry', {
        body: {
          ...meeting,
          id: newId(),
          personId: given(meeting.personId),
          date: given(meeting.date),
        },
      }),
    () => {
      meeting.title = ''
    },
  )
</script>

<template>
  <form
    class="sheet box"
    @submit.prevent="save"
  >
    <h2>Meeting, training</h2>
    <Field
      label="For whom"
      :error="wrong('personId')"
    >
      <Choice
        v-model="meeting.personId"
        :options="peopleOf(setUp)"
      />
    </Field>
    <div class="row">
      <Field
        class="grow"
        label="Day"
        :error="wrong('date')"
      >
        <DateInput v-model="meeting.date" />
      </Field>
      <Field
        label="from"
        :error="wrong('from')"
      >
        <TimeInput v-model="meeting.from" />
      </Field>
      <Field
        label="to"
        :error="wrong('to')"
      >
        <TimeInput v-model="meeting.to" />
      </Field>
    </div>
    <div class="row">
      <Field
        class="grow"
        label="What it is"
        :error="wrong('title')"
      >
        <TextInput v-model="meeting.title" />
      </Field>
      <ActButton
        primary
        submit
        :disabled="busy"
      >
        Enter it
      </ActButton>
    </div>
    <Notice
      :of="problem"
      unplaced
    />
  </form>
</template>
