<script setup lang="ts">
// An entry that was found: taken alone, marked to be taken with others, kept at hand.
import { computed } from 'vue'
import IconFirm from '~icons/lucide/building-2'
import IconMine from '~icons/lucide/bookmark-check'
import IconPin from '~icons/lucide/bookmark'
import IconTick from '~icons/lucide/square'
import IconTicked from '~icons/lucide/square-check'
import type { Found } from '~/lib/book'
import { useSession } from '~/stores/session'

const props = defineProps<{
  entry: Found
  marked: boolean
  /** for a thumb, with its picture */
  large?: boolean
  /** its picture could not be fetched */
  lost: boolean
}>()
const emit = defineEmits<{ take: []; mark: []; pin: []; lost: [] }>()
const session = useSession()
/** Entries that are called alike are told apart by their price and by how they sell. */
const sold = computed(() => {
  const { used, lastSold } = props.entry
  return used ? `sold ${used}×, last ${session.day(lastSold!)}` : 'not sold in a year'
})
const SAID: Partial<Record<Found['kind'], string>> = { task: 'flat rate' }
const kindOf = computed(() => SAID[props.entry.kind] ?? props.entry.kind)
</script>

<template>
  <li :class="{ large }">
    <button
      type="button"
      class="take"
      @click="emit('take')"
    >
      <img
        v-if="entry.pictureId && large && !lost"
        :src="`/api/v1/price-pictures/${entry.pictureId}`"
        :alt="''"
        loading="lazy"
        @error="emit('lost')"
      /><span
        v-else-if="large"
        class="nopic"
        aria-hidden="true"
        >{{ entry.name.charAt(0) }}</span
      >
      <span class="grow"
        ><b>{{ entry.name }}</b
        >{{ ' '
        }}<span class="quiet small"
          >{{ entry.code }} · {{ kindOf }}{{ entry.unit === 'each' ? '' : ` by ${entry.unit}` }} ·
          {{ sold }}</span
        ></span
      >
      <span class="num">{{
        session.money({ amount: entry.price, currency: entry.agreementSaving.currency }, false)
      }}</span>
    </button>
    <button
      type="button"
      class="tick"
      :aria-pressed="marked"
      :aria-label="`Choose ${entry.name} with others`"
      @click="emit('mark')"
    >
      <IconTicked v-if="marked" /><IconTick v-else />
    </button>
    <button
      type="button"
      class="pin"
      :aria-pressed="entry.mine"
      :aria-label="
        entry.mine ? `Keep ${entry.name} at hand no more` : `Keep ${entry.name} at hand for me`
      "
      :title="entry.pinned ? 'at hand for everybody' : ''"
      @click="emit('pin')"
    >
      <IconMine v-if="entry.mine" /><IconFirm v-else-if="entry.pinned" /><IconPin v-else />
    </button>
  </li>
</template>

<style scoped>
li {
  display: flex;
}
li + li {
  border-top: 1px solid var(--rule);
}
li button {
  border: 0;
  background: none;
  cursor: pointer;
  padding: 7px 8px;
}
.take {
  display: flex;
  gap: 10px;
  flex: 1;
  min-width: 0;
  text-align: left;
  align-items: baseline;
}
.tick,
.pin {
  color: var(--ink-2);
  width: 32px;
  flex: none;
}
.pin[aria-pressed='true'] {
  color: var(--green);
}
.large {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 48px;
  align-items: center;
}
.large .take {
  grid-row: 1 / span 2;
}
.large .take {
  align-items: center;
  padding: 8px 4px;
  min-height: 64px;
}
.large .take .grow {
  display: flex;
  flex-direction: column;
}
.large .tick,
.large .pin {
  width: 48px;
  min-height: 48px;
  font-size: 1.25rem;
}
img,
.nopic {
  width: 48px;
  height: 48px;
  border-radius: 6px;
  object-fit: cover;
  flex: none;
}
.nopic {
  display: grid;
  place-items: center;
  background: var(--green-1);
  color: var(--green);
  font-weight: 700;
}
</style>
