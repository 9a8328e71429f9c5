<script setup lang="ts">
// What would happen if the list were taken in; a short list that is taken for the whole of it asks first.
import { computed, ref, watch } from 'vue'
import { leavesOutMuch } from '~~/core/pricebook/importPlan'
import type { Answer } from '~~/shared/api'
import PricePreview from '~/components/pricebook/PricePreview.vue'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import ListRows from './ListRows.vue'

const props = defineProps<{ seen: Answer<'lookAtPrices'>; retiring: boolean; busy: boolean }>()
const emit = defineEmits<{ take: []; propose: [] }>()
const shown = ref<InstanceType<typeof PricePreview>>()
const waits = computed(() => shown.value?.answered === false)
const counts = computed(() => props.seen.counts)
const sums = computed(
  () =>
    [
      [counts.value.new, 'new'],
      [counts.value.changed, 'changed'],
      [counts.value.same, 'as they are'],
      [counts.value.wrong, 'left out, something is wrong'],
      [counts.value.vanished, 'no longer on the list'],
    ] as [number, string][],
)
const meant = ref(false)
watch(
  () => props.seen,
  () => (meant.value = false),
)
const asksMuch = computed(() => {
  const { vanished, changed, same } = counts.value
  return props.retiring && leavesOutMuch({ vanished, named: changed + same })
})
const retires = computed(() => (props.retiring ? counts.value.vanished : 0))
const willTake = computed(() => counts.value.new + counts.value.changed + retires.value)
</script>

<template>
  <p
    class="row sums"
    role="status"
  >
    <span
      v-for="[n, name] in sums"
      :key="name"
      ><b class="num">{{ n }}</b> {{ name }}</span
    ><span class="grow" /><ActButton
      primary
      :disabled="busy || !willTake || (asksMuch && !meant) || waits"
      @click="emit('take')"
    >
      Take in {{ willTake - retires }} {{ willTake - retires === 1 ? 'row' : 'rows'
      }}<template v-if="retires"> and retire {{ retires }}</template>
    </ActButton>
  </p>
  <p
    v-if="waits"
    class="small late"
  >
    Something is asked below, beside the prices: answer it before the list is taken in.
  </p>
  <Check
    v-if="asksMuch"
    v-model="meant"
    class="note warn"
  >
    This list leaves out {{ seen.counts.vanished }} entries and names
    {{ seen.counts.changed + seen.counts.same }}. All that it leaves out would be retired. Yes, it
    is meant.</Check
  >
  <ListRows :seen="seen" />
  <PricePreview
    v-if="seen.prices.changed + seen.prices.follow"
    ref="shown"
    :preview="seen.prices"
    :busy="busy"
    @propose="emit('propose')"
  />
</template>

<style scoped>
.sums {
  gap: 18px;
}
</style>
