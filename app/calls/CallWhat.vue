<script setup lang="ts">
// What it is about: the problem, the equipment, the firm's standing questions, a price to read out, pictures.
import { ref } from 'vue'
import { CALL_ABOUT, sayCallAbout } from '~~/core/calls/callAbout'
import type { Answer } from '~~/shared/api'
import type { Problem } from '~/lib/api'
import type { Draft } from '~/stores/call'
import { useSession } from '~/stores/session'
import Choice from '~/base/Choice.vue'
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'
import AboutBefore from './what/AboutBefore.vue'
import CallFiles from './what/CallFiles.vue'
import ReadOut from './what/ReadOut.vue'
import StandingQuestions from './what/StandingQuestions.vue'
import type { ReadLine } from './what/useReadOut'
import { useUsualCharges } from './what/useUsualCharges'

const props = defineProps<{
  callId: string
  chosen: Answer<'caller'> | null
  setUp: Answer<'setUp'> | null
  problem: Problem | null
}>()
const draft = defineModel<Draft>({ required: true })
const lines = defineModel<ReadLine[]>('lines', { required: true })
const files = defineModel<Answer<'call'>['files']>('files', { required: true })
const box = ref<{ focus: () => void }>()
defineExpose({ focus: () => box.value?.focus() })
const session = useSession()
/** What is proposed for the one before gives way to what is for this; what somebody chose stays. */
function setKind(kind = draft.value.kind) {
  const before = draft.value.kind
  if (draft.value.durationSeconds === session.secondsOf(draft.value.kind))
    draft.value.durationSeconds = session.secondsOf(kind)
  draft.value.kind = kind
  void follow(before)
}
const { follow } = useUsualCharges(draft, lines)
const wrong = (path: string) => props.problem?.at(path) ?? ''
</script>

<template>
  <section class="what">
    <Field
      label="What is wrong"
      data-tour="call.what"
      ><TextInput
        ref="box"
        v-model="draft.problem"
        rows="4"
      />
    </Field>
    <p
      v-if="wrong('problem')"
      class="wrong"
    >
      {{ wrong('problem') }}
    </p>
    <Field label="The call"
      ><Choice
        v-model="draft.about"
        :options="CALL_ABOUT.map((a) => ({ value: a, label: sayCallAbout(a) }))"
    /></Field>
    <div class="row">
      <Field
        class="grow"
        label="Kind of work"
        ><Choice
          :model-value="draft.kind"
          :options="session.kindOptions(draft.kind)"
          @update:model-value="setKind"
      /></Field>
      <Field
        class="grow"
        label="How they heard of us"
        ><Choice
          v-model="draft.source"
          :options="[
            { value: '', label: 'not asked' },
            ...(setUp?.sources ?? []).map((s) => ({ value: s, label: s })),
          ]"
      /></Field>
    </div>
    <AboutBefore
      v-if="chosen"
      v-model="draft"
      :chosen="chosen"
    />
    <ReadOut
      v-model="draft"
      v-model:lines="lines"
      :customer-id="chosen?.customerId ?? null"
    />
    <StandingQuestions
      v-model="draft.answers"
      :questions="setUp?.questions ?? []"
    />
    <Field label="Their order number"><TextInput v-model="draft.orderNumber" /></Field>
    <CallFiles
      v-model="files"
      :call-id="callId"
    />
  </section>
</template>
