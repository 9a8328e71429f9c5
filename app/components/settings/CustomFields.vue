<script setup lang="ts">
// The firm's own fields as inputs: text, number, date, choice, yes or no.
defineProps<{ fields: { id: string; name: string; kind: string; choices: string[] }[] }>()
const values = defineModel<Record<string, string>>({ required: true })
const set = (id: string, value: string) => {
  values.value = { ...values.value, [id]: value }
}
const of = (e: Event) => (e.target as HTMLInputElement).value
</script>

<template>
  <label
    v-for="f in fields"
    :key="f.id"
    class="field"
    ><span>{{ f.name }}</span>
    <select
      v-if="f.kind === 'choice' || f.kind === 'yes_no'"
      class="plain"
      :value="values[f.id] ?? ''"
      @change="set(f.id, of($event))"
    >
      <option value="">–</option>
      <option
        v-for="c in f.kind === 'yes_no' ? ['yes', 'no'] : f.choices"
        :key="c"
      >
        {{ c }}
      </option>
    </select>
    <input
      v-else
      class="plain"
      :type="f.kind === 'date' ? 'date' : 'text'"
      :inputmode="f.kind === 'number' ? 'decimal' : undefined"
      :value="values[f.id] ?? ''"
      @change="set(f.id, of($event))"
  /></label>
</template>
