<script setup lang="ts">
// Changes one line of a work order where it stands; the fields hold what it was when it was opened.
import ActButton from '~/base/ActButton.vue'
import Form from '~/base/Form.vue'
import Field from '~/base/Field.vue'
import FigureInput from '~/base/FigureInput.vue'
import Phrases from '~/base/Phrases.vue'
import TextInput from '~/base/TextInput.vue'
import Notice from '~/base/Notice.vue'
import { useFormAbout } from '~/base/useForm'
import { call } from '~/lib/api'
import type { Work } from './useWorkOrder'

type Line = Work['lines'][number]
const props = defineProps<{ line: Line; refresh: () => Promise<unknown> }>()
const emit = defineEmits<{ changed: [work: Work]; leave: [] }>()
const form = useFormAbout(
  () => props.line,
  ({ name, quantity, unitPrice, discount, discountWords }) => ({
    ...{ name, quantity, unitPrice, discountWords },
    discount: discount.amount,
  }),
  props.refresh,
  { draft: `line ${props.line.id}` },
)
const params = { id: props.line.id }
const keep = () =>
  form.keep(async (version) => {
    emit('changed', await call('changeLine', { params, body: { version, ...form.changes() } }))
    emit('leave')
  })
function leave() {
  form.discard()
  emit('leave')
}
</script>

<template>
  <Form
    :of="form"
    class="line"
    @submit="keep"
    @keydown.esc.stop="leave"
  >
    <Field
      class="grow"
      name="name"
      label="Called, here only"
    >
      <TextInput v-model="form.values.name" />
    </Field>
    <Field
      name="quantity"
      label="Quantity"
    >
      <FigureInput v-model="form.values.quantity" />
    </Field>
    <Field
      name="unitPrice"
      label="Each, here only"
    >
      <FigureInput v-model="form.values.unitPrice" />
    </Field>
    <Field
      name="discount"
      label="Discount, or %"
    >
      <FigureInput v-model="form.values.discount" />
    </Field>
    <Field
      class="grow"
      name="discountWords"
      label="What the discount is for, as the paper says it"
    >
      <TextInput
        v-model="form.values.discountWords"
        placeholder="as goodwill"
      />
    </Field>
    <Phrases
      v-model="form.values.discountWords"
      of="taken_off"
    />
    <div class="row">
      <ActButton
        primary
        submit
      >
        Keep
      </ActButton>
      <ActButton @click="leave"> Leave </ActButton>
    </div>
    <Notice />
  </Form>
</template>

<style scoped>
.line {
  flex-flow: row wrap;
  margin-top: 6px;
  align-items: flex-end;
}
.field {
  width: 84px;
}
.field.grow {
  flex: 1 0 100%;
}
</style>
