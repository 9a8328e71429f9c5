<script setup lang="ts">
// What somebody must know of this call besides what stands in it: it was booked elsewhere, somebody else writes in it, something could not be looked up.
import ActButton from '~/base/ActButton.vue'
import Notice from '~/base/Notice.vue'
import { call as send } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useCall, type Draft } from '~/stores/call'
import { callWaits } from '~~/core/calls/callWaits'

const unread = defineModel<Draft['entries']>('unread', { required: true })
const call = useCall()
const { busy, problem, act } = useAct()
/** It waits again, with what was typed into it here since. */
const takeUp = () =>
  act(async () => {
    await send('reopenCall', { params: { id: call.id } })
    await call.refresh()
    await call.save(call.summary)
  })
</script>

<template>
  <p
    v-if="call.booked"
    class="note warn"
    role="status"
  >
    This call was booked already.
    <NuxtLink :to="`/work/${call.booked}`">Go to its work order</NuxtLink>
  </p>
  <p
    v-else-if="call.state === 'quoted'"
    class="note warn"
    role="status"
  >
    A quote was made of this call already: it stands under
    <NuxtLink to="/quotes">Quotes</NuxtLink>.
  </p>
  <p
    v-else-if="!callWaits(call.state)"
    class="note warn"
    role="status"
  >
    This call was ended: {{ call.state }}.
    <ActButton
      :disabled="busy"
      @click="takeUp"
    >
      Take it up again
    </ActButton>
  </p>
  <Notice :of="problem" />
  <p
    v-if="call.theirs.length"
    class="note warn"
    role="status"
  >
    Somebody else wrote in this call meanwhile:
    <b>{{ call.theirs.map(({ value }) => String(value ?? '') || 'nothing').join('; ') }}</b>
    <ActButton @click="call.decide(true)"> Take theirs </ActButton>
    <ActButton @click="call.decide(false)"> Keep mine </ActButton>
  </p>
  <p
    v-if="unread.length"
    class="note warn"
    role="status"
  >
    {{ unread.length === 1 ? 'One thing' : `${unread.length} things` }} that you read out could not
    be looked up; it stays with the call, and is booked with it.
    <ActButton @click="unread = []"> Leave it out </ActButton>
  </p>
</template>

<style scoped>
.note {
  margin: 8px 16px 0;
}
</style>
