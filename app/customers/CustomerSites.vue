<script setup lang="ts">
// A customer's sites, each with its equipment and what was supplied there before.
import { sayWarranty } from '~/visits/saySupplied'
import ActButton from '~/base/ActButton.vue'
import { saySite } from '~~/core/customers/saySite'
import { useSession } from '~/stores/session'
import type { Customer } from './rowForms'

type Site = Customer['sites'][number]
type Equipment = Customer['equipment'][number]
const props = defineProps<{
  customer: Customer
  desk: boolean
  /** the firm's own fields of a site, as they are filled */
  ownFields: (site: Site) => string[]
}>()
const emit = defineEmits<{ site: [site?: Site]; equipment: [siteId: string, thing?: Equipment] }>()
const session = useSession()
const MOST_SUPPLIED = 5
const equipmentAt = (s: Site) => props.customer.equipment.filter((e) => e.siteId === s.id)
const suppliedAt = (s: Site) =>
  props.customer.supplied.filter((x) => x.siteId === s.id).slice(0, MOST_SUPPLIED)
const beside = (e: Equipment) =>
  [e.serial, e.installedOn && `installed ${e.installedOn.slice(0, 4)}`, e.state, e.note]
    .filter(Boolean)
    .join(' · ')
</script>

<template>
  <div class="row">
    <h2 class="grow">Sites</h2>
    <ActButton
      v-if="desk"
      @click="emit('site')"
    >
      Add a site
    </ActButton>
  </div>
  <div class="places">
    <div
      v-for="s in customer.sites"
      :key="s.id"
      class="sheet place"
    >
      <div class="row">
        <b class="grow">{{ s.name || s.line1 || saySite(s) }}</b>
        <ActButton
          v-if="desk"
          quiet
          :aria-label="`Change ${s.name || s.line1 || saySite(s)}`"
          @click="emit('site', s)"
        >
          Change
        </ActButton>
      </div>
      <span class="quiet">
        {{ [s.line1, s.town, s.postcode].filter(Boolean).join(', ') }} ·
        <span :class="{ soon: !s.territory }">{{ s.territory || 'in no territory' }}</span>
      </span>
      <span v-if="s.accessNote">{{ s.accessNote }}</span>
      <span
        v-for="text in ownFields(s)"
        :key="text"
        class="small"
        >{{ text }}</span
      >
      <ul class="things">
        <li
          v-for="e in equipmentAt(s)"
          :key="e.id"
        >
          <ActButton
            quiet
            :disabled="!desk"
            @click="emit('equipment', s.id, e)"
          >
            {{ [e.make, e.category].filter(Boolean).join(' ') }}
          </ActButton>
          {{ ' ' }}
          <span class="quiet small">{{ beside(e) }}</span>
        </li>
      </ul>
      <ActButton
        v-if="desk"
        quiet
        class="add"
        @click="emit('equipment', s.id)"
      >
        + equipment
      </ActButton>
      <details v-if="suppliedAt(s).length">
        <summary class="small quiet">Supplied here before</summary>
        <div
          v-for="(x, i) in suppliedAt(s)"
          :key="i"
          class="small"
        >
          {{ session.day(x.on, 'withYear') }} · {{ x.name }} ·
          <template v-if="x.warrantyUntil">{{ sayWarranty(x) }} · </template>
          <NuxtLink :to="`/work/${x.workOrderId}`">{{ x.number }}</NuxtLink>
        </div>
      </details>
    </div>
  </div>
</template>

<style scoped>
.places {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(270px, 1fr));
  gap: 10px;
}
.place {
  padding: 10px 12px;
  border-radius: 4px;
  display: flex;
  flex-direction: column;
  gap: 3px;
}
.place .btn {
  min-height: 26px;
  padding: 0 6px;
}
.things {
  list-style: none;
  margin: 2px 0 0;
  padding: 0;
}
.things .btn {
  padding: 0;
  font-weight: 600;
  text-decoration: underline;
}
.add {
  align-self: flex-start;
  color: var(--green);
}
</style>
