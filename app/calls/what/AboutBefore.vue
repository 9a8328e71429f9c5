<script setup lang="ts">
// What it is about, out of what is known of the site: a piece of equipment, or something that was supplied before.
import { computed } from 'vue'
import { daysLate } from '~~/core/collections/ageing'
import { sayEquipment } from '~~/core/customers/sayEquipment'
import type { Answer } from '~~/shared/api'
import type { Draft } from '~/stores/call'
import { useSession } from '~/stores/session'
import Choice from '~/base/Choice.vue'
import Field from '~/base/Field.vue'
import { saySupplied, sayWarranty } from '~/visits/saySupplied'

const props = defineProps<{ chosen: Answer<'caller'> }>()
const draft = defineModel<Draft>({ required: true })
const session = useSession()
const here = <T extends { siteId: string | null }>(all: readonly T[]) =>
  all.filter((one) => one.siteId === draft.value.siteId)
const equipment = computed(() => here(props.chosen.equipment))
/** The item that failed is named exactly, with the work order that it came with and its warranty. */
const supplied = computed(() => here(props.chosen.supplied))
const failed = computed(() => supplied.value.find((s) => s.lineId === draft.value.suppliedLineId))
const MONTH = 30
function sayDaysAgo(days: number): string {
  if (days === 0) return 'today'
  return days === 1 ? 'yesterday' : `${days} days ago`
}
/** The same thing again within a month is worth knowing before anybody drives. */
const again = computed(() => {
  const { equipmentId } = draft.value
  const work = [...props.chosen.openWork, ...props.chosen.lastWork].find(
    (w) => w.equipmentId && w.equipmentId === equipmentId && daysLate(w.on, session.today) <= MONTH,
  )
  return work && { ...work, ago: sayDaysAgo(daysLate(work.on, session.today)) }
})
</script>

<template>
  <Field
    v-if="equipment.length"
    label="About"
    ><Choice
      v-model="draft.equipmentId"
      :options="[
        { value: null, label: 'nothing in particular' },
        ...equipment.map((e) => ({
          value: e.id,
          label: [sayEquipment(e), e.state].filter(Boolean).join(', '),
        })),
      ]"
  /></Field>
  <p
    v-if="again"
    class="note warn"
    role="status"
  >
    <b>Same equipment, {{ again.ago }}:</b>{{ ' '
    }}<NuxtLink :to="`/work/${again.id}`">{{ again.number }}</NuxtLink> {{ again.title }}
  </p>
  <Field
    v-if="supplied.length"
    label="Something that we supplied"
    ><Choice
      v-model="draft.suppliedLineId"
      :options="[
        { value: null, label: 'nothing that we supplied' },
        ...supplied.map((s) => ({ value: s.lineId, label: saySupplied(s) })),
      ]"
  /></Field>
  <p
    v-if="failed?.warrantyUntil"
    class="note"
    :class="{ warn: failed.warrantyUntil >= session.today }"
    role="status"
  >
    {{ failed.name }}: {{ sayWarranty(failed) }}.{{ ' '
    }}<NuxtLink :to="`/work/${failed.workOrderId}`">{{ failed.number }}</NuxtLink>
  </p>
</template>
