<script setup lang="ts">
// Days on which nobody works.
import ActButton from '~/base/ActButton.vue'
import Form from '~/base/Form.vue'
import DateInput from '~/base/DateInput.vue'
import Field from '~/base/Field.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { call } from '~/lib/api'
import { given } from '~/lib/given'
import { useSession } from '~/stores/session'
import { useSetUpForm, type SetUp } from './useSetUp'

defineProps<{ holidays: SetUp['holidays']; owns: boolean }>()
const emit = defineEmits<{ kept: [setUp: SetUp] }>()
const session = useSession()
const { form, keep } = useSetUpForm({ date: '', name: '' }, (now) => emit('kept', now))
const add = () =>
  keep(() =>
    call('keepHoliday', {
      body: { date: given(form.values.date), name: form.values.name || 'Holiday' },
    }),
  )
const takeBack = (date: string) => keep(() => call('keepHoliday', { body: { date, name: '' } }))
</script>

<template>
  <Form
    :of="form"
    class="sheet box"
    @submit="add"
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
        name="date"
      >
        <DateInput v-model="form.values.date" />
      </Field>
      <Field
        class="grow"
        label="Called"
        name="name"
      >
        <TextInput v-model="form.values.name" />
      </Field>
      <ActButton
        primary
        submit
      >
        Nobody works then
      </ActButton>
    </div>
    <Notice />
  </Form>
</template>
