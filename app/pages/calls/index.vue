<script setup lang="ts">
// Calls and requests that wait, the most pressing first, each with why.
import { call } from '~/lib/api'
import { SHOWS } from '~/lib/live'
import { useLoad } from '~/lib/useLoad'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office' })
const session = useSession()
const { data, problem } = useLoad(() => call('calls'), 0, SHOWS.calls)
const may = computed(() => ['owner', 'office', 'dispatch'].includes(session.role))
</script>

<template>
  <section class="page">
    <div class="row">
      <h1 class="grow">
        Calls <span class="quiet num">{{ data?.items.length ?? '' }}</span>
      </h1>
      <NuxtLink
        v-if="may"
        class="btn"
        :to="{ path: '/calls/new', query: { hand: 1 } }"
        >Enter a request</NuxtLink
      ><a
        class="btn"
        href="/request"
        target="_blank"
        >The request form</a
      >
    </div>
    <p class="quiet">
      Half-filled calls, requests from the web page and promised call-backs, the most pressing
      first.
    </p>
    <p
      v-if="problem"
      class="note bad"
      role="alert"
    >
      {{ problem.message }}
    </p>
    <table
      v-if="data?.items.length"
      class="book"
    >
      <thead>
        <tr>
          <th>Call</th>
          <th>Why it waits</th>
          <th>Taken</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="c in data.items"
          :key="c.id"
        >
          <td>
            <b>{{ c.summary }}</b>{{ ' '
            }}<span
              v-if="c.origin === 'form'"
              class="chip soon"
              >web page</span
            ><span
              v-else-if="c.origin === 'hand'"
              class="chip"
              >request</span
            >{{ ' '
            }}<span
              v-if="c.files.length"
              class="chip"
              >{{ c.files.length === 1 ? '1 picture' : `${c.files.length} pictures` }}</span
            ><br /><span class="quiet small">{{ c.draft.problem }}</span>
          </td>
          <td :class="{ late: c.late }">
            {{ c.waiting
            }}<template v-if="c.assignedTo"
              ><br /><span class="quiet small">{{ c.assignedTo }} rings</span></template
            >
          </td>
          <td class="quiet nowrap">
            {{ session.dayTime(c.createdAt) }}<br /><span class="small">{{
              c.takenBy || c.draft.phone || c.draft.email
            }}</span>
          </td>
          <td class="right">
            <NuxtLink
              v-if="may"
              class="btn"
              :to="`/calls/${c.id}`"
              >{{
                c.state === 'put_off'
                  ? 'Call back'
                  : c.origin === 'form' && !c.draft.customerId
                    ? 'Answer'
                    : 'Go on'
              }}</NuxtLink
            >
          </td>
        </tr>
      </tbody>
    </table>
    <p
      v-else-if="data"
      class="empty sheet"
    >
      No call waits. Press <kbd>N</kbd> when the telephone rings.
    </p>
  </section>
</template>

<style scoped>
.page {
  padding: 18px 20px;
  display: flex;
  flex-direction: column;
  gap: 12px;
}
</style>
