<script setup lang="ts">
// What was refused because it is over one's limit: asked of somebody who may, in a line and a tap. Stands within the form that was refused.
import { ref } from 'vue'
import type { Askable } from '~~/core/access/limits'
import ActButton from '~/base/ActButton.vue'
import TextInput from '~/base/TextInput.vue'
import { call, newId, type Problem } from '~/lib/api'
import { useAct } from '~/lib/useAct'

const props = defineProps<{ of: Problem }>()
const asked = ref(false)
const reason = ref('')
const { busy, problem, act } = useAct()
const id = newId()
const ask = () =>
  act(async () => {
    const { route, subjectId, body } = props.of.extra.request as {
      route: Askable
      subjectId: string
      body: unknown
    }
    const sent = { id, route, subjectId, body: JSON.stringify(body), reason: reason.value }
    await call('askForYes', { body: sent })
    asked.value = true
  })
</script>

<template>
  <p
    v-if="asked"
    class="note"
    role="status"
  >
    It is asked for. Whoever may says yes or no, and it is done with their yes.
  </p>
  <div
    v-else
    class="row"
    @keydown.enter.prevent.stop="ask"
  >
    <TextInput
      v-model="reason"
      class="grow"
      aria-label="Why, for whoever decides"
      placeholder="why, for whoever decides"
    />
    <ActButton
      :disabled="busy || !reason.trim()"
      @click="ask"
      >Ask for a yes</ActButton
    >
  </div>
  <p
    v-if="problem"
    class="wrong"
    role="alert"
  >
    {{ problem.message }}
  </p>
</template>
