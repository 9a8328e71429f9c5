<script setup lang="ts">
// Pictures and papers that come with a call.
import type { Answer } from '~~/shared/api'
import { call, newId } from '~/lib/api'
import { dataUrl } from '~/lib/dataUrl'
import { useAct } from '~/lib/useAct'
import FileInput from '~/base/FileInput.vue'

const props = defineProps<{ callId: string }>()
const files = defineModel<Answer<'call'>['files']>({ required: true })
const { problem: failed, act, busy } = useAct()
const addPictures = (chosen: File[]) =>
  act(async () => {
    for (const file of chosen) {
      const data = await dataUrl(file)
      const body = { id: newId(), callId: props.callId, name: file.name, data }
      const { id } = await call('addFile', { body })
      files.value = [...files.value, { id, name: file.name, mime: file.type }]
    }
  })
</script>

<template>
  <div class="row wrap">
    <a
      v-for="f in files"
      :key="f.id"
      class="picture"
      :href="`/api/v1/files/${f.id}`"
      target="_blank"
      :title="f.name"
      ><img
        v-if="f.mime.startsWith('image/')"
        :src="`/api/v1/files/${f.id}`"
        :alt="f.name"
      /><span v-else>{{ f.name }}</span></a
    >
    <FileInput
      :label="busy ? 'Keeping…' : 'Add pictures'"
      accept="image/png,image/jpeg,image/webp,application/pdf"
      multiple
      :disabled="busy"
      @choose="addPictures"
    />
  </div>
  <p
    v-if="failed"
    class="wrong"
    role="alert"
  >
    {{ failed.message }}
  </p>
</template>

<style scoped>
.wrap {
  flex-wrap: wrap;
}
.picture img {
  width: 52px;
  height: 52px;
  object-fit: cover;
  border: 1px solid var(--rule-2);
  border-radius: 4px;
}
</style>
