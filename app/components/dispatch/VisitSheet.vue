<script setup lang="ts">
// One visit beside the schedule: what decides without opening anything, and every act that the mouse can do, by keyboard too.
import { computed, reactive, ref, watch } from 'vue'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import { localDate, localTime, localToInstant } from '~~/core/time/zone'
import type { Answer } from '~~/shared/api'
import TellSheet from '~/components/dispatch/TellSheet.vue'
import type { Problem } from '~/lib/api'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useBoard } from '~/stores/board'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Choice from '~/base/Choice.vue'
import DateInput from '~/base/DateInput.vue'
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'
import TimeInput from '~/base/TimeInput.vue'
import SidePanel from '~/base/SidePanel.vue'
import Notice from '~/base/Notice.vue'

type Visit = Answer<'placeVisit'>
const props = defineProps<{
  visit: Visit | null
  may: boolean
  technicians: { id: string; name: string; kind: string; goesWith?: string | null }[]
  visits: Visit[]
}>()
const emit = defineEmits<{ close: []; changed: [] }>()
const session = useSession()
const board = useBoard()
const { busy, problem, act } = useAct()
const form = reactive({
  technicianId: null as string | null,
  date: '',
  time: '',
  durationSeconds: 3600,
  crewIds: [] as string[],
})
const part = ref(3600)
const reason = ref('')
const to = ref('')
const invited = ref('')
const telling = ref<string | null>(null)
const warned = ref('')
const asIs = (v: Visit): typeof form => ({
  technicianId: v.technicianId,
  date: v.startAt
    ? localDate(Date.parse(v.startAt), session.zone)
    : (v.promiseDate ?? session.today),
  time: v.startAt ? localTime(Date.parse(v.startAt), session.zone) : '',
  durationSeconds: v.durationSeconds,
  crewIds: [...v.crewIds],
})
let last: { id: string; form: typeof form } | null = null
// When the visit changes meanwhile, what was typed and not saved yet stays; everything else follows.
watch(
  () => props.visit && `${props.visit.id} ${props.visit.version}`,
  () => {
    const v = props.visit
    warned.value = ''
    if (v?.id !== last?.id) invited.value = ''
    if (!v) return void (last = null)
    const now = asIs(v)
    const same = (key: keyof typeof form) =>
      last?.id !== v.id || JSON.stringify(form[key]) === JSON.stringify(last.form[key])
    Object.assign(
      form,
      Object.fromEntries(
        (Object.keys(now) as (keyof typeof form)[]).filter(same).map((key) => [key, now[key]]),
      ),
    )
    last = { id: v.id, form: now }
    part.value = Math.max(900, Math.round(v.durationSeconds / 2 / 900) * 900)
  },
  { immediate: true },
)
const open = computed(() => props.visit?.state === 'planned')
/** What somebody has on the day that is chosen; nothing is said of a day that is not loaded. */
const load = (id: string) => {
  const day = props.visits.filter(
    (v) => v.startAt && localDate(Date.parse(v.startAt), session.zone) === form.date,
  )
  return day.length
    ? `${day.filter((v) => v.technicianId === id || v.crewIds.includes(id)).length} that day`
    : ''
}
const go = (work: () => Promise<unknown>) =>
  act(async () => {
    await work()
    emit('changed')
  })
async function save(override: boolean) {
  await go(async () => {
    const placed = form.technicianId !== null && form.time !== ''
    try {
      await board.place(
        props.visit!,
        {
          technicianId: form.technicianId,
          startAt: form.time
            ? new Date(localToInstant(form.date, form.time, session.zone)).toISOString()
            : null,
          durationSeconds: form.durationSeconds,
          crewIds: placed ? form.crewIds : [],
        },
        override,
      )
      warned.value = ''
    } catch (error) {
      if ((error as Problem).code !== 'placement_warning') throw error
      warned.value = (error as Problem).message
    }
  })
}
const lock = () =>
  go(() =>
    call('lockVisit', {
      params: { id: props.visit!.id },
      body: { version: props.visit!.version, locked: !props.visit!.locked },
    }),
  )
const copy = () =>
  go(() =>
    board.further(props.visit!, { split: false, durationSeconds: props.visit!.durationSeconds }),
  )
const split = () =>
  go(() =>
    board.further(props.visit!, {
      split: true,
      durationSeconds: props.visit!.durationSeconds - part.value,
    }),
  )
const cancel = () =>
  go(async () => {
    await board.cancel(props.visit!, reason.value)
    reason.value = ''
    emit('close')
  })
const invite = () =>
  go(async () => {
    await call('inviteToVisit', {
      params: { id: props.visit!.id },
      body: { to: [to.value.trim()] },
    })
    invited.value = to.value.trim()
    to.value = ''
  })
const lengths = computed(() =>
  [
    ...new Set([
      ...Array.from({ length: 40 }, (_, i) => (i + 1) * 900),
      ...(props.visit ? [props.visit.durationSeconds] : []),
    ]),
  ].sort((a, b) => a - b),
)
const SAID: Record<string, string> = { on_site: 'on site', no_access: 'no access' }
</script>

<template>
  <SidePanel
    :model-value="visit !== null"
    :title="visit ? `${visit.title}, ${visit.customer}` : ''"
    @close="emit('close')"
  >
    <div
      v-if="visit"
      class="stack"
    >
      <p class="row">
        <NuxtLink
          :to="`/work/${visit.workOrderId}`"
          class="num"
          >{{ visit.number }}</NuxtLink><span class="chip">{{
          SAID[visit.state] ?? visit.state
        }}</span
        ><span
          v-if="visit.locked"
          class="chip soon"
          >locked</span
        ><span
          v-if="visit.atRisk"
          class="chip late"
          >expected {{ session.time(visit.arriveAt) }}</span
        ><span class="grow" /><span
          v-if="visit.quote"
          class="num small"
          >{{ visit.quote }}</span
        >
      </p>
      <dl>
        <dt>Where</dt>
        <dd>
          {{ visit.place }}, {{ visit.town
          }}<span
            v-if="visit.territory"
            class="quiet"
          >
            · {{ visit.territory }}</span
          >
        </dd>
        <dt>Speak to</dt>
        <dd>{{ visit.contact || '–' }}</dd>
        <template v-if="visit.officeNote || visit.accessNote"
          ><dt>Mind</dt>
          <dd class="soon">
            {{ [visit.officeNote, visit.accessNote].filter(Boolean).join(' · ') }}
          </dd></template
        >
        <template v-if="visit.note"
          ><dt>Why again</dt>
          <dd>{{ visit.note }}</dd></template
        >
        <dt>Promised</dt>
        <dd>
          {{
            visit.promiseFrom
              ? `${session.day(visit.promiseDate!)}, ${visit.promiseFrom}–${visit.promiseTo}`
              : 'nothing yet'
          }}
        </dd>
        <dt>Worth</dt>
        <dd class="num">{{ visit.net || '–' }}</dd>
      </dl>
      <p
        v-if="visit.misfit"
        class="note warn"
      >
        {{ visit.misfit }}
      </p>
      <Notice :of="problem" />
      <template v-if="may && open">
        <form
          class="box"
          @submit.prevent="save(false)"
        >
          <div class="row">
            <Field
              class="grow"
              label="Technician"
              ><Choice
                v-model="form.technicianId"
                :disabled="visit.locked"
                class="wide"
                :options="[
                  { value: null, label: 'nobody yet' },
                  ...technicians.map((t) => ({ value: t.id, label: t.name })),
                ]" /></Field
            ><Field label="Length"
              ><Choice
                v-model="form.durationSeconds"
                :disabled="visit.locked"
                :options="lengths.map((n) => ({ value: n, label: hoursMinutes(n) }))"
            /></Field>
          </div>
          <div class="row">
            <Field
              class="grow"
              label="Day of the visit"
              ><DateInput
                v-model="form.date"
                :disabled="visit.locked" /></Field
            ><Field label="Begins"
              ><TimeInput
                v-model="form.time"
                :disabled="visit.locked"
            /></Field>
          </div>
          <fieldset>
            <legend class="quiet small">Who goes along</legend>
            <Check
              v-for="t in technicians.filter((x) => x.id !== form.technicianId)"
              :key="t.id"
              v-model="form.crewIds"
              class="small"
              :value="t.id"
              :disabled="visit.locked"
            >
              {{ t.name.split(' ')[0] }}
              <span class="quiet">{{
                [load(t.id), t.kind === 'employee' ? '' : t.kind].filter(Boolean).join(', ')
              }}</span></Check
            >
          </fieldset>
          <p
            v-if="warned"
            class="note warn"
            role="alertdialog"
            aria-label="Before it is saved"
          >
            <b>Not saved yet.</b> {{ warned }}
            <ActButton @click="save(true)"> Place it all the same </ActButton>
          </p>
          <div class="row">
            <ActButton
              primary
              submit
              :disabled="busy || visit.locked"
            >
              Save the visit</ActButton
            ><span class="grow" /><ActButton
              v-if="visit.startAt"
              :disabled="busy"
              @click="lock"
            >
              {{ visit.locked ? 'Unlock' : 'Lock it here' }} <kbd>L</kbd>
            </ActButton>
          </div>
        </form>
        <div class="box">
          <div class="row">
            <ActButton
              :disabled="busy"
              @click="copy"
            >
              A further visit <kbd>C</kbd></ActButton
            ><span class="grow" /><Field
              inline
              label="Split after"
              ><Choice
                v-model="part"
                aria-label="Split after"
                :options="
                  lengths
                    .filter((x) => x < visit!.durationSeconds)
                    .map((n) => ({ value: n, label: hoursMinutes(n) }))
                " /></Field
            ><ActButton
              :disabled="busy || visit.durationSeconds < 1800"
              @click="split"
            >
              Split <kbd>X</kbd>
            </ActButton>
          </div>
          <form
            class="row"
            @submit.prevent="cancel"
          >
            <TextInput
              v-model="reason"
              class="grow"
              placeholder="why it will not be"
              aria-label="Why it will not be"
            /><ActButton
              submit
              :disabled="busy || !reason.trim()"
            >
              Cancel the visit
            </ActButton>
          </form>
        </div>
      </template>
      <div
        v-if="visit.startAt"
        class="box"
      >
        <div class="row">
          <ActButton
            v-if="may"
            @click="telling = visit.id"
          >
            Tell the customer…</ActButton
          ><a
            class="btn"
            :href="`/api/v1/visits/${visit.id}/work-sheet.pdf`"
            target="_blank"
            >Work sheet</a
          >
        </div>
        <form
          v-if="may"
          class="row"
          @submit.prevent="invite"
        >
          <TextInput
            v-model="to"
            class="grow"
            type="email"
            placeholder="mail address"
            aria-label="Invite by mail"
          /><ActButton
            submit
            :disabled="busy || !to.trim()"
          >
            Send as invitation
          </ActButton>
        </form>
        <p
          v-if="invited"
          class="note"
          role="status"
        >
          The invitation is on its way to {{ invited }}. They hear by themselves when the visit is
          moved or cancelled.
        </p>
      </div>
      <NuxtLink
        class="btn"
        :to="`/work/${visit.workOrderId}`"
        >Open {{ visit.number }}</NuxtLink
      >
      <TellSheet
        :visit-id="telling"
        @close="telling = null"
      />
    </div>
  </SidePanel>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: 84px 1fr;
  gap: 3px 8px;
  margin: 0;
}
dt {
  color: var(--ink-2);
}
dd {
  margin: 0;
}
.box {
  border-top: 1px solid var(--rule-2);
  padding-top: 10px;
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.row {
  align-items: flex-end;
}
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0 8px;
}
fieldset .row {
  align-items: center;
  min-height: 25px;
}
p.row {
  align-items: center;
}
</style>
