<script setup lang="ts">
// The book on paper: which part of it, at whose prices, with or without pictures.
import { computed, reactive } from 'vue'
import { call } from '~/lib/api'
import { SHOWS } from '~/lib/live'
import { useLoad } from '~/lib/useLoad'

defineProps<{ categories: { path: string; name: string; depth: number }[] }>()
const emit = defineEmits<{ close: [] }>()
const { data: setUp } = useLoad(() => call('setUp'), 0, SHOWS.setUp)
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
  <el-dialog
    model-value
    title="The price book on paper"
    width="520"
    @close="emit('close')"
  >
    <div class="stack">
      <label class="field"
        ><span>Category</span
        ><select
          v-model="wish.category"
          class="plain"
        >
          <option value="">the whole book</option>
          <option
            v-for="c in categories"
            :key="c.path"
            :value="c.path"
          >
            {{ '\u2003'.repeat(c.depth) }}{{ c.name }}
          </option>
        </select></label
      >
      <div
        class="row wrap"
        role="group"
        aria-label="Kinds"
      >
        <label
          v-for="[k, name] in KINDS"
          :key="k"
          class="row"
          ><input
            v-model="wish.kinds"
            type="checkbox"
            :value="k"
          />
          {{ name }}</label
        >
      </div>
      <fieldset class="row wrap">
        <legend class="small">Whose prices stand beside each other</legend>
        <label class="row"
          ><input
            v-model="wish.ours"
            type="checkbox"
          />
          ours</label
        ><label
          v-for="l in setUp?.levels ?? []"
          :key="l.id"
          class="row"
          ><input
            v-model="wish.levels"
            type="checkbox"
            :value="l.id"
            :disabled="wish.levels.length >= 3 && !wish.levels.includes(l.id)"
          />
          {{ l.name }}</label
        >
      </fieldset>
      <label class="row"
        ><input
          v-model="wish.pictures"
          type="checkbox"
        />
        with pictures</label
      >
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
  </el-dialog>
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
