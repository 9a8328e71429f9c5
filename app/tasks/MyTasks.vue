<script setup lang="ts">
// What I am to do, on my first page: what is due first stands first. Nothing where there is nothing.
import Notice from '~/base/Notice.vue'
import { SHOWS } from '~/lib/live'
import { useAct } from '~/lib/useAct'
import { useAnswer } from '~/lib/useAnswer'
import TaskRow from './TaskRow.vue'

const { data, problem, refresh } = useAnswer('myTasks', undefined, SHOWS.tasks)
const { problem: failed, act } = useAct()
</script>

<template>
  <section
    v-if="data?.items.length"
    class="mine no-print"
    aria-labelledby="my-tasks"
  >
    <h2 id="my-tasks">For me to do</h2>
    <ul>
      <TaskRow
        v-for="task in data.items"
        :key="task.id"
        :task="task"
        :act="act"
        apart
        :refresh="refresh"
      />
    </ul>
  </section>
  <Notice :of="failed ?? problem" />
</template>

<style scoped>
.mine {
  padding: 10px 16px;
  border-bottom: 1px solid var(--rule);
  max-height: 30vh;
  overflow: auto;
}
/* What is being changed is seen whole. */
.mine:has(form) {
  max-height: none;
}
h2 {
  margin: 0 0 4px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
</style>
