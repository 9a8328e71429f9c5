<script setup lang="ts">
// My sign-in: another password, where I am signed in, and the tokens that programs use in my name.
import { computed, ref } from 'vue'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'
import SecondStep from '~/access/SecondStep.vue'
import TokenForm from '~/access/TokenForm.vue'
import ActButton from '~/base/ActButton.vue'
import Field from '~/base/Field.vue'
import PasswordStrength from '~/base/PasswordStrength.vue'
import TextInput from '~/base/TextInput.vue'
import DataTable from '~/base/DataTable.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import { useForm } from '~/base/useForm'

definePageMeta({ layout: false })
const session = useSession()
const layout = session.role === 'technician' ? 'field' : 'office'
const { data, problem, refresh } = useAnswer('mySessions')
const { busy, problem: failed, act } = useAct()
const NONE = { current: '', next: '', again: '' }
const word = useForm(NONE)
const said = ref('')
const differ = ref(false)
const change = () =>
  word.act(async () => {
    said.value = ''
    const { current, next, again } = word.values
    differ.value = next !== again
    if (differ.value) return
    const { ended } = await call('changePassword', { body: { current, next } })
    word.begin(NONE)
    said.value = `Your password is changed.${ended ? ` ${ended === 1 ? 'One other place was' : `${ended} other places were`} signed out.` : ''}`
    await refresh()
  })
const end = (id: string) =>
  act(async () => {
    await call('endMySession', { params: { session: id } })
    await refresh()
  })
const otherBrowsers = computed(
  () => (data.value?.items ?? []).filter((s) => s.kind === 'cookie' && !s.current).length,
)
const endOthers = () =>
  act(async () => {
    await call('endOtherSessions')
    await refresh()
  })
</script>

<template>
  <NuxtLayout :name="layout">
    <div class="me">
      <NuxtLink
        v-if="layout === 'field'"
        class="btn plain"
        to="/field"
        aria-label="Back to the day"
        >← Back to the day</NuxtLink
      >
      <h1>My sign-in</h1>
      <p class="quiet">{{ session.me?.person.name }}, {{ session.me?.person.email }}</p>

      <section class="sheet">
        <h2>Another password</h2>
        <Form
          :of="word"
          @submit="change"
        >
          <Field
            label="Current password"
            name="current"
            ><TextInput
              v-model="word.values.current"
              type="password"
              autocomplete="current-password"
          /></Field>
          <Field
            label="New password, twelve characters or more"
            name="next"
            ><TextInput
              v-model="word.values.next"
              type="password"
              autocomplete="new-password"
          /></Field>
          <PasswordStrength
            :of="word.values.next"
            :known="[session.me!.person.name, session.me!.person.email]"
          />
          <Field
            label="The new one again"
            :error="differ ? 'The two are not the same.' : ''"
            ><TextInput
              v-model="word.values.again"
              type="password"
              autocomplete="new-password"
          /></Field>
          <Notice />
          <p
            v-if="said"
            class="note"
            role="status"
          >
            {{ said }}
          </p>
          <ActButton
            primary
            submit
            :disabled="!word.values.current || !word.values.next"
          >
            Change my password
          </ActButton>
        </Form>
      </section>

      <section class="sheet">
        <h2>A second step</h2>
        <SecondStep />
      </section>

      <section class="sheet">
        <h2>Where I am signed in</h2>
        <p
          v-if="failed || problem"
          class="note bad"
          role="alert"
        >
          {{ (failed ?? problem)?.message }}
        </p>
        <DataTable
          v-if="data"
          :rows="data.items"
          :row-key="(s) => s.id"
          :columns="[
            { key: 'what', label: 'What' },
            { key: 'from', label: 'From', look: 'num', text: (s) => s.from || '–' },
            { key: 'since', label: 'Since', look: 'nowrap' },
            { key: 'lastSeen', label: 'Last seen', look: 'nowrap' },
            { key: 'ends', label: 'Ends', look: 'nowrap' },
            { key: 'act', right: true },
          ]"
          ><template #what="{ row: s }"
            >{{ s.kind === 'cookie' ? 'Browser' : `Token “${s.label}”`
            }}{{ s.readsOnly ? ', reads only' : '' }}
            <span
              v-if="s.current"
              class="chip good"
              >this one</span
            ></template
          >

          <template #since="{ row: s }"
            ><span class="said">since </span>{{ session.dayTime(s.createdAt) }}</template
          >
          <template #lastSeen="{ row: s }"
            ><span class="said">last seen </span>{{ session.dayTime(s.lastSeenAt) }}</template
          >
          <template #ends="{ row: s }"
            ><span class="said">until </span
            >{{ session.day(s.expiresAt.slice(0, 10), 'withYear') }}</template
          >
          <template #act="{ row: s }"
            ><ActButton
              v-if="!s.current"
              :disabled="busy"
              @click="end(s.id)"
            >
              {{ s.kind === 'cookie' ? 'Sign it out' : 'End it' }}
            </ActButton></template
          ></DataTable
        >
        <p
          v-else-if="!problem"
          class="empty"
          role="status"
        >
          Looking up…
        </p>
        <ActButton
          v-if="otherBrowsers > 1"
          :disabled="busy"
          @click="endOthers"
        >
          Sign out all other browsers
        </ActButton>
      </section>

      <section class="sheet">
        <h2>A token for a program</h2>
        <TokenForm @made="refresh" />
      </section>
    </div>
  </NuxtLayout>
</template>

<style scoped>
.me {
  padding: 20px;
  max-width: 860px;
  min-width: 0;
  display: flex;
  flex-direction: column;
  gap: 16px;
}
section {
  padding: 16px;
  min-width: 0;
  display: flex;
  flex-direction: column;
  gap: 12px;
}
section :deep(form) {
  max-width: 360px;
}
.said {
  display: none;
}
@media (max-width: 600px) {
  thead {
    display: none;
  }
  .said {
    display: inline;
  }
  .book tr {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 4px 12px;
    padding: 10px 0;
    border-bottom: 1px solid var(--rule);
  }
  .book td {
    border: 0;
    padding: 0;
  }
  .book td:first-child {
    flex-basis: 100%;
  }
}
</style>
