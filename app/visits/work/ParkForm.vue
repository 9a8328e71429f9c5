<script setup lang="ts">
// Parks a work order in a list of the firm's own, until a day if there is one.
import ActButton from '~/base/ActButton.vue'
import DateInput from '~/base/DateInput.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { useForm } from '~/base/useForm'

const props = defineProps<{
  list: string
  on: string | null
  park: (list: string, on: string | null) => Promise<void>
}>()
const form = useForm({ list: props.list, on: props.on ?? '' })
const keep = () => form.send(() => props.park(form.values.list.trim(), form.values.on || null))
</script>

<template>
  <Form
    :of="form"
    @submit="keep"
  >
    <div class="row">
      <TextInput
        v-model="form.values.list"
        maxlength="60"
        placeholder="a list: waits for a part, ask in spring"
        aria-label="Park it in the list"
      />
      <DateInput
        v-model="form.values.on"
        aria-label="Come back to it on"
      />
      <ActButton
        primary
        submit
        :disabled="!form.values.list.trim()"
      >
        Park it
      </ActButton>
    </div>
    <Notice :of="form.problem" />
  </Form>
</template>
