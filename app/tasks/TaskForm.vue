<script setup lang="ts">
// Something to do, while it is given, or given on, put off, written anew.
import { computed } from 'vue'
import type { TaskSubject } from '~~/core/waiting/taskSubjects'
import type { Answer } from '~~/shared/api'
import ActButton from '~/base/ActButton.vue'
import Form from '~/base/Form.vue'
import FormFields from '~/base/FormFields.vue'
import { field, namesOf, type FormRows } from '~/base/fields'
import Notice from '~/base/Notice.vue'
import { useForm, useFormAbout } from '~/base/useForm'
import { call, newId } from '~/lib/api'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'

type Task = Answer<'tasks'>['items'][number]
const props = defineProps<{
  about: TaskSubject
  subjectId: string
  /** the one that is changed; none where one is given */
  task?: Task | undefined
  refresh: () => Promise<unknown>
}>()
const emit = defineEmits<{ close: [] }>()
const session = useSession()
const { data: people } = useAnswer('people')
const asTyped = ({ what, ownerId, on }: Task) => ({ what, ownerId, on: on ?? '' })
const known =
  props.task &&
  useFormAbout(() => props.task!, asTyped, props.refresh, { draft: `task ${props.task.id}` })
const form =
  known ??
  useForm(
    { id: newId(), what: '', ownerId: session.me?.person.id ?? '', on: '' },
    { draft: `task ${props.subjectId}` },
  )
const fields = computed<FormRows>(() => [
  field('what', 'What is to be done'),
  [
    field('ownerId', 'By whom', { options: namesOf(people.value?.items) }),
    field('on', 'By', { kind: 'date', narrow: true }),
  ],
])
const dayOf = (on: string | undefined) => (on === undefined ? {} : { on: on || null })
async function done() {
  await props.refresh()
  emit('close')
}
const keep = () =>
  known
    ? known.keep(async (version) => {
        const { on, ...changes } = known.changes()
        const body = { version, ...changes, ...dayOf(on) }
        await call('changeTask', { params: { id: props.task!.id }, body })
        await done()
      })
    : form.send(async () => {
        const { about, subjectId } = props
        await call('newTask', {
          body: { about, subjectId, ...(form.values as { id: string }), ...typed() },
        })
        await done()
      })
const typed = () => {
  const { what, ownerId, on } = form.values
  return { what: what.trim(), ownerId, on: on || null }
}
function leave() {
  form.discard()
  emit('close')
}
</script>

<template>
  <Form
    :of="form"
    class="sheet pad"
    @submit="keep"
    @keydown.esc.stop="leave"
  >
    <FormFields :fields="fields" />
    <Notice />
    <div class="row">
      <ActButton
        primary
        submit
      >
        {{ task ? 'Keep it' : 'Give it' }}
      </ActButton>
      <ActButton @click="leave"> Leave </ActButton>
    </div>
  </Form>
</template>

<style scoped>
.pad {
  padding: 12px;
}
</style>
