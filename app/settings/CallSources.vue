<script setup lang="ts">
// How callers hear of the firm: what a call may choose from.
import ActButton from '~/base/ActButton.vue'
import Notice from '~/base/Notice.vue'
import OneField from '~/base/OneField.vue'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'

const props = defineProps<{ sources: string[] }>()
const emit = defineEmits<{ kept: [] }>()
const { busy, problem, act } = useAct()
async function keep(sources: string[]) {
  await call('keepSources', { body: { sources } })
  emit('kept')
}
const takeOut = (source: string) =>
  act(() => keep(props.sources.filter((other) => other !== source)))
</script>

<template>
  <h2>How callers hear of us</h2>
  <div class="row wrapped">
    <span
      v-for="s in sources"
      :key="s"
      class="chip"
      >{{ s }}
      <ActButton
        quiet
        class="x"
        :disabled="busy"
        :aria-label="`Take out ${s}`"
        @click="takeOut(s)"
      >
        ×
      </ActButton></span
    >
  </div>
  <Notice :of="problem" />
  <OneField
    label="A further source"
    act="Add"
    :send="(source) => keep([...sources, source])"
  />
</template>

<style scoped>
.x {
  min-height: 20px;
  padding: 0 2px;
}
</style>
