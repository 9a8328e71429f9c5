<script setup lang="ts">
import { ref } from 'vue'
import LedgerList from '~/components/base/LedgerList.vue'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useFilter } from '~/lib/useFilter'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import PressOne from '~/base/PressOne.vue'
import Notice from '~/base/Notice.vue'

definePageMeta({ layout: 'office' })
const session = useSession()
const open = ref('')
const state = useFilter<'' | 'failed' | 'waiting'>('state')
const load = (q: string, after?: string) =>
  call('messages', { query: { q, after, state: state.value || undefined } })
const { busy, problem, act } = useAct()
const letBe = (id: string) => act(() => call('letMessageBe', { params: { id } }))
const retry = (id: string) => act(() => call('retryMessage', { params: { id } }))
</script>

<template>
  <LedgerList
    title="Mail"
    hint="What went out, and whether it arrived and was opened."
    filter="Address, subject, customer"
    :load="load"
    :watch-key="state"
    :empty="state ? 'There is none of these.' : 'Nothing was sent yet.'"
    picks
    :columns="[
      {
        key: 'when',
        label: 'When',
        look: 'nowrap',
        text: (item) => session.dayTime(item.createdAt),
      },
      { key: 'to', label: 'To', file: (item) => item.to },
      { key: 'subject', label: 'Subject', file: (item) => item.subject || item.body.slice(0, 90) },
      { key: 'state', label: 'State', file: (item) => item.state },
      { key: 'act', right: true },
    ]"
    @pick="(item) => (open = open === item.id ? '' : item.id)"
  >
    <template #acts
      ><PressOne
        v-model="state"
        :options="
          [
            ['', 'All'],
            ['failed', 'Failed'],
            ['waiting', 'Waiting'],
          ] as const
        "
    /></template>
    <template #note><Notice :of="problem" /></template>
    <template #to="{ row: item }"
      >{{ item.to }}<br /><span class="quiet small">{{ item.customer }}</span></template
    >
    <template #subject="{ row: item }"
      >{{ item.subject || item.body.slice(0, 90) }}<br /><span class="quiet small"
        >{{ item.channel === 'mail' ? '' : `${item.channel} · `
        }}{{ item.kind.replaceAll('_', ' ').replace('onWay', 'on the way')
        }}{{ item.attachment ? ` · ${item.attachment}` : '' }}</span
      >
      <pre v-if="open === item.id">{{ item.body }}</pre>
    </template>
    <template #state="{ row: item }"
      ><span
        class="chip"
        :class="{
          good: item.state === 'opened',
          late: item.state === 'failed',
          soon: item.state === 'waiting',
        }"
        >{{ item.state.replace('_', ' ') }}</span
      ><br /><span class="small quiet">{{
        item.error || (item.openedAt ? session.dayTime(item.openedAt) : '')
      }}</span></template
    >
    <template #act="{ row: item }"
      ><ActButton
        v-if="item.state === 'failed' && session.may('messages.retry')"
        :disabled="busy"
        @click.stop="retry(item.id)"
      >
        Try again
      </ActButton>
      <ActButton
        v-if="item.state === 'failed' && session.may('messages.retry')"
        :disabled="busy"
        @click.stop="letBe(item.id)"
      >
        Let it be
      </ActButton>
      <a
        v-if="item.channel === 'letter' && session.may('collections.work')"
        class="btn"
        :href="`/api/v1/messages/${item.id}/letter.pdf`"
        target="_blank"
        @click.stop
        >Print</a
      ></template
    >
  </LedgerList>
</template>

<style scoped>
pre {
  white-space: pre-wrap;
  font: 0.8125rem/1.4 var(--text);
  margin: 8px 0 0;
  padding: 10px;
  background: var(--paper);
  border: 1px solid var(--rule);
}
</style>
