<script setup lang="ts">
// How callers hear of the firm: what a call may choose from.
import ActButton from '~/base/ActButton.vue'
import Notice from '~/base/Notice.vue'
import OneField from '~/base/OneField.vue'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'

defineProps<{ sources: string[]; may: boolean }>()
const emit = defineEmits<{ kept: [] }>()
const { busy, problem, act } = useAct()
async function keep(change: { add: string } | { takeOut: string }) {
  await call('keepSources', { body: change })
  emit('kept')
}
const takeOut = (source: string) => act(() => keep({ takeOut: source }))
</script>

<template>
  <h2 id="sources">How callers hear of us</h2>
  <div class="row wrapped">
    <span
      v-for="s in sources"
      :key="s"
      class="chip"
      >{{ s }}
      <ActButton
        v-if="may"
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
    v-if="may"
    label="A further source"
    act="Add"
    :send="(add) => keep({ add })"
  />
</template>

<style scoped>
.x {
  min-height: 20px;
  padding: 0 2px;
}
</style>
