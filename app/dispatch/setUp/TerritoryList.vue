<script setup lang="ts">
// The territories by their postcodes, who serves them and what they take; one is added or changed beneath, or taken away.
import { shallowRef } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Form from '~/base/Form.vue'
import DataTable from '~/base/DataTable.vue'
import Field from '~/base/Field.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { call, newId } from '~/lib/api'
import { useKeep, useSetUpForm, type SetUp } from './useSetUp'

type Territory = SetUp['territories'][number]
defineProps<{ setUp: SetUp; owns: boolean }>()
const emit = defineEmits<{ kept: [setUp: SetUp] }>()
const NONE = { id: '', name: '', postcodes: '' }
const { form, keep } = useSetUpForm(NONE, (now) => emit('kept', now))
/** As it stood when it was taken up. */
const shown = shallowRef<Pick<Territory, 'name' | 'postcodes'> | null>(null)
const stands = ({ name, postcodes }: Territory) => ({ name, postcodes: [...postcodes] })
function change(territory: Territory) {
  shown.value = stands(territory)
  form.begin({ ...shown.value, id: territory.id, postcodes: territory.postcodes.join(', ') })
}
function leave() {
  shown.value = null
  form.begin(NONE)
}
const save = () =>
  keep(async () => {
    const body = { ...form.values, id: form.values.id || newId(), shown: shown.value }
    const now = await call('keepTerritory', { body })
    shown.value = null
    return now
  })
const { busy, problem: notTaken, keep: take } = useKeep((now) => emit('kept', now))
const takeAway = (territory: Territory) =>
  take(() =>
    call('dropTerritory', { params: { id: territory.id }, body: { shown: stands(territory) } }),
  )
</script>

<template>
  <DataTable
    v-if="setUp.territories.length"
    :rows="setUp.territories"
    :row-key="(t) => t.id"
    :columns="[
      { key: 'territory', label: 'Territory' },
      {
        key: 'postcodes',
        label: 'Postcodes',
        look: 'small codes num',
        text: (t) => t.postcodes.join(' '),
      },
      {
        key: 'servedBy',
        label: 'Served by',
        look: 'small',
        tone: (t) => ({ soon: !t.people.length }),
        text: (t) => t.people.join(', ') || 'nobody',
      },
      { key: 'sites', label: 'Sites', figures: true, text: (t) => t.sites },
      { key: 'takesADay', label: 'Takes a day', figures: true, look: 'nowrap' },
      { key: 'act', right: true },
    ]"
  >
    <template #territory="{ row: t }">
      <b>{{ t.name }}</b>
    </template>
    <template #takesADay="{ row: t }">
      <span title="The sum of its people, in the morning and in the afternoon"
        >{{ t.morning }} and {{ t.afternoon }}</span
      >
    </template>
    <template #act="{ row: t }">
      <ActButton
        v-if="owns"
        :aria-label="`Change ${t.name}`"
        @click="change(t)"
      >
        Change
      </ActButton>
      <ActButton
        v-if="owns && !t.people.length && form.values.id !== t.id"
        quiet
        :busy="busy"
        :aria-label="`Take ${t.name} away`"
        @click="takeAway(t)"
      >
        Take away
      </ActButton>
    </template>
  </DataTable>
  <Notice :of="notTaken" />
  <Form
    v-if="owns"
    :of="form"
    class="sheet box"
    @submit="save"
  >
    <div class="row">
      <Field
        :label="form.values.id ? 'Change the territory' : 'A territory'"
        name="name"
      >
        <TextInput
          v-model="form.values.name"
          placeholder="Name"
        />
      </Field>
      <Field
        class="grow"
        label="Postcodes: single ones, beginnings, ranges"
        name="postcodes"
      >
        <TextInput
          v-model="form.values.postcodes"
          class="num"
          placeholder="04101–04105, 04110"
        />
      </Field>
      <ActButton
        primary
        submit
      >
        Keep the territory
      </ActButton>
      <ActButton
        v-if="form.values.id"
        @click="leave"
      >
        Leave it as it is
      </ActButton>
    </div>
    <Notice />
  </Form>
</template>

<style scoped>
:deep(.codes) {
  white-space: normal;
  max-width: 420px;
}
</style>
