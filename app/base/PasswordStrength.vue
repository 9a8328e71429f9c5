<script setup lang="ts">
// How soon somebody would guess a password that is being chosen. The server alone says whether it will do.
import { computed, ref, watch } from 'vue'
import type { ZxcvbnFactory } from '@zxcvbn-ts/core'

const props = defineProps<{
  of: string
  /** what others know of whoever chooses it: a name, a mail address, a firm */
  known?: readonly string[]
}>()
const SAYS = [
  'Guessed at once',
  'Guessed soon',
  'Holds for a while',
  'Hard to guess',
  'Very hard to guess',
] as const
let meter: Promise<ZxcvbnFactory> | null = null
/** Lists of words that nobody fetches who chooses no password. */
const load = async () => {
  const [{ ZxcvbnFactory: Meter }, { adjacencyGraphs: graphs, dictionary }] = await Promise.all([
    import('@zxcvbn-ts/core'),
    import('@zxcvbn-ts/language-common'),
  ])
  return new Meter({ graphs, dictionary })
}
const score = ref<number | null>(null)
watch(
  () => [props.of, ...(props.known ?? [])],
  async ([word = '', ...known]) => {
    // Without its lists there is no meter, and the password is chosen all the same.
    const made = word ? await (meter ??= load()).catch(() => (meter = null)) : null
    const words = known.flatMap((one) => one.split(/[\s@.]+/u)).filter(Boolean)
    if (word === props.of) score.value = made?.check(word, words).score ?? null
  },
  { immediate: true },
)
const part = computed(() => ((score.value ?? 0) + 1) * 20)
const tone = computed(() => ((score.value ?? 0) < 2 ? 'exception' : 'success'))
</script>

<template>
  <div
    v-if="of && score !== null"
    class="strength small"
  >
    <el-progress
      :percentage="part"
      :status="tone"
      :stroke-width="4"
      :show-text="false"
      aria-hidden="true"
    />
    <span role="status">{{ SAYS[score] }}</span>
  </div>
</template>

<style scoped>
.strength {
  display: grid;
  grid-template-columns: 1fr max-content;
  gap: 8px;
  align-items: center;
}
</style>
