<script setup lang="ts">
// Why an entry costs what it costs: as it stands, or as it is being typed.
import { computed } from 'vue'
import PriceWhy from '~/components/pricebook/PriceWhy.vue'
import { useSession } from '~/stores/session'
import { holdsParts, type Entry } from './entryForm'
import { useFigures, type Tried } from './useEntry'

const props = defineProps<{
  kind: Entry['kind']
  entry: Entry | null
  tried: Tried | null
  /** why what is typed has no price */
  odd: string
}>()
const session = useSession()
const { amount, percent } = useFigures()
const shown = computed(() => props.tried ?? props.entry)
const changed = computed(() => {
  const [now, then] = [props.entry?.price, props.tried?.why.price]
  return now && then && now !== then ? { now, then } : null
})
</script>

<template>
  <div
    v-if="shown"
    class="sheet box"
  >
    <h2>Why this price</h2>
    <p
      v-if="odd"
      class="wrong"
      role="alert"
    >
      {{ odd }}
    </p>
    <PriceWhy
      :why="shown.why"
      :title="kind === 'task' ? 'As the first task of a visit' : 'Its price'"
    />
    <PriceWhy
      v-if="shown.whyFurther"
      :why="shown.whyFurther"
      title="As a further one"
    />
    <template v-if="shown.costs">
      <p
        v-if="holdsParts(kind)"
        class="quiet small"
      >
        It costs us: bought {{ amount(shown.costs.material) }}, its hours
        {{ amount(shown.costs.labour) }}
      </p>
      <p
        v-if="shown.margin !== null"
        class="row"
      >
        <span class="grow">Margin</span><b class="num">{{ percent(shown.margin) }}</b>
      </p>
    </template>
    <p
      v-if="changed"
      class="note warn"
      role="status"
    >
      Now {{ amount(changed.now) }}; it would be {{ amount(changed.then) }}.
    </p>
    <p class="small quiet">
      {{ entry?.pricedOn ? `Holds since ${session.day(entry.pricedOn, 'withYear')}.` : '' }}
      <NuxtLink to="/price-book/rules">The rules</NuxtLink>
    </p>
  </div>
</template>
