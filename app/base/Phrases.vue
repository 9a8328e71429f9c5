<script setup lang="ts">
// What is often written here, one press each: instead of what stands there, or behind it.
import { withPhrase, type PhraseListName } from '~~/core/settings/phrases'
import { useSession } from '~/stores/session'
import ActButton from './ActButton.vue'

const props = defineProps<{
  of: PhraseListName
  /** it goes on behind what was written */
  behind?: boolean
}>()
const text = defineModel<string>({ required: true })
const session = useSession()
const write = (phrase: string) =>
  (text.value = props.behind ? withPhrase(text.value, phrase) : phrase)
</script>

<template>
  <div
    v-if="session.phrases(of).length"
    class="phrases"
    role="group"
    aria-label="Often written here"
  >
    <ActButton
      v-for="phrase in session.phrases(of)"
      :key="phrase"
      quiet
      class="small"
      @click="write(phrase)"
      >{{ phrase }}</ActButton
    >
  </div>
</template>

<style scoped>
.phrases {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 4px;
}
</style>
