<script setup lang="ts">
// What each role may do, and how far it may go alone; over it another person's yes is asked for.
import type { Column } from '~/base/columns'
import { canBeGiven, GRANTABLE, type Grantable } from '~~/core/access/grantable'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import DataTable from '~/base/DataTable.vue'
import CountInput from '~/base/CountInput.vue'
import Field from '~/base/Field.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'
import { alike } from '~/base/threeWay'
import { useForm } from '~/base/useForm'
import { call } from '~/lib/api'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import { computed, watch } from 'vue'
import { useSession } from '~/stores/session'
import type { Answer } from '~~/shared/api'
import OwnRoles from './OwnRoles.vue'

type Rights = Answer<'limits'>
const session = useSession()
const { data, problem, refresh } = useAnswer('limits', undefined, SHOWS.setUp)
/** Roles besides the owner, ours and the firm's own, as columns. */
const others = computed(() => data.value?.roles.filter(({ base }) => base !== 'owner') ?? [])
/** A name in a form has no dot in it. */
const keyOf = (permission: Grantable) => permission.replace('.', '/')
/** Box by box: what somebody else ticks meanwhile is followed where nobody ticked it here. */
const asTicked = ({ roles, given }: Rights) => ({
  roles: Object.fromEntries(roles.map(({ name: _, base: _of, ...role }) => [role.role, role])),
  given: Object.fromEntries(
    given.map(({ permission, roles: to }) => [
      keyOf(permission),
      Object.fromEntries(roles.map(({ role }) => [role, to.includes(role)])),
    ]),
  ),
})
const form = useForm(asTicked({ roles: [], given: [] }))
watch(data, (now) => now && form.follow(asTicked(now)), { immediate: true })
const mine = computed(() => session.may('limits.change'))
/** What may be given, as the server says. */
const acts = computed(() => data.value?.given.map(({ permission }) => permission) ?? [])
const toRoles = (permission: Grantable) =>
  others.value.map(({ role }) => role).filter((role) => form.values.given[keyOf(permission)]![role])
/** What was changed is sent alone: somebody else may have changed the rest. */
const keep = () =>
  form.send(async () => {
    const was = asTicked(data.value!)
    const { roles, given } = form.values
    const body = {
      roles: Object.values(roles).filter((role) => !alike(role, was.roles[role.role])),
      given: acts.value
        .filter((name) => !alike(given[keyOf(name)], was.given[keyOf(name)]))
        .map((permission) => ({ permission, roles: toRoles(permission) })),
    }
    data.value = await call('keepLimits', { body })
  })
/** People are given them on another screen, which knows them from the session. */
async function taken(rights: Rights) {
  data.value = rights
  await session.again()
}
const wordsOf = (permission: Grantable) => GRANTABLE[permission].words
const columns = computed((): Column<Grantable>[] => [
  { key: 'act', label: 'besides the owner', text: wordsOf },
  ...others.value.map(({ role, name }) => ({ key: role, label: name, width: 88 })),
])
const nameOf = (key: string) => data.value?.roles.find(({ role }) => role === key)?.name ?? key
</script>

<template>
  <h2 id="rights">What each may do</h2>
  <Form
    v-if="data"
    :of="form"
    @submit="keep"
  >
    <DataTable
      label="What each role may do besides the owner"
      :rows="acts"
      :columns="columns"
      :row-key="(act) => act"
    >
      <template
        v-for="{ role, name, base } in others"
        :key="role"
        #[role]="{ row }"
      >
        <Check
          v-if="canBeGiven(row, base)"
          v-model="form.values.given[keyOf(row)]![role]"
          :disabled="!mine"
          :label="`${name}: ${wordsOf(row)}`"
        />
      </template>
    </DataTable>
    <h3>How far each may go alone</h3>
    <p class="quiet small">
      Per cent below the book’s price, the customer’s level or what was agreed, whichever is more.
      Who wants to go further asks for another person’s yes on the spot.
    </p>
    <DataTable
      label="How far each role may go alone"
      :rows="Object.values(form.values.roles)"
      :columns="[
        { key: 'role', text: (row) => nameOf(row.role) },
        { key: 'lower', label: 'per cent below', width: 170 },
        { key: 'below', label: 'below cost', width: 100 },
        { key: 'time', label: 'corrects time', width: 120 },
      ]"
      :row-key="(row) => row.role"
    >
      <template #lower="{ row }">
        <Field
          :name="`roles.${row.role}.lowerPercent`"
          inline
          ><template #label
            ><span class="visually-hidden">{{ nameOf(row.role) }}, per cent below</span></template
          ><CountInput
            v-model="row.lowerPercent"
            :min="0"
            :max="100"
            :disabled="!mine"
        /></Field>
      </template>
      <template #below="{ row }">
        <Check
          v-model="row.belowCost"
          :disabled="!mine"
          :label="`${nameOf(row.role)}: below cost`"
        />
      </template>
      <template #time="{ row }">
        <Check
          v-model="row.mendsTime"
          :disabled="!mine"
          :label="`${nameOf(row.role)}: corrects time alone`"
        />
      </template>
    </DataTable>
    <ActButton
      v-if="mine"
      submit
      :disabled="!form.changed"
      >Keep this</ActButton
    >
    <Notice />
  </Form>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
  />
  <OwnRoles
    v-if="data"
    :roles="others"
    :may="mine"
    @kept="taken"
  />
</template>
