<script setup lang="ts">
// Days on which nobody works.
import { reactive } from 'vue'
import ActButton from '~/base/ActButton.vue'
import DateInput from '~/base/DateInput.vue'
import Field from '~/base/Field.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { call } from '~/lib/api'
import { given } from '~/lib/given'
import { useSession } from '~/stores/session'
import { useKeep, type SetUp } from './useSetUp'

defineProps<{ holidays: SetUp['holidays']; owns: boolean }>()
const emit = defineEmits<{ kept: [setUp: SetUp] }>()
const session = useSession()
const { busy, problem, keep, wrong } = useKeep((now) => emit('kept', now))
const NONE = { date: '', name: '' }
const holiday = reactive({ ...NONE })
const add = () =>
  keep(
    () =>
      call('keepHoliday', {
        body: { date: given(holiday.date), name: holiday.name || 'Holiday' },
      }),
    () => Object.assign(holiday, NONE),
  )
const takeBack = (date: string) => keep(() => call('keepHoliday', { body: { date, name: '' } }))
</script>

<template>
  <form
    class="sheet box"
    @submit.prevent="add"
  >
    <h2>Holidays</h2>
    <div
      v-for="h in holidays"
      :key="h.date"
      class="row"
    >
      <span class="grow">{{ session.day(h.date, 'long') }}: {{ h.name }}</span>
      <ActButton
        v-if="owns"
        quiet
        class="small"
        :aria-label="`Take back ${h.name}`"
        @click="takeBack(h.date)"
      >
        Take back
      </ActButton>
    </div>
    <div
      v-if="owns"
      class="row"
    >
      <Field
        label="Day"
        :error="wrong('date')"
      >
        <DateInput v-model="holiday.date" />
      </Field>
      <Field
        class="grow"
        label="Called"
        :error="wrong('name')"
      >
        <TextInput v-model="holiday.name" />
      </Field>
      <ActButton
        primary
        submit
        :disabled="busy"
      >
        Nobody works then
      </ActButton>
    </div>
    <Notice
      :of="problem"
      unplaced
    />
  </form>
</template>
