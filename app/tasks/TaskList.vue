<script setup lang="ts">
// What is to be done about something: open, and the last that was done; given to somebody on the spot.
import { ref } from 'vue'
import type { TaskSubject } from '~~/core/waiting/taskSubjects'
import ActButton from '~/base/ActButton.vue'
import Notice from '~/base/Notice.vue'
import { SHOWS } from '~/lib/live'
import { useAct } from '~/lib/useAct'
import { useAnswer } from '~/lib/useAnswer'
import TaskForm from './TaskForm.vue'
import TaskRow from './TaskRow.vue'

const props = defineProps<{ about: TaskSubject; subjectId: string }>()
const asked = () => ({ query: { about: props.about, subjectId: props.subjectId } })
const { data, problem, refresh } = useAnswer('tasks', asked, SHOWS.tasks)
const { problem: failed, act } = useAct()
const giving = ref(false)
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
        :refresh="refresh"
      />
    </ul>
    <Notice :of="failed ?? problem" />
    <TaskForm
      v-if="giving"
      :about="about"
      :subject-id="subjectId"
      :refresh="refresh"
      @close="giving = false"
    />
    <ActButton
      v-else
      quiet
      class="small"
      @click="giving = true"
    >
      + something to do
    </ActButton>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
</style>
