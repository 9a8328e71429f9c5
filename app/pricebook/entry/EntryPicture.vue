<script setup lang="ts">
// The picture of an entry, which whoever owns the book can put there, exchange and take away.
import ActButton from '~/base/ActButton.vue'
import FileInput from '~/base/FileInput.vue'
import type { Entry } from './entryForm'

defineProps<{ entry: Entry; owns: boolean; busy: boolean }>()
const emit = defineEmits<{ choose: [files: File[]]; remove: [] }>()
</script>

<template>
  <div
    v-if="entry.pictureId || owns"
    class="sheet box"
  >
    <img
      v-if="entry.pictureId"
      :src="`/api/v1/price-pictures/${entry.pictureId}`"
      :alt="`Picture of ${entry.name}`"
    />
    <div
      v-if="owns"
      class="row"
    >
      <FileInput
        :label="entry.pictureId ? 'Another picture' : 'Add a picture'"
        accept="image/png,image/jpeg,image/webp"
        :disabled="busy"
        @choose="emit('choose', $event)"
      />
      <ActButton
        v-if="entry.pictureId"
        quiet
        :disabled="busy"
        @click="emit('remove')"
      >
        Take it away
      </ActButton>
    </div>
  </div>
</template>

<style scoped>
img {
  width: 100%;
  max-height: 200px;
  object-fit: contain;
}
</style>
