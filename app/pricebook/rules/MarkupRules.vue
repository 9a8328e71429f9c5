<script setup lang="ts">
// What a part is sold for: its cost times the markup of its supplier, of its category, or of all.
import ActButton from '~/base/ActButton.vue'
import Choice from '~/base/Choice.vue'
import Field from '~/base/Field.vue'
import FigureInput from '~/base/FigureInput.vue'
import TextInput from '~/base/TextInput.vue'
import type { Rules } from './useRules'

defineProps<{ categories: readonly string[]; wrong: (path: string) => string }>()
const markups = defineModel<Rules['markups']>({ required: true })
const add = (scope: 'category' | 'supplier') =>
  markups.value.push({ scope, name: '', tiers: [{ fromCost: '0', multiplier: '1.5' }] })
</script>

<template>
  <h2>Parts: cost times</h2>
  <p class="small quiet">
    A part takes the markup of its supplier; where there is none, of its category; else the one for
    all. A step holds from its cost up to the next one.
  </p>
  <div
    v-for="(m, i) in markups"
    :key="i"
    class="rule"
  >
    <div class="row">
      <b
        v-if="m.scope === 'all'"
        class="grow"
        >All parts</b
      ><Field
        v-else
        class="grow"
        :label="m.scope === 'category' ? 'Parts of the category' : 'Parts from the supplier'"
        ><Choice
          v-if="m.scope === 'category'"
          v-model="m.name"
          :options="[
            { value: '', label: 'choose' },
            ...categories.map((c) => ({ value: c, label: c })),
          ]" /><TextInput
          v-else
          v-model="m.name"
          list="rule-suppliers" /></Field
      ><ActButton
        v-if="m.scope !== 'all'"
        quiet
        :aria-label="`Take out the markup of ${m.name}`"
        @click="markups.splice(i, 1)"
      >
        ×
      </ActButton>
    </div>
    <i
      v-if="wrong(`markups[${i}].name`) || wrong(`markups[${i}].tiers`)"
      class="wrong"
      >{{ wrong(`markups[${i}].name`) || wrong(`markups[${i}].tiers`) }}</i
    >
    <div
      v-for="(t, j) in m.tiers"
      :key="j"
      class="row step"
    >
      <span class="quiet small">cost from</span
      ><FigureInput
        v-model="t.fromCost"
        :aria-label="`${m.name || 'All parts'}, step ${j + 1}: cost from`"
      /><span class="quiet small">×</span
      ><FigureInput
        v-model="t.multiplier"
        :aria-label="`${m.name || 'All parts'}, step ${j + 1}: times`"
      /><ActButton
        v-if="m.tiers.length > 1"
        quiet
        :aria-label="`Take out step ${j + 1}`"
        @click="m.tiers.splice(j, 1)"
      >
        ×
      </ActButton>
    </div>
    <ActButton
      quiet
      class="small"
      @click="m.tiers.push({ fromCost: '', multiplier: m.tiers.at(-1)?.multiplier ?? '1.5' })"
    >
      + step
    </ActButton>
  </div>
  <div class="row">
    <ActButton @click="add('category')"> Markup of a category</ActButton
    ><ActButton @click="add('supplier')"> Markup of a supplier </ActButton>
  </div>
</template>

<style scoped>
.step .figures {
  width: 100px;
}
</style>
