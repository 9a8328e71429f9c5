<script setup lang="ts">
// Who is calling: matches while it is typed, a new customer in the same place, and what to know of the one chosen.
import { ref } from 'vue'
import type { Answer } from '~~/shared/api'
import type { Problem } from '~/lib/api'
import type { Draft } from '~/stores/call'
import ActButton from '~/base/ActButton.vue'
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'
import CallerAccount from './who/CallerAccount.vue'
import ChosenCaller from './who/ChosenCaller.vue'
import MatchList from './who/MatchList.vue'
import NewCaller from './who/NewCaller.vue'
import { useMatches } from './who/useMatches'

const props = defineProps<{
  chosen: Answer<'caller'> | null
  setUp: Answer<'setUp'> | null
  problem: Problem | null
}>()
const emit = defineEmits<{ choose: [customerId: string, siteId: string | null]; clear: [] }>()
const draft = defineModel<Draft>({ required: true })
const who = ref<{ focus: () => void }>()
defineExpose({ focus: () => who.value?.focus() })
const wrong = (path: string) => props.problem?.at(path) ?? ''
const { matches, at, unseen, search, step, forget, settled } = useMatches(
  draft,
  () => !props.chosen && !draft.value.isNew,
)
function choose(customerId: string, siteId: string | null) {
  forget()
  emit('choose', customerId, siteId)
}
function beginNew() {
  const { query, phone } = draft.value
  const isNumber = /^[\d\s().+-]{4,}$/.test(query)
  forget()
  Object.assign(draft.value, {
    isNew: true,
    name: isNumber ? '' : query,
    phone: isNumber ? query : phone,
  })
}
/** Faster than the answer: what was typed is meant, not what is on the screen. */
async function enter() {
  await settled()
  const match = matches.value[at.value]
  if (match) choose(match.customerId, match.siteId)
  else if (draft.value.query.trim() && !unseen.value) beginNew()
}
function key(e: KeyboardEvent) {
  if (e.key === 'ArrowDown') step(1)
  else if (e.key === 'ArrowUp') step(-1)
  else if (e.key === 'Enter' && !e.ctrlKey && !e.metaKey) void enter()
  else return
  e.preventDefault()
}
</script>

<template>
  <section class="who">
    <Field
      label="Who is calling"
      data-tour="call.who"
    >
      <TextInput
        ref="who"
        v-model="draft.query"
        class="big"
        placeholder="Name, number, address, serial number"
        autocomplete="off"
        role="combobox"
        :aria-expanded="matches.length > 0"
        aria-controls="matches"
        @keydown="key"
    /></Field>
    <p
      v-if="wrong('customerId') && !chosen"
      class="wrong"
    >
      {{ wrong('customerId') }}
    </p>
    <p
      v-if="unseen && !chosen && !draft.isNew"
      class="note bad"
      role="alert"
    >
      Nobody could be looked for: {{ unseen }} <ActButton @click="search"> Look again</ActButton
      >{{ ' ' }}<ActButton @click="beginNew"> Enter as new </ActButton>
    </p>
    <MatchList
      v-else-if="!chosen && !draft.isNew && draft.query.trim().length > 1"
      :query="draft.query"
      :matches="matches"
      :at="at"
      @choose="(m) => choose(m.customerId, m.siteId)"
      @new="beginNew"
    />
    <NewCaller
      v-if="draft.isNew && !chosen"
      v-model="draft"
      :country="setUp?.country ?? 'US'"
      :wrong="wrong"
      @choose="choose"
    />
    <template v-if="chosen">
      <ChosenCaller
        v-model="draft"
        :chosen="chosen"
        :country="setUp?.country ?? 'US'"
        :wrong="wrong"
        @clear="emit('clear')"
      />
      <CallerAccount :chosen="chosen" />
    </template>
  </section>
</template>
