<script setup lang="ts">
// Days on which nobody works.
import { computed, ref } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Choice from '~/base/Choice.vue'
import Form from '~/base/Form.vue'
import DateInput from '~/base/DateInput.vue'
import Field from '~/base/Field.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { call } from '~/lib/api'
import { given } from '~/lib/given'
import { useAct } from '~/lib/useAct'
import { useSession } from '~/stores/session'
import type { Answer } from '~~/shared/api'
import { useSetUpForm, type SetUp } from './useSetUp'

const props = defineProps<{ holidays: SetUp['holidays']; owns: boolean }>()
const emit = defineEmits<{ kept: [setUp: SetUp] }>()
const session = useSession()
const { busy, problem: failed, act } = useAct()
const { form, keep } = useSetUpForm({ date: '', name: '' }, (now) => emit('kept', now))
const add = () =>
  keep(() =>
    call('keepHoliday', {
      body: { date: given(form.values.date), name: form.values.name || 'Holiday' },
    }),
  )
/** Those that the law of the country has, or of one of its states, asked for when somebody wants them. */
const proposed = ref<Answer<'publicHolidays'> | null>(null)
const state = ref('')
const propose = (of = '') =>
  act(async () => {
    proposed.value = await call('publicHolidays', { query: { state: of } })
    state.value = of
  })
const states = computed(() => [
  { value: '', label: 'the whole country' },
  ...(proposed.value?.states ?? []).map(({ code, name }) => ({ value: code, label: name })),
])
const isOpen = ({ date }: { date: string }) => !props.holidays.some((kept) => kept.date === date)
const left = computed(() => (proposed.value?.items ?? []).filter(isOpen))
const take = (days: readonly { date: string; name: string }[]) =>
  act(async () => {
    for (const body of days) emit('kept', await call('keepHoliday', { body }))
  })
/** What is half typed for another day stays. */
const takeBack = ({ date, name: shown }: SetUp['holidays'][number]) =>
  act(async () => emit('kept', await call('keepHoliday', { body: { date, name: '', shown } })))
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
        @click="takeBack(h)"
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
    <template v-if="owns">
      <ActButton
        v-if="!proposed"
        :disabled="busy"
        @click="propose()"
        >Propose those of our country</ActButton
      >
      <Field
        v-if="proposed?.states.length"
        label="Those of"
        ><Choice
          :model-value="state"
          :options="states"
          @update:model-value="propose"
      /></Field>
      <p
        v-if="proposed && !left.length"
        class="quiet"
      >
        All public holidays of the next year are here.
      </p>
      <template v-else-if="proposed">
        <div
          v-for="h in left"
          :key="h.date"
          class="row"
        >
          <span class="grow quiet">{{ session.day(h.date, 'long') }}: {{ h.name }}</span>
          <ActButton
            class="small"
            :disabled="busy"
            :aria-label="`Nobody works on ${h.name}, ${session.day(h.date)}`"
            @click="take([h])"
            >Take it</ActButton
          >
        </div>
        <ActButton
          :disabled="busy"
          @click="take(left)"
          >Take all {{ left.length }}</ActButton
        >
      </template>
      <Notice :of="failed" />
    </template>
  </Form>
</template>
