<script setup lang="ts">
// What stands inside a task or an assembly, with how many of each.
import ActButton from '~/base/ActButton.vue'
import FigureInput from '~/base/FigureInput.vue'
import PriceSearch from '~/components/pricebook/PriceSearch.vue'
import type { Found } from '~/lib/book'
import type { EntryForm } from './entryForm'
import { useFigures } from './useEntry'

const form = defineModel<EntryForm>({ required: true })
defineProps<{ owns: boolean; error: string }>()
const emit = defineEmits<{ add: [entries: Found[]] }>()
const { amount } = useFigures()
</script>

<template>
  <div class="field">
    <span>{{ form.kind === 'task' ? 'Parts inside' : 'Becomes these lines' }}</span>
    <div
      v-for="(part, i) in form.parts"
      :key="part.partId"
      class="row"
    >
      <FigureInput
        v-model="part.quantity"
        style="width: 64px"
        :aria-label="`How many: ${part.name}`"
      />
      <span class="grow"
        >{{ part.name }} <span class="quiet num small">{{ part.code }}</span></span
      >
      <span class="num">{{ amount(part.price) }}</span>
      <ActButton
        quiet
        :aria-label="`Take out ${part.name}`"
        @click="form.parts.splice(i, 1)"
      >
        ×
      </ActButton>
    </div>
    <i
      v-if="error"
      class="wrong"
      >{{ error }}</i
    >
    <PriceSearch
      v-if="owns && form.kind === 'task'"
      key="parts"
      label="Put a part in"
      only="part"
      :choose="(entries) => emit('add', entries)"
    />
    <PriceSearch
      v-else-if="owns"
      key="any"
      label="Put something in"
      not="assembly"
      :choose="(entries) => emit('add', entries)"
    />
  </div>
</template>

<style scoped>
.row {
  margin-bottom: 4px;
}
</style>
