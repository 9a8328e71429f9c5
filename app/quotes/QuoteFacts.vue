<script setup lang="ts">
// Who pays, where the work would be, whom to speak to, who has it.
import { ref } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Choice from '~/base/Choice.vue'
import PayerChoice from './PayerChoice.vue'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'
import { saySupplied } from '~/visits/saySupplied'
import type { Quote } from './useQuote'

const props = defineProps<{ quote: Quote; draft: boolean; field?: boolean }>()
const emit = defineEmits<{
  change: [values: { ownerId: string | null } | { customerId: string }]
}>()
const { data: setUp } = useAnswer('setUp', () => (props.field ? null : {}), SHOWS.setUp)
const session = useSession()
const paying = ref(false)
function pays(customerId: string) {
  paying.value = false
  emit('change', { customerId })
}
</script>

<template>
  <dl :class="{ field }">
    <div>
      <dt>Who pays</dt>
      <dd class="row">
        <NuxtLink
          v-if="!field"
          :to="`/customers/${quote.customer.id}`"
          >{{ quote.customer.name }}</NuxtLink
        >
        <template v-else>{{ quote.customer.name }}</template>
        <span
          v-if="quote.customer.prospect"
          class="chip"
          >prospect</span
        >
        <span
          v-for="tag in quote.customer.tags"
          :key="tag"
          class="chip"
          >{{ tag }}</span
        >
        <span
          v-if="quote.customer.level"
          class="chip"
          >{{ quote.customer.level }}</span
        >
        <span
          v-if="quote.customer.exempt"
          class="chip"
          >tax exempt</span
        >
        <ActButton
          v-if="draft && !field"
          quiet
          @click="paying = !paying"
        >
          Somebody else
        </ActButton>
      </dd>
    </div>
    <div>
      <dt>Where</dt>
      <dd>
        {{ quote.site.text
        }}<span
          v-if="quote.site.belongsTo"
          class="quiet"
          >, of {{ quote.site.belongsTo }}</span
        >
      </dd>
    </div>
    <div v-if="quote.supplied">
      <dt>About what we supplied</dt>
      <dd>{{ saySupplied(quote.supplied) }}</dd>
    </div>
    <div v-if="quote.equipment">
      <dt>About</dt>
      <dd>{{ quote.equipment }}</dd>
    </div>
    <div
      v-for="asked in quote.answers"
      :key="asked.question"
    >
      <dt>{{ asked.question }}</dt>
      <dd>{{ asked.answer }}</dd>
    </div>
    <div v-if="quote.files.length && session.may('customers.see')">
      <dt>Came with the call</dt>
      <dd>
        <a
          v-for="file in quote.files"
          :key="file.id"
          class="file"
          :href="`/api/v1/files/${file.id}`"
          target="_blank"
          >{{ file.name }}</a
        >
      </dd>
    </div>
    <div v-if="quote.contact.name || quote.contact.phone">
      <dt>Speak to</dt>
      <dd>{{ quote.contact.name }} {{ quote.contact.phone }}</dd>
    </div>
    <div>
      <dt>Who has it</dt>
      <dd>
        <Choice
          v-if="setUp && draft"
          aria-label="Who has it"
          :model-value="quote.owner?.id ?? ''"
          :options="[
            { value: '', label: 'nobody' },
            ...setUp.people.map((p) => ({ value: p.id, label: p.name })),
          ]"
          @change="emit('change', { ownerId: $event || null })"
        />
        <template v-else>{{ quote.owner?.name ?? 'nobody' }}</template>
      </dd>
    </div>
  </dl>
  <PayerChoice
    v-if="paying"
    :place="quote.site"
    @choose="pays"
  />
</template>

<style scoped>
dl {
  margin: 0;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(170px, 1fr));
  gap: 6px 20px;
}
.file {
  display: block;
  overflow-wrap: anywhere;
}
dl.field {
  grid-template-columns: 1fr;
}
dt {
  color: var(--ink-2);
  font-size: 0.75rem;
}
dd {
  margin: 0;
  flex-wrap: wrap;
}
</style>
