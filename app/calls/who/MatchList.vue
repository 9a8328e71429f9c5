<script setup lang="ts">
// Whom the words could mean, with why each fits; at the end somebody who is not known yet.
import type { Answer } from '~~/shared/api'
import { useSession } from '~/stores/session'

type Match = Answer<'matches'>['items'][number]
defineProps<{ query: string; matches: readonly Match[]; at: number }>()
const emit = defineEmits<{ choose: [match: Match]; new: [] }>()
const session = useSession()
</script>

<template>
  <ul
    id="matches"
    role="listbox"
    aria-label="Who it could be"
  >
    <li
      v-for="(m, i) in matches"
      :key="m.customerId"
      role="option"
      :aria-selected="i === at"
      :class="{ at: i === at }"
      @mousedown.prevent="emit('choose', m)"
    >
      <b>{{ m.name }}</b>{{ ' '
      }}<span
        v-if="m.prospect"
        class="chip"
        >prospect</span
      >{{ ' '
      }}<span
        v-if="m.stopWork"
        class="chip late"
        >stop work</span
      >{{ ' '
      }}<span
        v-if="m.late"
        class="late small"
        >owes {{ session.money(m.owed) }}, {{ m.late }} days late</span
      >{{ ' ' }}<br /><span class="quiet small"
        >{{ [m.phone, m.place].filter(Boolean).join(' · ')
        }}<template v-if="m.open"> · {{ m.open }} open</template></span
      >{{ ' ' }}<br /><span class="small why">by {{ m.why.join(', ') }}</span>
    </li>
    <li
      role="option"
      :aria-selected="at === matches.length"
      :class="{ at: at === matches.length }"
      @mousedown.prevent="emit('new')"
    >
      <b class="good">New customer “{{ query }}”</b>
    </li>
  </ul>
</template>

<style scoped>
ul {
  list-style: none;
  margin: -8px 0 0;
  padding: 0;
  border: 1px solid var(--rule-2);
  background: var(--sheet);
}
li {
  padding: 7px 10px;
  cursor: pointer;
}
li + li {
  border-top: 1px solid var(--rule);
}
li.at {
  background: var(--green-1);
}
.why {
  color: var(--green);
}
</style>
