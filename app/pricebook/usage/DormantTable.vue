<script setup lang="ts">
// What nobody sells, to be retired; it stays on the papers that have it.
import { ref, watch } from 'vue'
import type { Answer } from '~~/shared/api'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import DataTable from '~/base/DataTable.vue'
import { useSession } from '~/stores/session'

const props = defineProps<{
  dormant: Answer<'bookUsage'>['dormant']
  count: number
  owns: boolean
  busy: boolean
}>()
const emit = defineEmits<{ retire: [ids: string[]] }>()
const picked = ref<string[]>([])
// What is no longer there is no longer chosen.
watch(
  () => props.dormant,
  (now) => (picked.value = picked.value.filter((id) => now.some((d) => d.id === id))),
)
const session = useSession()
</script>

<template>
  <div class="row">
    <p class="quiet grow">
      {{ count }} tasks, parts and assemblies were not sold, nor stood in anything that was.
    </p>
    <template v-if="owns && dormant.length"
      ><ActButton @click="picked = picked.length ? [] : dormant.map((d) => d.id)">
        {{ picked.length ? 'Choose none' : `Choose these ${dormant.length}` }}</ActButton
      ><ActButton
        primary
        :disabled="busy || !picked.length"
        @click="emit('retire', [...picked])"
      >
        Retire {{ picked.length || '' }}
      </ActButton></template
    >
  </div>
  <DataTable
    v-if="dormant.length"
    :rows="dormant"
    :row-key="(d) => d.id"
    :columns="[
      ...(owns ? [{ key: 'c1' }] : []),
      { key: 'code', label: 'Code', look: 'num' },
      { key: 'name', label: 'Name', text: (d) => d.name },
      { key: 'category', label: 'Category', look: 'quiet', text: (d) => d.category },
      { key: 'price', label: 'Price', figures: true, text: (d) => session.figure(d.price) },
    ]"
    ><template #c1="{ row: d }"
      ><Check
        v-model="picked"
        :value="d.id"
        :label="`Choose ${d.name}`"
    /></template>
    <template #code="{ row: d }"
      ><NuxtLink :to="`/price-book/${d.id}`">{{ d.code }}</NuxtLink></template
    >
  </DataTable>
  <p
    v-else
    class="empty sheet"
  >
    Everything was sold.
  </p>
</template>
