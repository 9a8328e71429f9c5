<script setup lang="ts">
// The customer's private link to an invoice: how long it holds; withdrawn, or made anew.
import ActButton from '~/base/ActButton.vue'
import { useSession } from '~/stores/session'

defineProps<{ until: string | null; busy: boolean }>()
const emit = defineEmits<{ change: [renew: boolean] }>()
const session = useSession()
</script>

<template>
  <details class="small">
    <summary>
      {{
        until
          ? `The customer’s link holds until ${session.day(until.slice(0, 10), 'withYear')}`
          : 'The customer’s link was withdrawn'
      }}
    </summary>
    <p class="quiet">
      Whoever has the link reads this invoice. Another link ends this one; send the invoice again
      then.
    </p>
    <div class="row">
      <ActButton
        v-if="until"
        :disabled="busy"
        @click="emit('change', false)"
      >
        Withdraw it
      </ActButton>
      <ActButton
        :disabled="busy"
        @click="emit('change', true)"
      >
        Make another link
      </ActButton>
    </div>
  </details>
</template>
