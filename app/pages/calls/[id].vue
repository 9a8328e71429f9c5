<script setup lang="ts">
// A call on one screen, by keyboard: who, what, when; and one key books it.
import { computed, nextTick, onMounted, reactive, ref, watch } from 'vue'
import { ElMessage } from 'element-plus'
import type { Answer } from '~~/shared/api'
import CallWhat, { type ReadLine } from '~/components/calls/CallWhat.vue'
import CallWhen from '~/components/calls/CallWhen.vue'
import CallWho from '~/components/calls/CallWho.vue'
import { call, newId, type Problem } from '~/lib/api'
import { useShortcuts } from '~/lib/shortcuts'
import { useAct } from '~/lib/useAct'
import { useCall } from '~/stores/call'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import Choice from '~/base/Choice.vue'
import DateInput from '~/base/DateInput.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'
import { given } from '~/lib/given'

definePageMeta({ layout: 'office', key: (route) => route.fullPath })
const session = useSession()
const store = useCall()
const route = useRoute()
const draft = computed({
  get: () => store.draft,
  set: (d) => {
    store.draft = d
  },
})
const chosen = ref<Answer<'caller'> | null>(null)
const setUp = ref<Answer<'setUp'> | null>(null)
const lines = ref<ReadLine[]>([])
const files = ref<Answer<'call'>['files']>([])
const warnings = ref<{ code: string; text: string }[]>([])
const ready = ref(false)
const inSpite = ref('')
const ending = reactive({
  open: '' as '' | 'put_off' | 'declined',
  reason: '',
  on: '',
  who: null as string | null,
})
const { busy, problem, act } = useAct()
const who = ref<InstanceType<typeof CallWho>>()
const what = ref<InstanceType<typeof CallWhat>>()
const when = ref<InstanceType<typeof CallWhen>>()
const skills = computed(() => [...new Set(lines.value.flatMap((l) => l.skills))])

onMounted(async () => {
  const asked = route.query
  if (route.params.id === 'new')
    return void navigateTo(
      { path: `/calls/${newId()}`, query: { ...asked, fresh: 1 } },
      { replace: true },
    )
  const [known, set] = await Promise.all([
    store.open(String(route.params.id), Boolean(asked.fresh), session.today),
    call('setUp').catch(() => null),
  ])
  setUp.value = set
  files.value = known?.files ?? []
  if (asked.hand) store.origin = 'hand'
  // Begun from an empty time of the schedule, or from a customer's page.
  if (asked.fresh) {
    for (const [from, to] of [
      ['date', 'date'],
      ['start', 'start'],
      ['technician', 'technicianId'],
    ] as const)
      if (typeof asked[from] === 'string') Object.assign(store.draft, { [to]: asked[from] })
    if (typeof asked.customer === 'string')
      await choose(asked.customer, typeof asked.site === 'string' ? asked.site : null)
  }
  if (!chosen.value && store.draft.customerId)
    chosen.value = await call('caller', { params: { id: store.draft.customerId } }).catch(
      () => null,
    )
  if (store.draft.entries.length) {
    const names = await Promise.all(
      store.draft.entries.map((e) =>
        call('searchPriceBook', { query: { q: (e as { code?: string }).code ?? '' } })
          .then((r) => r.items.find((i) => i.id === e.entryId))
          .catch(() => undefined),
      ),
    )
    lines.value = store.draft.entries.flatMap((e, i) =>
      names[i] ? [{ ...names[i]!, quantity: e.quantity }] : [],
    )
  }
  ready.value = true
  await nextTick()
  if (chosen.value) what.value?.focus()
  else who.value?.focus()
  if (store.draft.start && asked.fresh) store.changed(summary.value)
})
watch(
  () => store.draft,
  () => ready.value && store.changed(summary.value),
  { deep: true },
)
watch(lines, () => {
  store.draft.entries = lines.value.map((l) => ({
    entryId: l.id,
    quantity: l.quantity,
    code: l.code,
  })) as never
})
const summary = computed(() =>
  [
    chosen.value?.name ?? (store.draft.name || store.draft.query),
    store.draft.problem.split(/[.\n]/)[0],
  ]
    .filter(Boolean)
    .join(', ')
    .slice(0, 190),
)

async function choose(customerId: string, siteId: string | null) {
  // At once, not when the answer is there: hands that are faster must not be interrupted.
  what.value?.focus()
  const found = await call('caller', { params: { id: customerId } }).catch(() => null)
  if (!found) return
  chosen.value = found
  const only = found.sites.length === 1 ? found.sites[0]!.id : null
  Object.assign(store.draft, {
    customerId: found.customerId,
    siteId: siteId ?? only,
    query: found.name,
    phone: store.draft.phone || found.phone,
    isNew: false,
  })
}
function clear() {
  chosen.value = null
  Object.assign(store.draft, {
    customerId: null,
    siteId: null,
    contactId: null,
    equipmentId: null,
    query: '',
    phone: '',
    speaking: '',
  })
  who.value?.focus()
}
watch(
  () => store.draft.siteId,
  (_, old) => {
    if (old && ready.value) Object.assign(store.draft, { equipmentId: null, contactId: null })
  },
)

const stopped = computed(() => Boolean(chosen.value?.stopWork || chosen.value?.overLimit))
const bookLabel = computed(() => {
  const at = when.value
  const quote = store.draft.kind === 'quote_visit' ? ' to quote' : ''
  return at?.startMs && at.technician
    ? `Book ${session.day(store.draft.date!)} ${store.draft.start}${quote}, ${at.technician.name.split(' ')[0]}`
    : `Book without a time${quote}`
})
const book = () =>
  act(async () => {
    const d = store.draft
    const done = await call('bookCall', {
      params: { id: store.id },
      key: `${store.book.key}`,
      body: {
        workOrderId: store.book.workOrderId,
        visitId: store.book.visitId,
        customerId: given(d.customerId),
        siteId: given(d.siteId),
        contactId: d.contactId,
        equipmentId: d.equipmentId,
        speaking: d.speaking,
        phone: d.phone,
        problem: d.problem,
        kind: d.kind as 'repair',
        source: d.source,
        orderNumber: d.orderNumber,
        answers: d.answers,
        entries: lines.value.map((l) => ({ entryId: l.id, quantity: l.quantity })),
        technicianId: d.technicianId,
        date: d.date,
        start: d.start || null,
        durationSeconds: d.durationSeconds,
        promiseFrom: d.promiseFrom || null,
        promiseTo: d.promiseTo || null,
        moves: d.moves.map((m) => ({ visitId: m.visitId, startAt: m.startAt })),
        override: warnings.value.length > 0 || d.moves.length > 0,
        reason: inSpite.value,
      },
    }).catch((error: Problem) => {
      // Another try is another request: what was typed may have changed.
      store.book.key = newId()
      throw error
    })
    const timed = Boolean(when.value?.startMs)
    store.end()
    ElMessage({ type: 'success', message: `Booked as ${done.number}`, duration: 6000 })
    await navigateTo(
      timed
        ? { path: '/schedule', query: { date: d.date!, visit: done.visitId } }
        : `/work/${done.workOrderId}`,
    )
  })
// The wish is priced instead of booked: customer, site, words and the lines that were read out go along.
const quote = () =>
  act(async () => {
    const d = store.draft
    const made = await call('beginQuote', {
      body: {
        id: store.book.workOrderId,
        callId: store.id,
        customerId: d.customerId,
        siteId: d.siteId,
        speaking: d.speaking,
        phone: d.phone,
        scope: d.problem,
        orderNumber: d.orderNumber,
        source: d.source,
        lines: lines.value.map((l) => ({
          id: newId(),
          entryId: l.id,
          quantity: l.quantity,
          kind: 'other' as const,
          name: undefined,
          unitPrice: undefined,
        })),
      },
    })
    store.end()
    await navigateTo(`/quotes/${made.id}`)
  })
const finish = () =>
  act(async () => {
    await store.save(summary.value)
    await call('endCall', {
      params: { id: store.id },
      body: {
        state: ending.open as 'declined',
        reason: ending.reason,
        callBackOn: ending.on || null,
        assignedTo: ending.who,
      },
    })
    store.end()
    await navigateTo('/calls')
  })
const nothingOver = () => !ending.open && !document.querySelector('.veil')
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
    run: () => void when.value?.begin(),
  },
  {
    keys: 'Esc',
    press: 'Escape',
    typing: true,
    does: 'back to the calls',
    when: nothingOver,
    run: () => void navigateTo('/calls'),
  },
])
const wrong = (path: string) => problem.value?.at(path) ?? ''
</script>

<template>
  <form
    v-if="ready"
    class="call"
    @submit.prevent
  >
    <header>
      <h1>{{ store.origin !== 'telephone' ? 'Request' : 'Call' }}</h1>
      <span
        class="quiet grow"
        role="status"
        >{{
          store.saving
            ? 'keeping…'
            : store.alone
              ? 'kept on this device; the server did not answer'
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
      <ActButton @click="ending.open = 'put_off'"> Call back… </ActButton>
      <ActButton @click="ending.open = 'declined'"> No, because… </ActButton>
      <ActButton
        primary
        :disabled="busy"
        @click="book"
      >
        {{ bookLabel }} <kbd>Ctrl ⏎</kbd>
      </ActButton>
    </header>
    <p
      v-if="problem && !ending.open"
      class="note bad"
      role="alert"
    >
      {{ problem.message }}
    </p>
    <div class="columns">
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
    <Dialog
      :model-value="ending.open !== ''"
      :title="ending.open === 'put_off' ? 'Call back' : 'No, because'"
      width="420"
      @close="ending.open = ''"
    >
      <div class="stack">
        <template v-if="ending.open === 'put_off'">
          <Field
            label="On which day"
            :error="wrong('callBackOn')"
            ><DateInput v-model="ending.on"
          /></Field>
          <Field label="Who rings"
            ><Choice
              v-model="ending.who"
              :options="[
                { value: null, label: 'whoever is in the office' },
                ...(setUp?.people.filter((x) => x.role !== 'technician') ?? []).map((p) => ({
                  value: p.id,
                  label: p.name,
                })),
              ]"
          /></Field>
        </template>
        <Field
          label="Why"
          :error="wrong('reason')"
          ><TextInput
            v-model="ending.reason"
            @keydown.enter="finish"
        /></Field>
        <ActButton
          primary
          :disabled="busy"
          @click="finish"
        >
          {{ ending.open === 'put_off' ? 'Put it on the list' : 'End the call' }}
        </ActButton>
      </div>
    </Dialog>
  </form>
  <p
    v-else
    class="empty"
  >
    Opening the call…
  </p>
</template>

<style scoped>
.call {
  display: flex;
  flex-direction: column;
  height: 100%;
}
header {
  display: flex;
  gap: 8px;
  align-items: center;
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
</style>
