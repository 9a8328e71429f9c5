<script setup lang="ts">
// A small form for a site, a contact or a piece of equipment: a few named fields, kept in one act.
import CustomFields from '~/components/settings/CustomFields.vue'
import ActButton from '~/base/ActButton.vue'
import Dialog from '~/base/Dialog.vue'
import Form from '~/base/Form.vue'
import FormFields from '~/base/FormFields.vue'
import Notice from '~/base/Notice.vue'
import type { FormField } from '~/base/fields'
import { useForm } from '~/base/useForm'

type Typed = Record<string, string | null>
const props = defineProps<{
  title: string
  fields: readonly FormField[]
  values: Typed
  custom?: { id: string; name: string; kind: string; choices: string[] }[]
  customValues?: Record<string, string>
  save: (values: Typed, custom: Record<string, string>) => Promise<void>
  remove?: () => Promise<void>
  copy?: { label: string; values: Record<string, string> }
}>()
const emit = defineEmits<{ close: [] }>()
const form = useForm({ row: props.values, custom: props.customValues ?? {} })
const closeAfter = (work: () => Promise<void>) =>
  form.send(async () => {
    await work()
    emit('close')
  })
const keep = () => closeAfter(() => props.save(form.values.row, form.values.custom))
</script>

<template>
  <Dialog
    :title="title"
    width="440"
    @close="emit('close')"
  >
    <Form
      :of="form"
      @submit="keep"
    >
      <ActButton
        v-if="copy"
        @click="Object.assign(form.values.row, copy.values)"
      >
        {{ copy.label }}
      </ActButton>
      <FormFields
        :fields="fields"
        :values="form.values.row"
      />
      <CustomFields
        v-if="custom?.length"
        v-model="form.values.custom"
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
          @click="closeAfter(remove)"
        >
          Take out
        </ActButton>
      </div>
    </Form>
  </Dialog>
</template>
