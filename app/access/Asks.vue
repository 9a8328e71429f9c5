<script setup lang="ts">
// What waits for another person's yes on a work order or a quote: said here in a tap by whoever may, taken back by whoever asked.
import type { Answer } from '~~/shared/api'
import ActButton from '~/base/ActButton.vue'
import Notice from '~/base/Notice.vue'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useSession } from '~/stores/session'

type Ask = Answer<'workOrder'>['asks'][number]
defineProps<{ asks: readonly Ask[] }>()
const emit = defineEmits<{ answered: [] }>()
const session = useSession()
const { busy, problem, act } = useAct()
const answer = ({ id }: Ask, yes: boolean) =>
  act(async () => {
    await call('answerAsk', { params: { id }, body: { yes } })
    emit('answered')
  })
</script>

<template>
  <div
    v-for="ask in asks"
    :key="ask.id"
    class="note warn row no-print"
  >
    <span class="grow"
      ><b>{{ ask.askedBy }} asks for a yes:</b> {{ ask.what }}: {{ ask.reason }}</span
    >
    <ActButton
      v-if="ask.mine"
      :disabled="busy"
      @click="answer(ask, false)"
      >Not any more</ActButton
    >
    <template v-else-if="session.may('limits.answer')">
      <ActButton
        primary
        :disabled="busy"
        @click="answer(ask, true)"
        >Yes</ActButton
      ><ActButton
        :disabled="busy"
        @click="answer(ask, false)"
        >No</ActButton
      >
    </template>
  </div>
  <Notice :of="problem" />
</template>
