<script setup lang="ts">
// What each paper looks like and says: its layouts, and the one that is changed beside the last such paper.
import { computed, ref } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import LayoutForm from '~/papers/LayoutForm.vue'
import { KIND_WORDS, type Layout } from '~/papers/words'
import { useSession } from '~/stores/session'
import { PAPER_KINDS, type PaperKind } from '~~/core/documents/paperWords'

definePageMeta({ layout: 'office', may: 'settings.change' })
const session = useSession()
const { data, problem, refresh } = useAnswer('layouts', undefined, SHOWS.setUp)
const { data: examples } = useAnswer('layoutExamples', undefined, SHOWS.setUp)
/** The one that is shown; of a kind that has none, a new one. */
const chosen = ref<{ kind: PaperKind; id: string | null }>({ kind: 'invoice', id: null })
const of = (kind: PaperKind) => (data.value?.items ?? []).filter((one) => one.kind === kind)
const shown = computed(
  (): Layout | null => data.value?.items.find(({ id }) => id === chosen.value.id) ?? null,
)
const isShown = ({ id }: Layout) => id === chosen.value.id
const state = ({ usual, retired }: Layout) =>
  [usual && 'usual', retired && 'put away'].filter(Boolean).join()
/** Until one is new again, it is the one that was kept. */
const begun = ref(0)
function begin(kind: PaperKind) {
  begun.value++
  chosen.value = { kind, id: null }
}
</script>

<template>
  <section
    v-if="data"
    class="page stack"
  >
    <h1>What our papers look like</h1>
    <p class="quiet">
      The letterhead, and how we are paid, are said once in the
      <NuxtLink to="/set-up#firm">set-up</NuxtLink>. A layout says the rest: in our own words, or
      our own language.
    </p>
    <Notice :of="problem" />
    <div
      v-for="kind in PAPER_KINDS"
      :key="kind"
      class="row kinds"
    >
      <b class="kind">{{ KIND_WORDS[kind] }}</b>
      <ActButton
        v-for="layout in of(kind)"
        :key="layout.id"
        :aria-pressed="isShown(layout)"
        :class="{ chosen: isShown(layout) }"
        @click="chosen = { kind, id: layout.id }"
        >{{ layout.name }} <span class="quiet small">{{ state(layout) }}</span></ActButton
      >
      <span
        v-if="!of(kind).length"
        class="quiet"
        >as is usual</span
      >
      <ActButton
        v-if="session.may('settings.change')"
        quiet
        @click="begin(kind)"
        >{{ of(kind).length ? 'A further layout' : 'Our own layout' }}</ActButton
      >
    </div>
    <h2>{{ KIND_WORDS[chosen.kind] }}: {{ shown?.name ?? 'a new layout' }}</h2>
    <LayoutForm
      :key="`${chosen.kind} ${chosen.id ?? begun}`"
      :kind="chosen.kind"
      :of="shown"
      :examples="examples"
      :refresh="refresh"
      @kept="
        (layouts, id) => {
          data = layouts
          chosen = { kind: chosen.kind, id }
        }
      "
    />
  </section>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
  />
</template>

<style scoped>
.kinds {
  flex-wrap: wrap;
}
.kind {
  min-width: 9em;
}
.chosen {
  font-weight: 700;
}
</style>
