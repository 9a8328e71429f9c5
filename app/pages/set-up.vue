<script setup lang="ts">
// What the firm sets up for its calls: standing questions, its own fields, where callers come from.
import { WORK_ORDER_STATES } from '~~/core/visits/workOrderState'
import { reactive, ref } from 'vue'
import type { Answer } from '~~/shared/api'
import { FIELD_KINDS, FIELD_SUBJECTS, QUESTION_KINDS } from '~~/shared/settings'
import { call, newId } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { SHOWS } from '~/lib/live'
import { useLoad } from '~/lib/useLoad'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import Choice from '~/base/Choice.vue'
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'
import DataTable from '~/base/DataTable.vue'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'

definePageMeta({ layout: 'office' })
const session = useSession()
const { data, problem, refresh } = useLoad(() => call('setUp'), 0, SHOWS.setUp)
const { busy, problem: failed, act } = useAct()
const question = reactive({
  text: '',
  kind: 'yes_no' as (typeof QUESTION_KINDS)[number],
  choices: '',
})
const field = reactive({
  name: '',
  subject: 'customer' as (typeof FIELD_SUBJECTS)[number],
  kind: 'text' as (typeof FIELD_KINDS)[number],
  choices: '',
})
const source = ref('')
const words = (text: string) =>
  text
    .split(',')
    .map((t) => t.trim())
    .filter(Boolean)
const said = (k: string) => k.replace('_', ' or ').replace('work or order', 'work order')
const addQuestion = () =>
  act(async () => {
    await call('keepQuestion', {
      body: {
        id: newId(),
        text: question.text,
        kind: question.kind,
        choices: words(question.choices),
        position: data.value?.questions.length ?? 0,
      },
    })
    Object.assign(question, { text: '', choices: '' })
    await refresh()
  })
const addField = () =>
  act(async () => {
    await call('keepField', {
      body: {
        id: newId(),
        ...field,
        choices: words(field.choices),
        position: data.value?.fields.length ?? 0,
      },
    })
    Object.assign(field, { name: '', choices: '' })
    await refresh()
  })
const labels = reactive<Record<string, string>>({
  ...(session.me?.company.stateLabels as Record<string, string> | undefined),
})
const keepLabels = () =>
  act(async () => {
    await call('keepStateLabels', {
      body: { labels: WORK_ORDER_STATES.map((state) => ({ state, label: labels[state] ?? '' })) },
    })
    session.keep(await call('session'))
  })
const retireQuestion = (q: Answer<'setUp'>['questions'][number]) =>
  act(async () => {
    await call('keepQuestion', {
      body: { ...q, retired: !q.retired, position: data.value!.questions.indexOf(q) },
    })
    await refresh()
  })
const retireField = (f: Answer<'setUp'>['fields'][number]) =>
  act(async () => {
    await call('keepField', {
      body: { ...f, retired: !f.retired, position: data.value!.fields.indexOf(f) },
    })
    await refresh()
  })
const keepSources = (sources: string[]) =>
  act(async () => {
    await call('keepSources', { body: { sources } })
    source.value = ''
    await refresh()
  })
</script>

<template>
  <section
    v-if="data"
    class="page"
  >
    <h1>Set-up of calls</h1>
    <Notice :of="failed" />
    <div class="two">
      <div class="stack">
        <h2>Asked of every caller</h2>
        <DataTable
          :rows="data.questions"
          :row-key="(q) => q.id"
          :columns="[
            { key: 'c1', tone: (q) => ({ quiet: q.retired }) },
            { key: 'c2', right: true },
          ]"
          ><template #c1="{ row: q }"
            >{{ q.text }}<br /><span class="small quiet"
              >{{ said(q.kind) }}{{ q.choices.length ? `: ${q.choices.join(', ')}` : '' }}</span
            ></template
          >
          <template #c2="{ row: q }"
            ><ActButton
              :disabled="busy"
              @click="retireQuestion(q)"
            >
              {{ q.retired ? 'Ask again' : 'Do not ask' }}
            </ActButton></template
          ></DataTable
        >
        <form
          class="row wrap"
          @submit.prevent="addQuestion"
        >
          <TextInput
            v-model="question.text"
            style="flex: 1"
            placeholder="A further question"
            aria-label="A further question"
          /><Choice
            v-model="question.kind"
            aria-label="How it is answered"
            style="width: 110px"
            :options="QUESTION_KINDS.map((k) => ({ value: k, label: said(k) }))"
          /><TextInput
            v-if="question.kind === 'choice'"
            v-model="question.choices"
            placeholder="choices, with commas"
            aria-label="Choices"
          /><ActButton
            primary
            submit
            :disabled="busy || !question.text"
          >
            Add
          </ActButton>
        </form>
        <h2>How callers hear of us</h2>
        <div class="row wrap">
          <span
            v-for="s in data.sources"
            :key="s"
            class="chip"
            >{{ s }}
            <ActButton
              quiet
              class="x"
              :aria-label="`Take out ${s}`"
              @click="keepSources(data.sources.filter((x) => x !== s))"
            >
              ×
            </ActButton></span
          >
        </div>
        <form
          class="row"
          @submit.prevent="keepSources([...data.sources, source])"
        >
          <TextInput
            v-model="source"
            placeholder="A further source"
            aria-label="A further source"
          /><ActButton
            submit
            :disabled="busy || !source"
          >
            Add
          </ActButton>
        </form>
      </div>
      <div class="stack">
        <h2>Fields of our own</h2>
        <DataTable
          :rows="data.fields"
          :row-key="(f) => f.id"
          :columns="[
            { key: 'c1', tone: (f) => ({ quiet: f.retired }) },
            { key: 'c2', right: true },
          ]"
          ><template #c1="{ row: f }"
            >{{ f.name }}<br /><span class="small quiet"
              >of {{ said(f.subject) }}s · {{ said(f.kind)
              }}{{ f.choices.length ? `: ${f.choices.join(', ')}` : '' }}</span
            ></template
          >
          <template #c2="{ row: f }"
            ><ActButton
              :disabled="busy"
              @click="retireField(f)"
            >
              {{ f.retired ? 'Use again' : 'Retire' }}
            </ActButton></template
          ></DataTable
        >
        <form
          class="row wrap"
          @submit.prevent="addField"
        >
          <TextInput
            v-model="field.name"
            style="flex: 1"
            placeholder="A further field"
            aria-label="A further field"
          /><Choice
            v-model="field.subject"
            aria-label="Where it belongs"
            style="width: 120px"
            :options="FIELD_SUBJECTS.map((k) => ({ value: k, label: said(k) }))"
          /><Choice
            v-model="field.kind"
            aria-label="What it holds"
            style="width: 100px"
            :options="FIELD_KINDS.map((k) => ({ value: k, label: said(k) }))"
          /><TextInput
            v-if="field.kind === 'choice'"
            v-model="field.choices"
            placeholder="choices, with commas"
            aria-label="Choices of the field"
          /><ActButton
            primary
            submit
            :disabled="busy || !field.name"
          >
            Add
          </ActButton>
        </form>
        <h2>Our words for the states of work</h2>
        <form
          class="states"
          @submit.prevent="keepLabels"
        >
          <Field
            v-for="s in WORK_ORDER_STATES"
            :key="s"
            :label="s.replaceAll('_', ' ')"
            ><TextInput
              v-model="labels[s]"
              maxlength="30"
              :placeholder="s.replaceAll('_', ' ')" /></Field
          ><ActButton
            submit
            :disabled="busy"
          >
            Keep these words
          </ActButton>
        </form>
        <h2>The request form</h2>
        <p class="quiet">
          Anybody can ask for work at
          <a
            href="/request"
            target="_blank"
            >/request</a
          >. To show it inside the firm’s own web page:
        </p>
        <code class="note"
          >&lt;iframe src="…/request" title="Ask for work" width="100%"
          height="760"&gt;&lt;/iframe&gt;</code
        >
      </div>
    </div>
  </section>
  <Pending
    v-else
    :problem="problem"
  />
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 24px;
}
.states {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 8px;
  align-items: end;
}
.wrap {
  flex-wrap: wrap;
}
.x {
  min-height: 20px;
  padding: 0 2px;
}
code {
  font: 12px var(--mono);
}
</style>
