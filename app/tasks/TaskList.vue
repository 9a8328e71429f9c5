<script setup lang="ts">
// What is to be done about something: open, and the last that was done; given to somebody on the spot.
import { computed, ref } from 'vue'
import type { TaskSubject } from '~~/core/waiting/taskSubjects'
import ActButton from '~/base/ActButton.vue'
import Form from '~/base/Form.vue'
import FormFields from '~/base/FormFields.vue'
import { field, namesOf, type FormRows } from '~/base/fields'
import Notice from '~/base/Notice.vue'
import { useForm } from '~/base/useForm'
import { call, newId } from '~/lib/api'
import { SHOWS } from '~/lib/live'
import { useAct } from '~/lib/useAct'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'
import TaskRow from './TaskRow.vue'

const props = defineProps<{ about: TaskSubject; subjectId: string }>()
const session = useSession()
const asked = () => ({ query: { about: props.about, subjectId: props.subjectId } })
const { data, problem, refresh } = useAnswer('tasks', asked, SHOWS.tasks)
const { data: people } = useAnswer('people')
const { problem: failed, act } = useAct()
const giving = ref(false)
const fresh = () => ({ id: newId(), what: '', ownerId: session.me?.person.id ?? '', on: '' })
const form = useForm(fresh(), { draft: `task ${props.subjectId}` })
const fields = computed<FormRows>(() => [
  field('what', 'What is to be done'),
  [
    field('ownerId', 'By whom', { options: namesOf(people.value?.items) }),
    field('on', 'By', { kind: 'date', narrow: true }),
  ],
])
const give = () =>
  form.send(async () => {
    const { id, what, ownerId, on } = form.values
    const { about, subjectId } = props
    await call('newTask', {
      body: { id, about, subjectId, what: what.trim(), ownerId, on: on || null },
    })
    await refresh()
    giving.value = false
  }, fresh)
function leave() {
  form.discard()
  giving.value = false
}
</script>

<template>
  <section
    class="tasks no-print"
    aria-label="To do"
  >
    <ul v-if="data?.items.length">
      <TaskRow
        v-for="task in data.items"
        :key="task.id"
        :task="task"
        :act="act"
        @changed="refresh()"
      />
    </ul>
    <Notice :of="failed ?? problem" />
    <ActButton
      v-if="!giving"
      quiet
      class="small"
      @click="giving = true"
    >
      + something to do
    </ActButton>
    <Form
      v-else
      :of="form"
      class="sheet pad"
      @submit="give"
      @keydown.esc.stop="leave"
    >
      <FormFields :fields="fields" />
      <Notice />
      <div class="row">
        <ActButton
          primary
          submit
        >
          Give it
        </ActButton>
        <ActButton @click="leave"> Leave </ActButton>
      </div>
    </Form>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.pad {
  padding: 12px;
}
</style>
