<script setup lang="ts">
// One price level: its name, and what it takes off each kind of line.
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import FigureInput from '~/base/FigureInput.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { useForm } from '~/base/useForm'
import { call, newId } from '~/lib/api'
import type { Answer } from '~~/shared/api'
import { LINE_KINDS, type LineKind } from '~~/core/pricebook/kinds'
import { LINE_WORDS } from './setUp'

type Levels = Answer<'priceLevels'>
const props = defineProps<{ of: Levels['items'][number] | null }>()
const emit = defineEmits<{ kept: [levels: Levels]; close: [] }>()
const id = props.of?.id ?? newId()
const offOf = (line: LineKind) => props.of?.off.find(({ kind }) => kind === line)?.percent ?? ''
const form = useForm({
  name: props.of?.name ?? '',
  agreement: props.of?.agreement ?? false,
  off: LINE_KINDS.map((kind) => ({ kind, percent: offOf(kind) })),
})
/** As it stood when it was opened. */
const shown = props.of && {
  ...{ name: props.of.name, agreement: props.of.agreement },
  off: props.of.off.map((one) => ({ ...one })),
}
const keep = () =>
  form.send(async () => {
    const { name, agreement } = form.values
    const off = form.values.off.map(({ kind, percent }) => ({ kind, percent: percent || '0' }))
    emit('kept', await call('keepPriceLevel', { body: { id, name, agreement, off, shown } }))
    emit('close')
  })
</script>

<template>
  <Dialog
    :title="of ? `Price level: ${of.name}` : 'A further price level'"
    width="460"
    @close="emit('close')"
  >
    <Form
      :of="form"
      @submit="keep"
    >
      <Field
        name="name"
        label="Name"
      >
        <TextInput
          v-model="form.values.name"
          maxlength="80"
        />
      </Field>
      <div class="kinds">
        <Field
          v-for="(line, i) in form.values.off"
          :key="line.kind"
          :name="`off[${i}].percent`"
          :label="`${LINE_WORDS[line.kind]}, per cent less`"
        >
          <FigureInput
            v-model="line.percent"
            placeholder="0"
          />
        </Field>
      </div>
      <Check
        v-model="form.values.agreement"
        name="agreement"
        >It comes with a care agreement: quotes to others say what it would save</Check
      >
      <p class="quiet small">
        Lines that are priced from now on have it; what was quoted or billed stays as it is.
      </p>
      <Notice />
      <ActButton
        primary
        submit
        >Keep this level</ActButton
      >
    </Form>
  </Dialog>
</template>

<style scoped>
.kinds {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0 12px;
}
</style>
