<script setup lang="ts">
// A wholesaler's catalogue beside the work: searched or browsed, compared with the other one, taken as a basket that becomes lines.
import { computed, reactive, ref, watch } from 'vue'
import type { Answer } from '~~/shared/api'
import { call, newId, type Problem } from '~/lib/api'
import { useAnswer } from '~/lib/useAnswer'
import SupplierBasket, { type Taken } from '~/pricebook/supplier/SupplierBasket.vue'
import SupplierGoods from '~/pricebook/supplier/SupplierGoods.vue'
import ActButton from '~/base/ActButton.vue'
import Choice from '~/base/Choice.vue'
import Dialog from '~/base/Dialog.vue'
import TextInput from '~/base/TextInput.vue'
import Notice from '~/base/Notice.vue'

type Product = Answer<'supplierProducts'>['items'][number]
export interface BasketLine {
  id: string
  supplierId: string
  partNumber: string
  quantity: string
}
const props = defineProps<{ busy: boolean; problem: Problem | null; field?: boolean }>()
const emit = defineEmits<{ take: [items: BasketLine[]]; close: [] }>()
const { data: suppliers, problem: away } = useAnswer('suppliers')
const wish = reactive({ supplier: '', category: '', q: '' })
const found = ref<Answer<'supplierProducts'> | null>(null)
const said = ref('')
const beside = ref<{ of: Product; items: Product[] } | null>(null)
const basket = ref<Taken[]>([])
watch(
  suppliers,
  (s) => {
    if (s && !wish.supplier) wish.supplier = s.items[0]?.id ?? ''
  },
  { immediate: true },
)
const categories = computed(
  () => suppliers.value?.items.find((s) => s.id === wish.supplier)?.categories ?? [],
)
let turn = 0
async function search(after?: string) {
  if (!wish.supplier) return
  const mine = ++turn
  const got = await call('supplierProducts', {
    params: { key: wish.supplier },
    query: { q: wish.q.trim(), category: wish.category, after },
  }).catch((e: Problem) => e)
  if (mine !== turn) return
  said.value = got instanceof Error ? got.message : ''
  if (!(got instanceof Error))
    found.value =
      after && found.value ? { ...got, items: [...found.value.items, ...got.items] } : got
}
watch(wish, () => void search(), { deep: true, immediate: true })
let compared = 0
async function compare(p: Product) {
  const mine = ++compared
  if (beside.value?.of === p) return void (beside.value = null)
  const got = await call('compareSuppliers', { params: { key: p.makerNumber } }).catch(
    (e: Problem) => e,
  )
  // Another one was compared meanwhile, or this one closed again.
  if (mine !== compared) return
  said.value = got instanceof Error ? got.message : ''
  if (!(got instanceof Error)) beside.value = { of: p, items: got.items }
}
const same = (a: Product, b: Product) =>
  a.supplierId === b.supplierId && a.partNumber === b.partNumber
function put(p: Product) {
  const there = basket.value.find((b) => same(b, p))
  // What is no number stays as it was typed, and is said when it is taken.
  const more = Number(there?.quantity) + 1
  if (there) there.quantity = Number.isNaN(more) ? there.quantity : String(more)
  else basket.value.push({ ...p, line: newId(), quantity: '1' })
}
const take = () =>
  emit(
    'take',
    basket.value.map((b) => ({
      id: b.line,
      supplierId: b.supplierId,
      partNumber: b.partNumber,
      quantity: b.quantity,
    })),
  )
</script>

<template>
  <Dialog
    title="From a supplier"
    :width="field ? '96%' : 980"
    @close="emit('close')"
  >
    <div class="stack">
      <Notice
        v-if="away"
        :of="away"
      />
      <p
        v-else-if="suppliers && !suppliers.items.length"
        class="note warn"
      >
        No supplier is connected yet. Whoever runs this installation can name one in SUPPLIER_URL.
      </p>
      <div
        v-else
        class="row wrap"
      >
        <span
          class="row who"
          role="group"
          aria-label="Supplier"
          ><ActButton
            v-for="s in suppliers?.items ?? []"
            :key="s.id"
            :on="wish.supplier === s.id"
            :aria-pressed="wish.supplier === s.id"
            @click="
              () => {
                wish.supplier = s.id
                wish.category = ''
              }
            "
          >
            {{ s.name }}
          </ActButton></span
        >
        <Choice
          v-model="wish.category"
          aria-label="Their category"
          style="width: 150px"
          :options="[
            { value: '', label: 'any category' },
            ...categories.map((c) => ({ value: c, label: c })),
          ]"
        /><TextInput
          v-model="wish.q"
          class="grow"
          placeholder="Part number or words"
          aria-label="Search their catalogue"
          style="min-width: 160px"
        />
      </div>
      <p
        v-if="said"
        class="note bad"
        role="alert"
      >
        {{ said }}
      </p>
      <div class="goods">
        <SupplierGoods
          v-if="found?.items.length"
          :items="found.items"
          :beside="beside"
          @compare="compare"
          @put="put"
        />
        <p
          v-else-if="found"
          class="empty"
        >
          They have nothing that reads like that.
        </p>
        <p
          v-else-if="wish.supplier && !said"
          class="empty"
          role="status"
        >
          Asking…
        </p>
        <ActButton
          v-if="found?.next"
          @click="search(found.next)"
        >
          Show more of {{ found.total }}
        </ActButton>
      </div>
      <SupplierBasket
        v-if="basket.length"
        v-model="basket"
        :problem="problem"
      />
      <p
        v-if="props.problem"
        class="note bad"
        role="alert"
      >
        {{ props.problem.message }}
      </p>
      <ActButton
        primary
        :disabled="busy || !basket.length"
        @click="take"
      >
        Take {{ basket.length || '' }} {{ basket.length === 1 ? 'line' : 'lines' }} over
      </ActButton>
    </div>
  </Dialog>
</template>

<style scoped>
.wrap {
  flex-wrap: wrap;
}
.who {
  gap: 0;
  flex-wrap: wrap;
}
.who .btn + .btn {
  margin-left: -1px;
}
.goods {
  max-height: 380px;
  overflow: auto;
  border: 1px solid var(--rule);
}
@media (max-width: 600px) {
  .goods {
    max-height: 50vh;
  }
}
</style>
