<script setup lang="ts">
// Adds lines to the visit: from the price book, not in the book, from a supplier.
import { ref } from 'vue'
import OwnLineForm, { type OwnLine } from '~/components/pricebook/OwnLine.vue'
import PriceSearch from '~/components/pricebook/PriceSearch.vue'
import SupplierSheet, { type BasketLine } from '~/components/pricebook/SupplierSheet.vue'
import type { Found } from '~/lib/book'
import type { useFieldVisit } from './useFieldVisit'

const props = defineProps<{ of: ReturnType<typeof useFieldVisit> }>()
const emit = defineEmits<{ done: [] }>()
const added = ref('')
const writing = ref(false)
const buying = ref(false)
/** Says what came in, unless it was refused, or something else is under way. */
async function adding(act: Promise<unknown>, what: string, then: () => void = () => {}) {
  if (!(await act)) return false
  added.value = what
  then()
  return true
}
const addEntries = (entries: Found[]) =>
  adding(props.of.addEntries(entries), entries.map((e) => e.name).join(', '))
const addOwn = (line: OwnLine) => adding(props.of.addOwn(line), line.name ?? 'a line')
const addBasket = (items: BasketLine[]) =>
  adding(props.of.addBasket(items), `${items.length} from a supplier`, () => {
    buying.value = false
  })
</script>

<template>
  <section class="block">
    <p
      v-if="added"
      class="note"
      role="status"
    >
      Added: {{ added }}
    </p>
    <PriceSearch
      label="Search the price book"
      at-hand
      autofocus
      large
      :choose="addEntries"
    />
    <button
      class="btn"
      @click="writing = !writing"
    >
      Not in the book…
    </button>
    <OwnLineForm
      v-if="writing"
      :about="of.work.value!.id"
      :busy="of.busy.value"
      :add="addOwn"
      @close="writing = false"
    />
    <button
      class="btn"
      @click="buying = true"
    >
      From a supplier…
    </button>
    <SupplierSheet
      v-if="buying"
      field
      :busy="of.busy.value"
      :problem="of.failed.value"
      @take="addBasket"
      @close="buying = false"
    />
    <button
      class="btn act"
      @click="emit('done')"
    >
      Back to the lines
    </button>
  </section>
</template>
