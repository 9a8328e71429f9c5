<script setup lang="ts">
// What speaks against billing some work as it stands, and is mended where it is said.
import ActButton from '~/base/ActButton.vue'
import Notice from '~/base/Notice.vue'
import OneField from '~/base/OneField.vue'
import type { Answer, Given } from '~~/shared/api'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'

type Work = Answer<'workOrder'>
type Missing = Work['bill']['missing'][number]
defineProps<{ missing: readonly Missing[]; may: boolean }>()
const emit = defineEmits<{ changed: [work: Work] }>()
const { busy, problem, act } = useAct()
async function change({ lineId, version }: Missing, values: Omit<Given<'changeLine'>, 'version'>) {
  const body = { version: version!, ...values }
  emit('changed', await call('changeLine', { params: { id: lineId! }, body }))
}
const done = (of: Missing) => act(() => change(of, { done: true }))
</script>

<template>
  <div class="note warn">
    <ul class="missing">
      <li
        v-for="of in missing"
        :key="of.lineId ?? of.why"
      >
        <div class="row">
          <span class="grow">{{ of.text }}</span>
          <ActButton
            v-if="may && of.why === 'undone'"
            class="small"
            :disabled="busy"
            :aria-label="`Mark it done: ${of.text}`"
            @click="done(of)"
            >Mark it done</ActButton
          >
        </div>
        <OneField
          v-if="may && of.why === 'no_price'"
          :label="`Price of one: ${of.text}`"
          placeholder="what one of it costs"
          act="Price it"
          :send="(unitPrice) => change(of, { unitPrice })"
        />
      </li>
    </ul>
    <Notice :of="problem" />
  </div>
</template>

<style scoped>
.note {
  margin-bottom: 10px;
}
.missing {
  margin: 0;
  padding-left: 18px;
}
li + li {
  margin-top: 8px;
}
</style>
