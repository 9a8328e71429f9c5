<script setup lang="ts">
// What the server would rather not do, asked about before it is done.
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
    <button
      class="btn act"
      autofocus
      @click="emit('again')"
    >
      Place it all the same
    </button>
    <button
      class="btn"
      @click="emit('leave')"
    >
      Leave it
    </button>
  </div>
</template>
