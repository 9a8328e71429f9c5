<script setup lang="ts">
// The territories by their postcodes, who serves them and what they take; one is added or changed beneath.
import ActButton from '~/base/ActButton.vue'
import Form from '~/base/Form.vue'
import DataTable from '~/base/DataTable.vue'
import Field from '~/base/Field.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { call, newId } from '~/lib/api'
import { useSetUpForm, type SetUp } from './useSetUp'

type Territory = SetUp['territories'][number]
defineProps<{ setUp: SetUp; owns: boolean }>()
const emit = defineEmits<{ kept: [setUp: SetUp] }>()
const NONE = { id: '', name: '', postcodes: '' }
const { form, keep } = useSetUpForm(NONE, (now) => emit('kept', now))
const change = ({ id, name, postcodes }: Territory) =>
  form.begin({ id, name, postcodes: postcodes.join(', ') })
const save = () =>
  keep(() => call('keepTerritory', { body: { ...form.values, id: form.values.id || newId() } }))
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
    </template>
  </DataTable>
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
        @click="form.begin(NONE)"
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
