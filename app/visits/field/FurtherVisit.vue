<script setup lang="ts">
// Not finished in one go: the office finds the time, and reads here why.
import { ref } from 'vue'
import type { Work } from './useFieldVisit'

const props = defineProps<{
  visits: Work['visits']
  busy: boolean
  ask: (note: string) => Promise<unknown>
}>()
const asking = ref(false)
const note = ref('')
async function send() {
  if (!(await props.ask(note.value))) return
  note.value = ''
  asking.value = false
}
const asked = () => props.visits.filter((v) => !v.startAt && v.state === 'planned')
</script>

<template>
  <button
    v-if="!asking"
    class="btn"
    @click="asking = true"
  >
    A further visit is needed…
  </button>
  <form
    v-else
    class="stack"
    @submit.prevent="send"
  >
    <label class="field">
      <span>What for: a part, more time, a second pair of hands</span>
      <input
        v-model="note"
        class="plain"
      />
    </label>
    <button
      class="btn act"
      :disabled="busy || !note.trim()"
    >
      Ask the office for a further visit
    </button>
  </form>
  <p
    v-for="v in asked()"
    :key="v.id"
    class="quiet small"
  >
    A further visit is asked for; the office finds the time.
  </p>
</template>
