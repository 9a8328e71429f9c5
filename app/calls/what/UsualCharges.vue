<script setup lang="ts">
// What this kind of work usually charges and is not read out: read out now, or left out for a reason that is kept.
import { computed, ref, watch } from 'vue'
import ActButton from '~/base/ActButton.vue'
import ReasonDialog from '~/base/ReasonDialog.vue'
import type { Draft } from '~/stores/call'
import { useSession } from '~/stores/session'
import { readEntries, useUsualCharges } from './useUsualCharges'
import type { ReadLine } from './useReadOut'

const draft = defineModel<Draft>({ required: true })
const lines = defineModel<ReadLine[]>('lines', { required: true })
/** what is to be left out */
const leaving = defineModel<ReadLine | null>('leaving', { required: true })
const session = useSession()
const { usual, missing, leaveOut, readOut } = useUsualCharges(draft, lines)
const known = ref<ReadLine[]>([])
/** Some of it cannot be looked up now: nobody knows what it is called, and the call goes on. */
const lost = ref(false)
async function look() {
  const asked = usual.value
  const { found, isSure } = await readEntries(asked)
  if (asked !== usual.value) return
  known.value = found
  lost.value = !isSure && found.length < asked.length
}
watch(usual, look, { immediate: true })
const entry = (id: string) => known.value.find((one) => one.id === id)
const rows = computed(() => [
  ...missing.value.map((id) => ({ id, reason: '' })),
  ...draft.value.leftOut.map(({ entryId: id, reason }) => ({ id, reason })),
])
/** Those that are in the book; what is gone from it is charged by nobody. */
const shown = computed(() => rows.value.filter(({ id }) => usual.value.includes(id) && entry(id)))
</script>

<template>
  <p
    v-if="lost"
    class="row small soon"
    role="status"
  >
    <span class="grow"
      >What is usual for {{ session.workKind(draft.kind) }} cannot be looked up now.</span
    >
    <ActButton @click="look">Look again</ActButton>
  </p>
  <p
    v-for="{ id, reason } in shown"
    :key="id"
    class="row small"
  >
    <span
      class="grow"
      :class="{ soon: !reason }"
      >{{
        reason
          ? `${entry(id)!.name} is not charged: ${reason}`
          : `${entry(id)!.name} is usual for ${session.workKind(draft.kind)}, and was not read out`
      }}</span
    >
    <ActButton
      quiet
      :aria-label="`Read out ${entry(id)!.name}`"
      @click="readOut(id)"
      >Read it out</ActButton
    >
    <ActButton
      v-if="!reason"
      quiet
      :aria-label="`Leave out ${entry(id)!.name}`"
      @click="leaving = entry(id)!"
      >Leave it out…</ActButton
    >
  </p>
  <ReasonDialog
    v-if="leaving"
    :title="`${leaving.name} is not charged`"
    label="Why"
    name="reason"
    act="Leave it out"
    phrases="usual_charge"
    :send="async (reason) => leaveOut(leaving!.id, reason)"
    @close="leaving = null"
  />
</template>
