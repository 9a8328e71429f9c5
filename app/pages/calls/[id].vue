<script setup lang="ts">
// A call on one screen, by keyboard: who, what, when; and one key books it.
import { computed, nextTick, onBeforeUnmount, ref, watch } from 'vue'
import { ElMessage } from 'element-plus'
import CallNotices from '~/calls/CallNotices.vue'
import CallWhat from '~/calls/CallWhat.vue'
import CallWhen from '~/calls/CallWhen.vue'
import CallWho from '~/calls/CallWho.vue'
import EndCall from '~/calls/EndCall.vue'
import { bookCall, quoteCall, sayBooking, skillsFor } from '~/calls/booking'
import { inOneLine, type CallEnd } from '~/calls/words'
import Pending from '~/base/Pending.vue'
import { useOpenCall } from '~/calls/useOpenCall'
import type { Warning } from '~/calls/when/usePlacementCheck'
import type { Problem } from '~/lib/api'
import { onLive } from '~/lib/live'
import { useShortcuts } from '~/lib/shortcuts'
import { useAct } from '~/lib/useAct'
import { useCall } from '~/stores/call'
import ActButton from '~/base/ActButton.vue'
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'

definePageMeta({ layout: 'office', may: 'calls.take', key: (route) => route.fullPath })
const store = useCall()
const route = useRoute()
const draft = computed({
  get: () => store.draft,
  set: (d) => {
    store.draft = d
  },
})
const warnings = ref<Warning[]>([])
const inSpite = ref('')
const ending = ref<CallEnd | null>(null)
const { busy, problem, act } = useAct()
const who = ref<InstanceType<typeof CallWho>>()
const what = ref<InstanceType<typeof CallWhat>>()
const when = ref<InstanceType<typeof CallWhen>>()
const {
  chosen,
  setUp,
  files,
  lines,
  unread,
  ready,
  caller,
  problem: closed,
} = useOpenCall(async (asked) => {
  const { fresh, customer, site } = asked
  if (fresh && typeof customer === 'string')
    await choose(customer, typeof site === 'string' ? site : null)
})
const skills = computed(() => skillsFor(store.draft.kind, lines.value))
const summary = computed(() => inOneLine(store.draft, chosen.value?.name))
watch(ready, async () => {
  await nextTick()
  ;(chosen.value ? what : who).value?.focus()
  // A time of the schedule that was chosen is held from this moment on.
  if (store.draft.start && route.query.fresh) store.changed(summary.value)
})
watch(
  () => store.draft,
  () => ready.value && store.changed(summary.value),
  { deep: true },
)
/** One's own keeping is heard of as well: asked for once while somebody types. */
const REFRESH_MS = 1500
onLive(() => void store.refresh(), REFRESH_MS, { subjects: ['call'], about: () => [store.id] })
onBeforeUnmount(() => ready.value && store.leave(summary.value))
watch([lines, unread], () => {
  const read = lines.value.map(({ id, quantity }) => ({ entryId: id, quantity }))
  store.draft.entries = [...unread.value, ...read]
})

/** who is being looked up */
let choosing = Promise.resolve()
/** At once, not when the answer is there; hands that went on to another field by then are not called back. */
function goOn() {
  if (!document.activeElement?.matches(':not(.who *):is(input, textarea)')) what.value?.focus()
}
function choose(customerId: string, siteId: string | null) {
  goOn()
  choosing = caller.choose(customerId, siteId)
  return choosing
}
function clear() {
  caller.clear()
  who.value?.focus()
}
watch(
  () => store.draft.siteId,
  (_, old) => {
    if (old && ready.value)
      Object.assign(store.draft, { equipmentId: null, suppliedLineId: null, contactId: null })
  },
)

const stopped = computed(() => Boolean(chosen.value?.stopWork || chosen.value?.overLimit))
const bookLabel = computed(() => {
  const { startAt, technician } = when.value ?? {}
  return sayBooking(store.draft, startAt ? technician : null)
})
/** The call is not kept while it is booked or quoted; where that is refused, it is again. */
async function uninterrupted<T>(work: () => Promise<T>): Promise<T> {
  await store.settle()
  try {
    return await work()
  } catch (error) {
    store.changed(summary.value)
    throw error
  }
}
/** Booked before the place was looked at: what speaks against it is said now, and the next press is somebody's word. */
function warnedOf(error: Problem): never {
  if (error.code === 'placement_warning') warnings.value = error.extra.warnings as Warning[]
  throw error
}
const book = () =>
  act(async () => {
    const override = warnings.value.length > 0
    const booking = () => bookCall({ override, inSpite: inSpite.value }).catch(warnedOf)
    const done = await uninterrupted(booking)
    const { date } = store.draft
    const timed = Boolean(when.value?.startAt)
    store.end()
    ElMessage({ type: 'success', message: `Booked as ${done.number}`, duration: 6000 })
    await navigateTo(
      timed
        ? { path: '/schedule', query: { date: date!, visit: done.visitId } }
        : `/work/${done.workOrderId}`,
    )
  })
const quote = () =>
  act(async () => {
    const { id } = await uninterrupted(quoteCall)
    store.end()
    await navigateTo(`/quotes/${id}`)
  })
function ended() {
  store.end()
  void navigateTo('/calls')
}
useShortcuts([
  {
    keys: 'Ctrl Enter',
    press: ['Control+Enter', 'Meta+Enter'],
    typing: true,
    does: 'book the call',
    run: () => void book(),
  },
  { keys: '↑ ↓ Enter', does: 'choose a match' },
  {
    keys: 'Alt W',
    press: 'Alt+KeyW',
    typing: true,
    does: 'go to the first free time; arrows move it',
    // An opening depends on where the work is: whoever is being looked up is waited for.
    run: () => void choosing.then(() => when.value?.begin()),
  },
  {
    keys: 'Esc',
    press: 'Escape',
    typing: true,
    does: 'back to the calls',
    run: () => void navigateTo('/calls'),
  },
])
</script>

<template>
  <form
    v-if="ready"
    class="call"
    @submit.prevent
  >
    <header class="row">
      <h1>{{ store.origin !== 'telephone' ? 'Request' : 'Call' }}</h1>
      <span
        class="quiet grow"
        role="status"
        >{{
          store.saving
            ? 'keeping…'
            : store.alone
              ? `kept on this device only: ${store.alone}`
              : 'kept as you type'
        }}</span
      >
      <Field
        v-if="stopped"
        inline
        class="spite"
        ><template #label><span class="late nowrap">Booked all the same, because</span></template
        ><TextInput v-model="inSpite"
      /></Field>
      <ActButton
        :disabled="busy || !chosen"
        @click="quote"
      >
        Quote it
      </ActButton>
      <ActButton @click="ending = 'put_off'"> Call back… </ActButton>
      <ActButton @click="ending = 'answered'"> Answered… </ActButton>
      <ActButton @click="ending = 'declined'"> No, because… </ActButton>
      <ActButton
        primary
        data-tour="call.book"
        :disabled="busy"
        @click="book"
      >
        {{ bookLabel }} <kbd>Ctrl ⏎</kbd>
      </ActButton>
    </header>
    <p
      v-if="problem && !ending"
      class="note bad"
      role="alert"
    >
      {{ problem.message }}
    </p>
    <CallNotices v-model:unread="unread" />
    <div class="columns stacks">
      <CallWho
        ref="who"
        v-model="draft"
        :chosen="chosen"
        :set-up="setUp"
        :problem="problem"
        @choose="choose"
        @clear="clear"
      />
      <CallWhat
        ref="what"
        v-model="draft"
        v-model:lines="lines"
        v-model:files="files"
        :call-id="store.id"
        :chosen="chosen"
        :set-up="setUp"
        :problem="problem"
      />
      <CallWhen
        ref="when"
        v-model="draft"
        v-model:warnings="warnings"
        :call-id="store.id"
        :chosen="chosen"
        :skills="skills"
        :problem="problem"
        :held-by="store.heldBy"
      />
    </div>
    <EndCall
      v-if="ending"
      :call-id="store.id"
      :state="ending"
      :people="setUp?.people ?? []"
      :save="() => store.save(summary)"
      @close="ending = null"
      @ended="ended"
    />
  </form>
  <Pending
    v-else
    :problem="closed"
    says="Opening the call…"
  />
</template>

<style scoped>
.call {
  display: flex;
  flex-direction: column;
  height: 100%;
}
header {
  padding: 10px 16px;
  background: var(--sheet);
  border-bottom: 1px solid var(--rule-2);
}
.call > .note {
  margin: 8px 16px 0;
}
.columns {
  display: grid;
  grid-template-columns: 276px 280px minmax(0, 1fr);
  flex: 1;
  min-height: 0;
}
.columns > section {
  padding: 14px 16px;
  overflow: auto;
  display: flex;
  flex-direction: column;
  gap: 10px;
}
.columns > section + section {
  border-left: 1px solid var(--rule-2);
}
.columns > .when {
  background: var(--sheet);
}
@media (max-width: 700px) {
  .call {
    height: auto;
  }
}
</style>
