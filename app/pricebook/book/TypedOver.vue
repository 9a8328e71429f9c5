<script setup lang="ts">
// Prices that were typed over and are not kept yet.
import ActButton from '~/base/ActButton.vue'
import { usePriceEdits } from '~/stores/priceEdits'

defineProps<{ busy: boolean }>()
const emit = defineEmits<{ look: []; wrong: []; forget: [] }>()
const edits = usePriceEdits()
</script>

<template>
  <div
    v-if="edits.ids.length"
    class="row note warn"
    role="status"
  >
    <span class="grow"
      ><b>{{ edits.ids.length }}</b> {{ edits.ids.length === 1 ? 'entry is' : 'entries are' }} typed
      over and not kept yet.<span
        v-if="edits.wrong.length"
        class="late"
      >
        “{{ edits.wrong[0]!.text }}” is no amount<template v-if="edits.wrong.length > 1"
          >, and {{ edits.wrong.length - 1 }} more</template
        >.
        <ActButton
          quiet
          class="small"
          @click="emit('wrong')"
        >
          Show it
        </ActButton></span
      ></span
    ><ActButton
      :disabled="!edits.past.length"
      @click="edits.undo()"
    >
      Undo typing</ActButton
    ><ActButton
      @click="
        () => {
          edits.step({})
          emit('forget')
        }
      "
    >
      Forget them</ActButton
    ><ActButton
      primary
      :disabled="busy || edits.wrong.length > 0"
      @click="emit('look')"
    >
      Look at {{ edits.ids.length }} {{ edits.ids.length === 1 ? 'change' : 'changes' }}
      <kbd>Ctrl ↵</kbd>
    </ActButton>
  </div>
</template>
