<script setup lang="ts">
// The outside services: what each does, where it is, whether it works, and what works without it.
import { reactive, ref } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'
import ConnectionForm from '~/connections/ConnectionForm.vue'
import { FROM, SERVICES, type Connection } from '~/connections/words'
import { call } from '~/lib/api'
import { SHOWS } from '~/lib/live'
import { useAct } from '~/lib/useAct'
import { useAnswer } from '~/lib/useAnswer'
import type { Answer } from '~~/shared/api'

definePageMeta({ layout: 'office', may: 'connections.change' })
const { data, problem, refresh } = useAnswer('connections', undefined, SHOWS.setUp)
const editing = ref<Connection | null>(null)
const { busy, problem: failed, act } = useAct()
type Tried = Answer<'tryConnection'>
/** What was found when one was tried, until it is changed. */
const tried = reactive(new Map<Connection['kind'], Tried>())
const tryIt = ({ kind }: Connection) =>
  act(async () => {
    tried.delete(kind)
    tried.set(kind, await call('tryConnection', { params: { kind } }))
  })
function kept(now: Answer<'connections'>) {
  data.value = now
  tried.clear()
}
</script>

<template>
  <section
    v-if="data"
    class="page stack"
  >
    <h1>Connections</h1>
    <p class="quiet">
      Nothing is needed of these to begin with. Each can be named here, or where the server was set
      up; what is named here comes first.
    </p>
    <Notice :of="problem ?? failed" />
    <article
      v-for="one in data.items"
      :key="one.kind"
      class="sheet box"
      :aria-label="SERVICES[one.kind].name"
    >
      <div class="row">
        <h2 class="grow">{{ SERVICES[one.kind].name }}</h2>
        <ActButton
          :disabled="busy"
          :aria-label="`Try ${SERVICES[one.kind].name}`"
          @click="tryIt(one)"
          >Try it</ActButton
        >
        <ActButton
          :aria-label="`Change ${SERVICES[one.kind].name}`"
          @click="editing = one"
          >Change</ActButton
        >
      </div>
      <p>{{ SERVICES[one.kind].does }}</p>
      <p>
        <b>{{ FROM[one.from] }}</b>{{ ' '
        }}<span
          v-if="one.address"
          class="num"
          >{{ one.address }}</span
        >
        <span v-if="one.user"> as {{ one.user }}</span
        ><template v-if="one.hasSecret">, with a secret</template
        ><span
          v-if="one.from !== 'here'"
          class="quiet"
        >
          ({{ SERVICES[one.kind].setting }})</span
        >
      </p>
      <p v-if="one.kind === 'positions'">
        Devices send to <span class="num">{{ data.positionsTo }}</span>
      </p>
      <p
        v-if="tried.get(one.kind)"
        class="note"
        :class="{ bad: !tried.get(one.kind)!.works }"
        role="status"
      >
        {{ tried.get(one.kind)!.said }}
      </p>
      <p class="quiet small">Without it: {{ SERVICES[one.kind].without }}.</p>
    </article>
    <p class="quiet small">
      The ledger goes to another program as a file, or by itself each day:
      <NuxtLink to="/in-and-out">Everything in and out</NuxtLink>.
    </p>
    <ConnectionForm
      v-if="editing"
      :of="editing"
      @kept="kept"
      @close="editing = null"
    />
  </section>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
  />
</template>

<style scoped>
.box {
  padding: 12px 16px;
  display: flex;
  flex-direction: column;
  gap: 6px;
}
h2 {
  margin: 0;
}
p {
  margin: 0;
}
</style>
