<script setup lang="ts">
// What is often written here, one press each: what was typed stays before it, another phrase only where several may stand.
import { hasWord, withPhrase, withWord, type PhraseListName } from '~~/core/settings/phrases'
import { useSession } from '~/stores/session'
import ActButton from './ActButton.vue'

const props = defineProps<{
  of: PhraseListName
  /** several may stand behind each other */
  several?: boolean
  /** they are words with commas between, each once: a second press takes one out again */
  listed?: boolean
}>()
const text = defineModel<string>({ required: true })
const session = useSession()
const write = (phrase: string) => {
  text.value = props.listed
    ? withWord(text.value, phrase)
    : withPhrase(text.value, phrase, props.several ? [] : session.phrases(props.of))
}
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
      class="small"
      :on="listed && hasWord(text, phrase)"
      :aria-pressed="listed ? hasWord(text, phrase) : undefined"
      @click="write(phrase)"
      >{{ phrase }}</ActButton
    >
  </div>
</template>

<style scoped>
.phrases {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.phrases .el-button.btn.btn {
  font-weight: 400;
  border-style: dashed;
}
</style>
