<script setup lang="ts">
// What the server would rather not do, asked about before it is done.
import ActButton from '~/base/ActButton.vue'

defineProps<{ text: string }>()
const emit = defineEmits<{ again: []; leave: [] }>()
</script>

<template>
  <div
    class="note warn row"
    role="alertdialog"
    aria-label="Before it is saved"
  >
    <span class="grow"><b>Not saved yet.</b> {{ text }}</span>
    <ActButton
      primary
      autofocus
      @click="emit('again')"
    >
      Place it all the same
    </ActButton>
    <ActButton @click="emit('leave')"> Leave it </ActButton>
  </div>
</template>
