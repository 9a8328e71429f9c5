<script setup lang="ts">
// What to know of who is calling: what matters, what they owe, what runs and what was done.
import type { Answer } from '~~/shared/api'
import { useSession } from '~/stores/session'

defineProps<{ chosen: Answer<'caller'> }>()
const session = useSession()
</script>

<template>
  <ul
    v-if="chosen.notes.length"
    class="notes"
    aria-label="What matters"
  >
    <li
      v-for="n in chosen.notes"
      :key="n"
    >
      {{ n }}
    </li>
  </ul>
  <dl>
    <div>
      <dt>Owes</dt>
      <dd
        class="num"
        :class="{ late: chosen.late }"
      >
        {{ session.money(chosen.owed)
        }}<template v-if="Number(chosen.credits.amount)"
          >, a credit of {{ session.money(chosen.credits) }} taken off</template
        ><template v-if="chosen.late"> · {{ chosen.late }} days late</template>
      </dd>
    </div>
    <div
      v-for="a in chosen.agreements"
      :key="a.id"
    >
      <dt>{{ a.plan }}</dt>
      <dd :class="{ soon: a.state !== 'in force' }">{{ a.state }}</dd>
    </div>
    <div v-if="chosen.exempt">
      <dt>Tax</dt>
      <dd>{{ chosen.exempt }}</dd>
    </div>
    <div
      v-for="q in chosen.quotes"
      :key="q.id"
    >
      <dt>
        <NuxtLink
          :to="`/quotes/${q.id}`"
          class="num"
          >{{ q.number }}</NuxtLink
        >
      </dt>
      <dd>{{ q.title }} · {{ q.waiting }} · {{ session.money(q.total) }}</dd>
    </div>
    <div
      v-for="w in chosen.openWork"
      :key="w.id"
    >
      <dt>
        <NuxtLink
          :to="`/work/${w.id}`"
          class="num"
          >{{ w.number }}</NuxtLink
        >
      </dt>
      <dd>{{ w.title }} · {{ session.state(w.state) }}</dd>
    </div>
    <div
      v-for="w in chosen.lastWork.slice(0, 3)"
      :key="`l${w.id}`"
    >
      <dt class="nowrap">{{ session.day(w.on) }}</dt>
      <dd>
        <NuxtLink :to="`/work/${w.id}`">{{ w.title }}</NuxtLink>
      </dd>
    </div>
  </dl>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  border: 1px solid var(--rule-2);
}
.notes {
  margin: 0;
  background: var(--marigold-1);
  border-color: #e6cf9a;
  border-radius: 4px;
}
li + li {
  border-top: 1px solid #efdfb9;
}
.notes li {
  padding: 5px 10px;
}
dl {
  margin: 0;
}
dl div {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  padding: 6px 0;
  border-bottom: 1px solid var(--rule);
}
dt {
  color: var(--ink-2);
  flex: none;
}
dd {
  margin: 0;
  text-align: right;
}
dd.num {
  white-space: normal;
}
</style>
