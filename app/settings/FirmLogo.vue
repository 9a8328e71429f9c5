<script setup lang="ts">
// The picture above the name on papers: chosen, shown as it is kept, taken away.
import ActButton from '~/base/ActButton.vue'
import FileInput from '~/base/FileInput.vue'
import Notice from '~/base/Notice.vue'
import { call } from '~/lib/api'
import { dataUrl } from '~/lib/dataUrl'
import { useAct } from '~/lib/useAct'
import type { Answer } from '~~/shared/api'

const props = defineProps<{ of: Answer<'firm'> }>()
const emit = defineEmits<{ kept: [firm: Answer<'firm'>] }>()
const { busy, problem, act } = useAct()
const send = async (data: string) =>
  emit('kept', await call('keepLogo', { body: { version: props.of.version, data } }))
const choose = ([file]: File[]) => file && act(async () => send(await dataUrl(file)))
</script>

<template>
  <div class="row">
    <img
      v-if="of.logoId"
      :src="`/api/v1/logos/${of.logoId}`"
      alt="The logo on our papers"
    />
    <FileInput
      :label="of.logoId ? 'Another logo' : 'Choose a logo'"
      accept="image/png,image/jpeg,image/webp"
      :disabled="busy"
      @choose="choose"
    />
    <ActButton
      v-if="of.logoId"
      :busy="busy"
      @click="act(() => send(''))"
      >No logo</ActButton
    >
  </div>
  <Notice :of="problem" />
</template>

<style scoped>
img {
  max-width: 180px;
  max-height: 60px;
}
</style>
