<script setup lang="ts">
// Calls and requests that wait, the most pressing first, each with why.
import { sayCallAbout } from '~~/core/calls/callAbout'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'
import DataTable from '~/base/DataTable.vue'
import Notice from '~/base/Notice.vue'
import EndedCalls from '~/calls/EndedCalls.vue'

definePageMeta({ layout: 'office' })
const session = useSession()
const { data, problem } = useAnswer('calls', undefined, SHOWS.calls)
const may = computed(() => session.may('calls.take'))
</script>

<template>
  <section class="page">
    <div class="row">
      <h1 class="grow">
        Calls <span class="quiet num">{{ data?.items.length ?? '' }}</span>
      </h1>
      <NuxtLink
        class="btn plain"
        to="/calls/counted"
        >What came of them</NuxtLink
      >
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
    <Notice :of="problem" />
    <DataTable
      v-if="data?.items.length"
      :rows="data.items"
      :row-key="(c) => c.id"
      :columns="[
        { key: 'call', label: 'Call' },
        { key: 'whyItWaits', label: 'Why it waits', tone: (c) => ({ late: c.late }) },
        { key: 'taken', label: 'Taken', look: 'quiet nowrap' },
        { key: 'act', right: true },
      ]"
      ><template #call="{ row: c }"
        ><b>{{ c.summary }}</b
        >{{ ' '
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
        ><br /><span class="quiet small">{{
          [c.draft.about === 'new_work' ? '' : sayCallAbout(c.draft.about), c.draft.problem]
            .filter(Boolean)
            .join(': ')
        }}</span></template
      >
      <template #whyItWaits="{ row: c }"
        >{{ c.waiting
        }}<template v-if="c.assignedTo"
          ><br /><span class="quiet small">{{ c.assignedTo }} rings</span></template
        ></template
      >
      <template #taken="{ row: c }"
        >{{ session.dayTime(c.createdAt) }}<br /><span class="small">{{
          c.takenBy || c.draft.phone || c.draft.email
        }}</span></template
      >
      <template #act="{ row: c }"
        ><NuxtLink
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
        ></template
      ></DataTable
    >
    <p
      v-else-if="data"
      class="empty sheet"
    >
      No call waits. Press <kbd>N</kbd> when the telephone rings.
    </p>
    <EndedCalls v-if="may" />
  </section>
</template>
