<script setup lang="ts">
// What is done and promised on this work order, line by line; a tap opens one to be changed. Beneath: what leads to its total.
import { ref } from 'vue'
import { useSession } from '~/stores/session'
import TakenOut from '~/visits/TakenOut.vue'
import { marginSaid } from '~/visits/words'
import LineEditor from './LineEditor.vue'
import type { Line, Work } from './useFieldVisit'

defineProps<{
  work: Work
  busy: boolean
  refresh: () => Promise<unknown>
}>()
const emit = defineEmits<{
  changed: [work: Work]
  done: [line: Line]
  back: [line: Work['takenOut'][number]]
}>()
const session = useSession()
const editing = ref('')
function beneath(line: Line): string {
  const words = [
    line.kind === 'task' ? 'flat rate' : line.kind,
    `${line.quantity} × ${line.unitPrice}`,
    line.done ? '' : 'promised, not done yet',
    Number(line.notAgreed.amount) ? 'not agreed yet' : '',
    line.unitCost === null ? '' : `cost ${line.unitCost}`,
  ]
  return words.filter(Boolean).join(' · ')
}
</script>

<template>
  <ul class="lines">
    <li
      v-for="line in work.lines"
      :key="line.id"
    >
      <div class="both">
        <button
          type="button"
          class="tick"
          :class="{ done: line.done }"
          :aria-pressed="line.done"
          :aria-label="`Tick off ${line.name}`"
          :disabled="busy || Number(line.billed.amount) > 0"
          @click="emit('done', line)"
        >
          <span aria-hidden="true">{{ line.done ? '✓' : '' }}</span>
        </button>
        <button
          type="button"
          class="line"
          :aria-expanded="editing === line.id"
          @click="editing = editing === line.id ? '' : line.id"
        >
          <span class="grow">
            <b>{{ line.name }}</b>
            {{ ' ' }}
            <span class="quiet small">{{ beneath(line) }}</span>
          </span>
          <span class="num">{{ session.money(line.net, false) }}</span>
        </button>
      </div>
      <LineEditor
        v-if="editing === line.id"
        :line="line"
        :busy="busy"
        :refresh="refresh"
        @changed="emit('changed', $event)"
        @close="editing = ''"
      />
    </li>
    <li
      v-if="!work.lines.length"
      class="empty"
    >
      Nothing is priced yet.
    </li>
  </ul>
  <TakenOut
    :lines="work.takenOut"
    :busy="busy"
    @back="emit('back', $event)"
  />
  <section
    v-if="work.lines.length"
    class="sums"
  >
    <p
      v-if="Number(work.price.saving.amount)"
      class="row quiet"
    >
      <span class="grow">{{
        work.customer.level
          ? `Taken off by ${work.customer.level.toLowerCase()}`
          : `With a ${work.price.savingLevel.toLowerCase()}`
      }}</span>
      <span class="num">−{{ session.money(work.price.saving, false) }}</span>
    </p>
    <p
      v-for="tax in work.price.taxes"
      :key="tax.name"
      class="row quiet"
    >
      <span class="grow">{{ tax.name }}</span>
      <span class="num">{{ session.money(tax.tax, false) }}</span>
    </p>
    <p
      v-if="work.customer.exempt"
      class="quiet"
    >
      Tax exempt
    </p>
    <p
      v-if="work.price.cost"
      class="row quiet"
    >
      <span class="grow">{{ marginSaid(work.price, session.money) }}</span>
      <span class="num"> {{ ((work.price.margin ?? 0) * 100).toFixed(1) }} % </span>
    </p>
  </section>
</template>

<style scoped>
.lines {
  list-style: none;
  margin: 0;
  padding: 0;
  background: var(--sheet);
  border-top: 1px solid var(--rule);
}
.lines li {
  border-bottom: 1px solid var(--rule);
}
.both {
  display: flex;
}
.tick {
  flex: none;
  display: grid;
  place-items: center;
  width: 54px;
  border: 0;
  background: none;
  cursor: pointer;
}
.tick span {
  display: grid;
  place-items: center;
  width: 26px;
  height: 26px;
  border: 2px solid var(--rule-2);
  border-radius: 50%;
  font-weight: 700;
}
.tick.done span {
  border-color: var(--green);
  background: var(--green);
  color: #fff;
}
.line {
  display: flex;
  gap: 12px;
  width: 100%;
  text-align: left;
  border: 0;
  background: none;
  padding: 10px 16px 10px 0;
  align-items: baseline;
  cursor: pointer;
}
.line .grow {
  display: flex;
  flex-direction: column;
}
.sums {
  padding: 8px 16px;
}
</style>
