<script setup lang="ts">
// The index down the right edge: what this person may open, and who they are; in a narrow window across the top.
import { computed } from 'vue'
import { INDEX } from '~/lib/officeIndex'
import { useSignOut } from '~/lib/useSignOut'
import { useSession } from '~/stores/session'
import Notice from '~/base/Notice.vue'

defineProps<{ /** how many quotes wait */ quotes: number }>()
const emit = defineEmits<{ help: [] }>()
const session = useSession()
const route = useRoute()
/** What this person may open of it; a group that holds nothing for them is not there. */
const index = computed(() =>
  INDEX.map(({ group, links }) => ({
    group,
    links: links.filter(([, , may]) => session.may(may)),
  })).filter(({ links }) => links.length),
)
const { signOut, problem } = useSignOut()
</script>

<template>
  <nav
    class="index no-print"
    aria-label="Reference books"
  >
    <template
      v-for="{ group, links } in index"
      :key="group"
    >
      <h2>{{ group }}</h2>
      <NuxtLink
        v-for="[to, name] in links"
        :key="to"
        :to="to"
        :class="{ here: route.path.startsWith(to) }"
        >{{ name
        }}<b
          v-if="to === '/quotes' && quotes"
          class="num"
          title="waiting"
          >{{ quotes }}</b
        ></NuxtLink
      >
    </template>
    <h2 class="me">{{ session.me?.person.name.split(' ')[0] }}</h2>
    <NuxtLink
      to="/me"
      :class="{ here: route.path === '/me' }"
      >My sign-in</NuxtLink
    >
    <button
      class="who"
      @click="emit('help')"
    >
      Help <kbd>?</kbd>
    </button>
    <button
      class="who"
      :title="`${session.me?.person.name}, ${session.me?.person.roleName}`"
      @click="signOut"
    >
      Sign out
    </button>
    <Notice :of="problem" />
  </nav>
</template>

<style scoped>
.index {
  background: #e8eeea;
  border-left: 1px solid var(--rule-2);
  display: flex;
  flex-direction: column;
  padding: 4px 0 10px;
  overflow-y: auto;
}
.index h2 {
  margin: 10px 10px 3px;
  font-size: 0.75rem;
  font-weight: 600;
  color: var(--ink-2);
}
.index a,
.who {
  display: flex;
  justify-content: space-between;
  padding: 5px 8px 5px 10px;
  font-size: 0.78125rem;
  text-align: left;
  text-decoration: none;
  color: var(--ink);
  border: 0;
  background: none;
  cursor: pointer;
}
.index a:hover,
.who:hover {
  background: var(--paper);
}
.index a.here {
  background: var(--sheet);
  color: var(--green);
  font-weight: 650;
  box-shadow: inset 3px 0 var(--green);
}
.index .me {
  margin-top: auto;
}
@media (max-width: 1000px) {
  .index {
    grid-row: 2;
    flex-direction: row;
    align-items: center;
    padding: 2px 6px;
    overflow: auto hidden;
    border-left: 0;
    border-bottom: 1px solid var(--rule-2);
  }
  .index h2 {
    display: none;
  }
  .index a,
  .who {
    white-space: nowrap;
    gap: 6px;
  }
  .index a.here {
    box-shadow: inset 0 -3px var(--green);
  }
}
</style>
