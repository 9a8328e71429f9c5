<script setup lang="ts">
// The book on paper: which part of it, at whose prices, with or without pictures.
import { computed, reactive } from 'vue'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import Check from '~/base/Check.vue'
import Choice from '~/base/Choice.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'

defineProps<{ categories: { path: string; name: string; depth: number }[] }>()
const emit = defineEmits<{ close: [] }>()
const { data: setUp } = useAnswer('setUp', undefined, SHOWS.setUp)
const wish = reactive({
  category: '',
  kinds: ['task', 'assembly', 'charge'],
  ours: true,
  levels: [] as string[],
  pictures: true,
})
const KINDS = [
  ['task', 'tasks'],
  ['assembly', 'assemblies'],
  ['charge', 'charges'],
  ['part', 'parts'],
  ['labour', 'labour'],
] as const
const ready = computed(() => wish.kinds.length > 0 && (wish.ours || wish.levels.length > 0))
const href = computed(
  () =>
    `/api/v1/price-book.pdf?${new URLSearchParams({ kind: wish.kinds.join(','), ...(wish.category ? { category: wish.category } : {}), ...(wish.levels.length ? { levels: wish.levels.join(',') } : {}), ...(wish.ours ? {} : { ours: 'no' }), ...(wish.pictures ? { pictures: 'yes' } : {}) })}`,
)
</script>

<template>
  <Dialog
    title="The price book on paper"
    width="520"
    @close="emit('close')"
  >
    <div class="stack">
      <Field label="Category"
        ><Choice
          v-model="wish.category"
          :options="[
            { value: '', label: 'the whole book' },
            ...categories.map((c) => ({
              value: c.path,
              label: c.path,
            })),
          ]"
      /></Field>
      <div
        class="row wrap"
        role="group"
        aria-label="Kinds"
      >
        <Check
          v-for="[k, name] in KINDS"
          :key="k"
          v-model="wish.kinds"
          :value="k"
        >
          {{ name }}</Check
        >
      </div>
      <fieldset class="row wrap">
        <legend class="small">Whose prices stand beside each other</legend>
        <Check v-model="wish.ours"> ours</Check
        ><Check
          v-for="l in setUp?.levels ?? []"
          :key="l.id"
          v-model="wish.levels"
          :value="l.id"
          :disabled="wish.levels.length >= 3 && !wish.levels.includes(l.id)"
        >
          {{ l.name }}</Check
        >
      </fieldset>
      <Check v-model="wish.pictures"> with pictures</Check>
      <a
        class="btn act"
        :href="href"
        target="_blank"
        :aria-disabled="!ready"
        @click="ready || $event.preventDefault()"
        >Open the PDF</a
      >
      <p
        v-if="!ready"
        class="small late"
      >
        Choose at least one kind and whose prices.
      </p>
    </div>
  </Dialog>
</template>

<style scoped>
.wrap {
  flex-wrap: wrap;
  gap: 14px;
  border: 0;
  padding: 0;
  margin: 0;
}
legend {
  padding: 0 0 4px;
  color: var(--ink-2);
}
</style>
