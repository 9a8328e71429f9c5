<script setup lang="ts">
// Of a work order, what decides before anything is done: where, for whom, on which terms, and what to mind.
import { computed } from 'vue'
import { saySite } from '~~/core/customers/saySite'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import { sayContact } from '~~/core/visits/workContacts'
import { useSession } from '~/stores/session'
import type { Work } from './useWorkOrder'

const props = defineProps<{ work: Work }>()
const session = useSession()
const place = computed(() => saySite(props.work.site))
/** What else is known of it, in the order in which it is asked for. */
const more = computed(() => {
  const { customer, orderNumber, source } = props.work
  return [
    `terms ${customer.terms}`,
    orderNumber && `their order ${orderNumber}`,
    source && `heard of us by ${source}`,
    customer.level,
    customer.exempt && 'tax exempt',
  ].filter(Boolean)
})
function saidOf(back: Work['callBacks'][number]): string {
  const cost = back.cost && `cost ${session.money(back.cost)}, counted in the margin here`
  const time = back.siteSeconds && `${hoursMinutes(back.siteSeconds)} h`
  return [session.workKind(back.kind), session.state(back.state), time, cost]
    .filter(Boolean)
    .join(', ')
}
</script>

<template>
  <p class="quiet">
    {{ place }} · bill to
    <NuxtLink :to="`/customers/${work.customer.id}`">{{ work.customer.name }}</NuxtLink>
    <template v-for="fact in more"> · {{ fact }}</template>
    <template v-if="work.contact.name">
      · speak to <b>{{ sayContact(work.contact) }}</b>
    </template>
    <template v-if="work.otherContacts.length">
      · also {{ work.otherContacts.map(sayContact).join('; ') }}
    </template>
    <span
      v-for="tag in work.customer.tags"
      :key="tag"
      class="chip"
      >{{ tag }}</span
    >
  </p>
  <p
    v-if="work.customer.officeNote"
    class="note"
  >
    {{ work.customer.officeNote }}
  </p>
  <p
    v-if="work.customer.stopWork"
    class="note bad"
  >
    <b>Stop work.</b> {{ work.customer.stopWork }}
  </p>
  <p
    v-if="work.callbackOf"
    class="note"
  >
    Without charge: comes back to
    <NuxtLink
      :to="`/work/${work.callbackOf.id}`"
      class="num"
      >{{ work.callbackOf.number }}</NuxtLink>. What it costs counts there.
  </p>
  <div
    v-if="work.callBacks.length"
    class="note warn"
  >
    Had to be looked at again:
    <p
      v-for="back in work.callBacks"
      :key="back.id"
    >
      <NuxtLink
        :to="`/work/${back.id}`"
        class="num"
        >{{ back.number }}</NuxtLink
      >
      ({{ saidOf(back) }})
    </p>
  </div>
</template>
