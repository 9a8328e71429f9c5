<script setup lang="ts">
// A work order that will not be, or goes on after all, with the reason.
import { ref } from 'vue'
import Check from '~/base/Check.vue'
import ReasonDialog from '~/base/ReasonDialog.vue'
import { call } from '~/lib/api'
import type { Work } from './useWorkOrder'

const props = defineProps<{ work: Work; as: 'cancel' | 'reopen' }>()
const emit = defineEmits<{ changed: [work: Work]; close: [] }>()
const ENDS = {
  cancel: {
    route: 'cancelWorkOrder',
    title: 'Cancel',
    label: 'Why it will not be',
    act: 'Cancel it, and its visits',
  },
  reopen: {
    route: 'reopenWorkOrder',
    title: 'Go on with',
    label: 'Why it goes on',
    act: 'Go on with it',
  },
} as const
const end = ENDS[props.as]
const known = ref(false)
const send = async (reason: string) =>
  emit(
    'changed',
    await call(end.route, {
      params: { id: props.work.id },
      body: { reason, ...(props.as === 'cancel' ? { known: known.value } : {}) },
    }),
  )
</script>

<template>
  <ReasonDialog
    :title="`${end.title} ${work.number}, ${work.customer.name}`"
    :label="end.label"
    name="reason"
    :phrases="as === 'cancel' ? 'cancelled' : undefined"
    :act="end.act"
    :send="send"
    @close="emit('close')"
  >
    <p v-if="as === 'cancel'">
      Its visits that are still to come are cancelled with it, and whoever was invited hears of it.
      It can go on again later.
    </p>
    <Check
      v-if="as === 'cancel'"
      v-model="known"
      class="left"
      >The customer knows that nobody comes</Check
    >
    <p v-else>
      Its visits come back where their time is still free; the others wait for another time.
    </p>
  </ReasonDialog>
</template>
