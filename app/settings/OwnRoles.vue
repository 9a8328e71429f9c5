<script setup lang="ts">
// Roles that the firm makes: made here, given more or less above, and to people under People.
import { computed, ref } from 'vue'
import ActButton from '~/base/ActButton.vue'
import DataTable from '~/base/DataTable.vue'
import Notice from '~/base/Notice.vue'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import type { Answer } from '~~/shared/api'
import RoleForm from './RoleForm.vue'

type Rights = Answer<'limits'>
type Role = Rights['roles'][number]
const props = defineProps<{ roles: readonly Role[]; may: boolean }>()
const emit = defineEmits<{ kept: [rights: Rights] }>()
const own = computed(() => props.roles.filter(({ role, base }) => role !== base))
const editing = ref<Role | 'new' | null>(null)
const { busy, problem, act } = useAct()
const drop = ({ role: code, name: shown }: Role) =>
  act(async () => emit('kept', await call('dropRole', { body: { code, shown } })))
</script>

<template>
  <h3>Roles of our own</h3>
  <p class="quiet small">
    Each begins as one of ours, and is given more or less than that one in the tables above.
  </p>
  <DataTable
    v-if="own.length"
    label="Roles of our own"
    :rows="own"
    :row-key="({ role }) => role"
    :columns="[
      { key: 'name', label: 'Called', text: ({ name }) => name },
      { key: 'base', label: 'Begins as', look: 'quiet', text: ({ base }) => base },
      ...(may ? [{ key: 'act', right: true }] : []),
    ]"
  >
    <template #act="{ row }">
      <ActButton
        :aria-label="`Call ${row.name} otherwise`"
        @click="editing = row"
        >Change</ActButton
      >{{ ' ' }}
      <ActButton
        quiet
        :disabled="busy"
        :aria-label="`Take the role ${row.name} away`"
        @click="drop(row)"
        >Take away</ActButton
      >
    </template>
  </DataTable>
  <Notice :of="problem" />
  <ActButton
    v-if="may"
    @click="editing = 'new'"
    >A further role</ActButton
  >
  <RoleForm
    v-if="editing"
    :of="editing === 'new' ? null : editing"
    @kept="emit('kept', $event)"
    @close="editing = null"
  />
</template>
