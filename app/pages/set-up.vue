<script setup lang="ts">
// What the firm sets up for its calls: standing questions, its own fields, where callers come from.
import { reactive, ref } from 'vue'
import type { Answer } from '~~/shared/api'
import { FIELD_KINDS, FIELD_SUBJECTS, QUESTION_KINDS, WORK_STATES } from '~~/shared/settings'
import { call, newId } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { SHOWS } from '~/lib/live'
import { useLoad } from '~/lib/useLoad'
import { useSession } from '~/stores/session'

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
      body: { labels: WORK_STATES.map((state) => ({ state, label: labels[state] ?? '' })) },
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
    <p
      v-if="failed"
      class="note bad"
      role="alert"
    >
      {{ failed.message }}
    </p>
    <div class="two">
      <div class="stack">
        <h2>Asked of every caller</h2>
        <table class="book">
          <tbody>
            <tr
              v-for="q in data.questions"
              :key="q.id"
            >
              <td :class="{ quiet: q.retired }">
                {{ q.text }}<br /><span class="small quiet"
                  >{{ said(q.kind) }}{{ q.choices.length ? `: ${q.choices.join(', ')}` : '' }}</span
                >
              </td>
              <td class="right">
                <button
                  class="btn"
                  :disabled="busy"
                  @click="retireQuestion(q)"
                >
                  {{ q.retired ? 'Ask again' : 'Do not ask' }}
                </button>
              </td>
            </tr>
          </tbody>
        </table>
        <form
          class="row wrap"
          @submit.prevent="addQuestion"
        >
          <input
            v-model="question.text"
            class="plain"
            style="flex: 1"
            placeholder="A further question"
            aria-label="A further question"
          /><select
            v-model="question.kind"
            class="plain"
            aria-label="How it is answered"
            style="width: 110px"
          >
            <option
              v-for="k in QUESTION_KINDS"
              :key="k"
              :value="k"
            >
              {{ said(k) }}
            </option></select
          ><input
            v-if="question.kind === 'choice'"
            v-model="question.choices"
            class="plain"
            placeholder="choices, with commas"
            aria-label="Choices"
          /><button
            class="btn act"
            :disabled="busy || !question.text"
          >
            Add
          </button>
        </form>
        <h2>How callers hear of us</h2>
        <div class="row wrap">
          <span
            v-for="s in data.sources"
            :key="s"
            class="chip"
            >{{ s }}
            <button
              class="btn plain x"
              :aria-label="`Take out ${s}`"
              @click="keepSources(data.sources.filter((x) => x !== s))"
            >
              ×
            </button></span
          >
        </div>
        <form
          class="row"
          @submit.prevent="keepSources([...data.sources, source])"
        >
          <input
            v-model="source"
            class="plain"
            placeholder="A further source"
            aria-label="A further source"
          /><button
            class="btn"
            :disabled="busy || !source"
          >
            Add
          </button>
        </form>
      </div>
      <div class="stack">
        <h2>Fields of our own</h2>
        <table class="book">
          <tbody>
            <tr
              v-for="f in data.fields"
              :key="f.id"
            >
              <td :class="{ quiet: f.retired }">
                {{ f.name }}<br /><span class="small quiet"
                  >of {{ said(f.subject) }}s · {{ said(f.kind)
                  }}{{ f.choices.length ? `: ${f.choices.join(', ')}` : '' }}</span
                >
              </td>
              <td class="right">
                <button
                  class="btn"
                  :disabled="busy"
                  @click="retireField(f)"
                >
                  {{ f.retired ? 'Use again' : 'Retire' }}
                </button>
              </td>
            </tr>
          </tbody>
        </table>
        <form
          class="row wrap"
          @submit.prevent="addField"
        >
          <input
            v-model="field.name"
            class="plain"
            style="flex: 1"
            placeholder="A further field"
            aria-label="A further field"
          /><select
            v-model="field.subject"
            class="plain"
            aria-label="Where it belongs"
            style="width: 120px"
          >
            <option
              v-for="k in FIELD_SUBJECTS"
              :key="k"
              :value="k"
            >
              {{ said(k) }}
            </option></select
          ><select
            v-model="field.kind"
            class="plain"
            aria-label="What it holds"
            style="width: 100px"
          >
            <option
              v-for="k in FIELD_KINDS"
              :key="k"
              :value="k"
            >
              {{ said(k) }}
            </option></select
          ><input
            v-if="field.kind === 'choice'"
            v-model="field.choices"
            class="plain"
            placeholder="choices, with commas"
            aria-label="Choices of the field"
          /><button
            class="btn act"
            :disabled="busy || !field.name"
          >
            Add
          </button>
        </form>
        <h2>Our words for the states of work</h2>
        <form
          class="states"
          @submit.prevent="keepLabels"
        >
          <label
            v-for="s in WORK_STATES"
            :key="s"
            class="field"
            ><span>{{ s.replaceAll('_', ' ') }}</span
            ><input
              v-model="labels[s]"
              class="plain"
              maxlength="30"
              :placeholder="s.replaceAll('_', ' ')" /></label
          ><button
            class="btn"
            :disabled="busy"
          >
            Keep these words
          </button>
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
  <p
    v-else
    class="empty"
    role="status"
  >
    {{ problem?.message ?? 'Opening…' }}
  </p>
</template>

<style scoped>
.page {
  padding: 18px 20px;
  display: flex;
  flex-direction: column;
  gap: 12px;
}
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
