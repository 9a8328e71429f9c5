<script setup lang="ts">
// The people of the firm: added and invited, changed, leaving, coming back.
import { computed, ref } from 'vue'
import AccessTrail from '~/access/AccessTrail.vue'
import PersonForm from '~/access/PersonForm.vue'
import SecondStepRoles from '~/access/SecondStepRoles.vue'
import ActButton from '~/base/ActButton.vue'
import DataTable from '~/base/DataTable.vue'
import { ask } from '~/base/leaving'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useAnswer } from '~/lib/useAnswer'
import { useHashPlace } from '~/lib/useHashPlace'
import { useSession } from '~/stores/session'
import type { Answer } from '~~/shared/api'

definePageMeta({ layout: 'office' })
type Person = Answer<'staff'>['items'][number]
const session = useSession()
useHashPlace()
const { data, problem, refresh } = useAnswer('staff')
const { busy, problem: failed, act } = useAct()
const may = computed(() => session.may('access.change'))
const editing = ref<Person | 'new' | null>(null)
const keep = (asked: Promise<Answer<'staff'>>) =>
  act(async () => {
    data.value = await asked
  })
const invite = ({ id }: Person) => keep(call('invitePerson', { params: { id } }))
const comeBack = ({ id }: Person) => keep(call('comeBack', { params: { id } }))
const letGo = ({ id, name }: Person) =>
  act(async () => {
    const sure = await ask({
      title: `${name} leaves`,
      text: `${name} is signed out everywhere and is not offered any more. What they did stays theirs, and they can come back.`,
      yes: 'They leave',
      no: 'They stay',
    })
    if (sure) data.value = await call('leave', { params: { id } })
  })
const endStep = ({ id, name }: Person) =>
  act(async () => {
    const sure = await ask({
      title: `${name} lost phone and codes`,
      text: `${name} is signed out everywhere and signs in with the password alone, until another second step is set up.`,
      yes: 'End the second step',
      no: 'Let it be',
    })
    if (sure) data.value = await call('endSecondStepOf', { params: { id } })
  })
/** How somebody comes in, or why not. */
function comes(p: Person): string {
  if (!p.active) return p.leftOn ? `left ${session.day(p.leftOn, 'withYear')}` : 'left'
  if (!p.email) return 'does not sign in'
  if (p.comesIn) return p.secondStep ? 'signs in, with a second step' : 'signs in'
  return p.invitedUntil
    ? `invited, until ${session.dayOf(p.invitedUntil)}`
    : 'the invitation has ended'
}
</script>

<template>
  <section
    v-if="data"
    class="page"
  >
    <div class="row">
      <h1 class="grow">People</h1>
      <ActButton
        v-if="may"
        primary
        @click="editing = 'new'"
        >Add somebody</ActButton
      >
    </div>
    <p class="quiet">
      Who is added is invited by mail, and chooses a password; a crew or a subcontractor without a
      mail address is booked, and does not sign in. What each role may do is in
      <NuxtLink to="/set-up">Set-up</NuxtLink>; when technicians work and where, in
      <NuxtLink to="/schedule/set-up">Hours and areas</NuxtLink>.
    </p>
    <Notice :of="failed ?? problem" />
    <DataTable
      :rows="data.items"
      :row-key="(p) => p.id"
      label="People of the firm"
      :columns="[
        { key: 'name', label: 'Name', tone: (p) => ({ quiet: !p.active }) },
        { key: 'role', label: 'Role' },
        { key: 'reach', label: 'Mail and telephone', look: 'small' },
        { key: 'comes', label: 'Comes in', look: 'small', text: comes },
        { key: 'act', right: true, look: 'nowrap' },
      ]"
    >
      <template #name="{ row: p }">
        <b>{{ p.name }}</b>
      </template>
      <template #role="{ row: p }"
        >{{ p.roleName
        }}<span v-if="p.bookable && p.role !== 'technician'">, goes to customers</span
        ><span v-if="!p.bookable && p.role === 'technician'">, is not booked</span></template
      >
      <template #reach="{ row: p }"
        >{{ p.email }}<br /><span class="num">{{ p.phone }}</span></template
      >
      <template #act="{ row: p }">
        <template v-if="may">
          <ActButton
            v-if="p.active && p.email && !p.comesIn"
            :disabled="busy"
            :aria-label="`Invite ${p.name} again`"
            @click="invite(p)"
            >Invite again</ActButton
          >{{ ' ' }}
          <ActButton
            v-if="p.active"
            :aria-label="`Change ${p.name}`"
            @click="editing = p"
            >Change</ActButton
          >{{ ' ' }}
          <ActButton
            v-if="p.active && p.secondStep && p.id !== session.me?.person.id"
            quiet
            :disabled="busy"
            :aria-label="`End the second step of ${p.name}`"
            @click="endStep(p)"
            >End the second step</ActButton
          >
          <ActButton
            v-if="p.active && p.id !== session.me?.person.id"
            quiet
            :disabled="busy"
            :aria-label="`${p.name} leaves`"
            @click="letGo(p)"
            >Leaves</ActButton
          >
          <ActButton
            v-if="!p.active"
            :disabled="busy"
            :aria-label="`${p.name} comes back`"
            @click="comeBack(p)"
            >Comes back</ActButton
          >
        </template>
      </template>
    </DataTable>
    <SecondStepRoles />
    <AccessTrail v-if="may" />
    <PersonForm
      v-if="editing"
      :person="editing === 'new' ? null : editing"
      :people="data.items"
      :refresh="refresh"
      @kept="data = $event"
      @close="editing = null"
    />
  </section>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
  />
</template>
