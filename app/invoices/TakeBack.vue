<script setup lang="ts">
// Takes back the payment that it was opened for, for what it was: back from the bank, or entered wrongly.
import { ref } from 'vue'
import type { Money } from '~~/core/money/formatMinor'
import { BACK_REASONS, backReasonsOf, type Method } from '~~/core/payments/takingBack'
import Radio from '~/base/Radio.vue'
import ReasonDialog from '~/base/ReasonDialog.vue'
import { call } from '~/lib/api'
import { useSession } from '~/stores/session'

const props = defineProps<{
  payment: { id: string; number: string; method: string; amount: Money }
}>()
const emit = defineEmits<{ done: []; close: [] }>()
const session = useSession()
const ways = backReasonsOf(props.payment.method as Method)
const why = ref(ways[0]!)
async function takeBack(reason: string) {
  await call('takeBack', { params: { id: props.payment.id }, body: { why: why.value, reason } })
  emit('done')
}
</script>

<template>
  <ReasonDialog
    :title="`Take back ${payment.number}`"
    :label="BACK_REASONS[why].why"
    name="reason"
    phrases="taken_back"
    act="Take the payment back"
    :send="takeBack"
    @close="emit('close')"
  >
    <p>
      The payment of <b class="num">{{ session.money(payment.amount) }}</b> by {{ payment.method }}
      is reversed in the books, and what it paid is open again.
    </p>
    <div
      role="radiogroup"
      aria-label="Why"
      class="ways"
    >
      <Radio
        v-for="way in ways"
        :key="way"
        v-model="why"
        name="why"
        :value="way"
        >{{ BACK_REASONS[way].asks }}</Radio
      >
    </div>
  </ReasonDialog>
</template>

<style scoped>
.ways {
  display: flex;
  flex-direction: column;
}
</style>
