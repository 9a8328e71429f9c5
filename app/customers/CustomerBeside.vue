<script setup lang="ts">
// Beside a customer: where they are, whom to speak to, agreements, own prices, files, what was merged.
import ActButton from '~/base/ActButton.vue'
import FileInput from '~/base/FileInput.vue'
import { useSession } from '~/stores/session'
import type { Customer } from './rowForms'
import SiteMap from './SiteMap.vue'

defineProps<{ customer: Customer; desk: boolean; busy: boolean; ownFields: string[] }>()
const emit = defineEmits<{
  contact: [contact?: Customer['contacts'][number]]
  agreement: []
  file: [files: File[]]
  undoMerge: [mergeId: string]
}>()
const session = useSession()
</script>

<template>
  <SiteMap :sites="customer.sites" />
  <div class="row">
    <h2 class="grow">Contacts</h2>
    <ActButton
      v-if="desk"
      @click="emit('contact')"
    >
      Add
    </ActButton>
  </div>
  <button
    v-for="k in customer.contacts"
    :key="k.id"
    class="contact"
    :disabled="!desk"
    @click="emit('contact', k)"
  >
    <b>{{ k.name }}</b>
    {{ ' ' }}
    <span class="quiet">{{ k.role }}</span>
    <br />
    <span class="num small">{{ [k.phone, k.phone2].filter(Boolean).join(', ') }}</span>
    {{ ' ' }}
    <span class="small">{{ k.email }}</span>
  </button>
  <p
    v-if="!customer.contacts.length"
    class="quiet small"
  >
    Nobody but the customer.
  </p>
  <div class="row">
    <h2 class="grow">Care agreements</h2>
    <ActButton
      v-if="desk && customer.sites.length"
      @click="emit('agreement')"
    >
      Add
    </ActButton>
  </div>
  <p
    v-for="a in customer.agreements"
    :key="a.id"
  >
    {{ a.plan }}<br />
    <span
      class="small"
      :class="a.state === 'in force' ? 'quiet' : 'soon'"
      >{{ a.state }} · until {{ session.day(a.endsOn, 'withYear') }}</span
    >
  </p>
  <p
    v-for="text in ownFields"
    :key="text"
    class="small"
  >
    {{ text }}
  </p>
  <template v-if="customer.ownPrices.length">
    <h2>Own prices</h2>
    <p
      v-for="p in customer.ownPrices"
      :key="p.entryId"
      class="row"
    >
      <span class="grow">{{ p.name }}</span><span class="num">{{ p.price }}</span>
    </p>
  </template>
  <div class="row">
    <h2 class="grow">Files</h2>
    <FileInput
      v-if="desk"
      label="Add"
      accept="image/png,image/jpeg,image/webp,application/pdf"
      :disabled="busy"
      @choose="emit('file', $event)"
    />
  </div>
  <a
    v-for="f in customer.files"
    :key="f.id"
    :href="`/api/v1/files/${f.id}`"
    target="_blank"
    >{{ f.name }}</a
  >
  <p
    v-for="m in customer.merges"
    :key="m.id"
    class="small"
  >
    {{ m.name }} was merged into this one on {{ session.dayTime(m.at) }}.
    <ActButton
      :disabled="busy"
      @click="emit('undoMerge', m.id)"
    >
      Take apart
    </ActButton>
  </p>
</template>

<style scoped>
.contact {
  text-align: left;
  border: 0;
  border-bottom: 1px solid var(--rule);
  background: none;
  padding: 6px 0;
  cursor: pointer;
}
</style>
