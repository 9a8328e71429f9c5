<script setup lang="ts">
// A small form for a site, a contact or a piece of equipment: a few named fields, kept in one act.
import { computed, shallowRef } from 'vue'
import CustomFields from '~/components/settings/CustomFields.vue'
import ActButton from '~/base/ActButton.vue'
import Dialog from '~/base/Dialog.vue'
import Form from '~/base/Form.vue'
import FormFields from '~/base/FormFields.vue'
import Notice from '~/base/Notice.vue'
import { useForm, useFormAbout } from '~/base/useForm'
import { typedOf, type Customer, type OpenForm, type OwnValues, type RowValues } from './rowForms'

const props = defineProps<{
  of: OpenForm
  customer: Customer
  refresh: () => Promise<unknown>
}>()
const emit = defineEmits<{ kept: [customer: Customer]; close: [] }>()
const { fields, values, custom, row, save, remove, about } = props.of
const draft = `row ${about}`
const known =
  row &&
  useFormAbout(
    () => row(props.customer),
    (now) => typedOf(now, fields),
    props.refresh,
    { draft },
  )
const form = known ?? useForm<RowValues>(values, { draft })
async function closeAfter(work: Promise<Customer>) {
  emit('kept', await work)
  emit('close')
}
/** Of what is known already only what was typed is sent. */
const keep = () =>
  known
    ? known.keep((version) => closeAfter(save(known.changes() as RowValues, version)))
    : form.send(() => closeAfter(save(form.values, 0)))
const takeOut = () => known?.keep((version) => closeAfter(remove!(version)))
const own = computed({
  get: () => form.values.custom as OwnValues,
  set: (next) => {
    form.values.custom = next
  },
})
/** What stood where something was copied to, for whoever pressed it by mistake. */
const copied = shallowRef<RowValues | null>(null)
function copy(from: RowValues) {
  const there = Object.keys(from).map((name) => [name, form.values[name]])
  copied.value = Object.fromEntries(there) as RowValues
  Object.assign(form.values, from)
}
/** What was typed over the copy since stays. */
function putBack(from: RowValues) {
  for (const [name, before] of Object.entries(copied.value!))
    if (form.values[name] === from[name]) form.values[name] = before
  copied.value = null
}
</script>

<template>
  <Dialog
    :title="of.title"
    width="440"
    @close="emit('close')"
  >
    <Form
      :of="form"
      @submit="keep"
    >
      <ActButton
        v-if="of.copy"
        @click="copied ? putBack(of.copy.values) : copy(of.copy.values)"
      >
        {{ copied ? 'Put back what stood here' : of.copy.label }}
      </ActButton>
      <FormFields :fields="fields" />
      <CustomFields
        v-if="custom?.length"
        v-model="own"
        name="custom"
        :fields="custom"
      />
      <Notice />
      <div class="row">
        <ActButton
          primary
          submit
          class="grow"
        >
          Keep</ActButton
        ><ActButton
          v-if="remove"
          :disabled="form.busy"
          @click="takeOut"
        >
          Take out
        </ActButton>
      </div>
    </Form>
  </Dialog>
</template>
