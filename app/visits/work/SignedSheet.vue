<script setup lang="ts">
// A paper as its customer signed it, with the hand beneath.
import Dialog from '~/base/Dialog.vue'
import PaperSheet from '~/base/PaperSheet.vue'
import Pending from '~/base/Pending.vue'
import { useAnswer } from '~/lib/useAnswer'

const props = defineProps<{ id: string }>()
const emit = defineEmits<{ close: [] }>()
const { data, problem, refresh } = useAnswer('signedPaper', () => ({ params: { id: props.id } }))
</script>

<template>
  <Dialog
    title="What was signed"
    width="760"
    @close="emit('close')"
  >
    <template v-if="data">
      <PaperSheet :paper="data" />
      <img
        class="hand"
        :src="`/api/v1/signatures/${id}`"
        alt="The signature"
      />
    </template>
    <Pending
      v-else
      :problem="problem"
      :again="refresh"
      says="Opening what was signed…"
    />
  </Dialog>
</template>

<style scoped>
.hand {
  display: block;
  height: 90px;
  max-width: 100%;
  margin-top: 8px;
  object-fit: contain;
}
</style>
