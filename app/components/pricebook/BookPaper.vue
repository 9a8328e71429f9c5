<script setup lang="ts">
// The book on paper: which part of it, at whose prices, with or without pictures.
import { computed, reactive } from 'vue'
import { call } from '~/lib/api'
import { useLoad } from '~/lib/useLoad'

defineProps<{ categories: { path: string, name: string, depth: number }[] }>()
const emit = defineEmits<{ close: [] }>()
const { data: setUp } = useLoad(() => call('setUp'))
const wish = reactive({ category: '', kinds: ['task', 'assembly', 'charge'], level: '', pictures: true })
const KINDS = [['task', 'tasks'], ['assembly', 'assemblies'], ['charge', 'charges'], ['part', 'parts'], ['labour', 'labour']] as const
const href = computed(() => `/api/v1/price-book.pdf?${new URLSearchParams({ kind: wish.kinds.join(','), ...(wish.category ? { category: wish.category } : {}), ...(wish.level ? { level: wish.level } : {}), ...(wish.pictures ? { pictures: 'yes' } : {}) })}`)
</script>

<template>
  <el-dialog model-value title="The price book on paper" width="520" @close="emit('close')">
    <div class="stack">
      <label class="field"><span>Category</span><select v-model="wish.category" class="plain"><option value="">the whole book</option><option v-for="c in categories" :key="c.path" :value="c.path">{{ '\u2003'.repeat(c.depth) }}{{ c.name }}</option></select></label>
      <div class="row wrap" role="group" aria-label="Kinds"><label v-for="[k, name] in KINDS" :key="k" class="row"><input v-model="wish.kinds" type="checkbox" :value="k"> {{ name }}</label></div>
      <label class="field"><span>Beside our price, the one of</span><select v-model="wish.level" class="plain"><option value="">nobody else</option><option v-for="l in setUp?.levels ?? []" :key="l.id" :value="l.id">{{ l.name }}</option></select></label>
      <label class="row"><input v-model="wish.pictures" type="checkbox"> with pictures</label>
      <a class="btn act" :href="href" target="_blank" :aria-disabled="!wish.kinds.length">Open the PDF</a>
    </div>
  </el-dialog>
</template>

<style scoped>
.wrap { flex-wrap: wrap; gap: 14px; }
</style>
