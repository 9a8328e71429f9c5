<script setup lang="ts">
// The one question that may stand over everything: what goes on, or stay.
import ActButton from './ActButton.vue'
import Dialog from './Dialog.vue'
import { asked } from './leaving'
</script>

<template>
  <Dialog
    v-if="asked"
    apart
    width="380"
    :title="asked.title"
    @close="asked?.answer(false)"
  >
    <p>{{ asked.text }}</p>
    <template #footer>
      <div class="row end">
        <ActButton @click="asked.answer(true)">{{ asked.yes }}</ActButton>
        <ActButton
          primary
          @click="asked.answer(false)"
        >
          {{ asked.no }}
        </ActButton>
      </div>
    </template>
  </Dialog>
</template>

<style scoped>
.end {
  justify-content: flex-end;
}
</style>
