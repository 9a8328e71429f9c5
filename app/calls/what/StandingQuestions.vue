<script setup lang="ts">
// What the firm asks of every caller, each answer with its question as it was asked.
import { computed } from 'vue'
import type { Answer } from '~~/shared/api'
import type { Draft } from '~/stores/call'
import ActButton from '~/base/ActButton.vue'
import Choice from '~/base/Choice.vue'
import TextInput from '~/base/TextInput.vue'

const props = defineProps<{ questions: Answer<'setUp'>['questions'] }>()
const answers = defineModel<Draft['answers']>({ required: true })
const asked = computed(() => props.questions.filter((q) => !q.retired))
const answerOf = (id: string) => answers.value.find((a) => a.questionId === id)?.answer ?? ''
function answer(id: string, question: string, value: string) {
  const rest = answers.value.filter((a) => a.questionId !== id)
  answers.value = value ? [...rest, { questionId: id, question, answer: value }] : rest
}
</script>

<template>
  <fieldset
    v-if="asked.length"
    class="stack"
  >
    <legend>Asked of every caller</legend>
    <div
      v-for="q in asked"
      :key="q.id"
      class="question"
    >
      <span :id="`q${q.id}`">{{ q.text }}</span>
      <span
        v-if="q.kind === 'yes_no'"
        class="row"
        role="group"
        :aria-labelledby="`q${q.id}`"
        ><ActButton
          v-for="v in ['yes', 'no']"
          :key="v"
          :on="answerOf(q.id) === v"
          :aria-pressed="answerOf(q.id) === v"
          @click="answer(q.id, q.text, answerOf(q.id) === v ? '' : v)"
        >
          {{ v }}
        </ActButton></span
      >
      <Choice
        v-else-if="q.kind === 'choice'"
        :aria-label="q.text"
        :model-value="answerOf(q.id)"
        :options="[{ value: '', label: '–' }, ...q.choices.map((c) => ({ value: c, label: c }))]"
        @change="answer(q.id, q.text, $event)"
      />
      <TextInput
        v-else
        :aria-labelledby="`q${q.id}`"
        :model-value="answerOf(q.id)"
        @input="answer(q.id, q.text, $event)"
      />
    </div>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 1px solid var(--rule-2);
  border-radius: 4px;
  padding: 6px 10px 10px;
  margin: 0;
  gap: 6px;
}
legend {
  font-size: 0.75rem;
  color: var(--ink-2);
  padding: 0 4px;
}
.question {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 122px;
  gap: 8px;
  align-items: center;
}
.question .btn {
  min-height: 28px;
  padding: 0 10px;
}
</style>
