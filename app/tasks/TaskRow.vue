<script setup lang="ts">
// One task: ticked off, or not after all; given on and put off; and where it leads.
import { ref } from 'vue'
import { taskPage } from '~~/core/waiting/taskSubjects'
import type { Answer } from '~~/shared/api'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import { call } from '~/lib/api'
import type { useAct } from '~/lib/useAct'
import { useSession } from '~/stores/session'
import TaskForm from './TaskForm.vue'

type Task = Answer<'tasks'>['items'][number]
const props = defineProps<{
  task: Task
  act: ReturnType<typeof useAct>['act']
  refresh: () => Promise<unknown>
  /** says also what it is about */
  apart?: boolean
}>()
const changing = ref(false)
const session = useSession()
const tick = (done: boolean) =>
  props.act(async () => {
    const { id, version } = props.task
    await call('changeTask', { params: { id }, body: { version, done } })
    await props.refresh()
  })
</script>

<template>
  <li class="task">
    <Check
      :model-value="task.doneAt !== null"
      @update:model-value="tick(Boolean($event))"
      ><s v-if="task.doneAt">{{ task.what }}</s
      ><template v-else>{{ task.what }}</template></Check
    >
    <span class="quiet small">
      <NuxtLink
        v-if="apart && session.may('tasks.give')"
        :to="taskPage(task.about, task.subjectId)"
        >{{ task.label }}</NuxtLink><template v-else-if="apart">{{ task.label }}</template>
      <template v-else>{{ task.owner }}</template>
      <template v-if="task.doneAt">
        · done {{ session.dayTime(task.doneAt) }} by {{ task.doneBy }}</template
      >
      <template v-else-if="task.on">
        · by
        <b :class="{ late: task.late }">{{ session.day(task.on) }}</b>
      </template>
    </span>
    <ActButton
      v-if="!task.doneAt && !changing && session.may('tasks.give')"
      quiet
      class="small"
      :aria-label="`Change ${task.what}`"
      @click="changing = true"
    >
      Change
    </ActButton>
    <TaskForm
      v-if="changing"
      class="form"
      :about="task.about"
      :subject-id="task.subjectId"
      :task="task"
      :refresh="refresh"
      @close="changing = false"
    />
  </li>
</template>

<style scoped>
.task {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  align-items: baseline;
}
.form {
  width: 100%;
}
</style>
