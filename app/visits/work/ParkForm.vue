<script setup lang="ts">
// Parks a work order in a list of the firm's own, until a day if there is one.
import ActButton from '~/base/ActButton.vue'
import DateInput from '~/base/DateInput.vue'
import Form from '~/base/Form.vue'
import Meanwhile from '~/base/Meanwhile.vue'
import Notice from '~/base/Notice.vue'
import Phrases from '~/base/Phrases.vue'
import TextInput from '~/base/TextInput.vue'
import { useFormAbout } from '~/base/useForm'
import { call } from '~/lib/api'
import type { Work } from './useWorkOrder'

const props = defineProps<{ work: Work; refresh: () => Promise<unknown> }>()
const emit = defineEmits<{ changed: [work: Work]; close: [] }>()
const form = useFormAbout(
  () => props.work,
  ({ followUp, followUpReason, followUpOn }) => ({
    list: followUp,
    reason: followUpReason,
    on: followUpOn ?? '',
  }),
  props.refresh,
  { draft: `park ${props.work.id}` },
)
const keep = () =>
  form.keep(async (version) => {
    const { list, reason, on } = form.values
    const body = { version, list: list.trim(), reason, on: on || null }
    emit('changed', await call('followUp', { params: { id: props.work.id }, body }))
    emit('close')
  })
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
      <TextInput
        v-model="form.values.reason"
        maxlength="200"
        placeholder="why, if there is more to say"
        aria-label="Why it is parked"
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
    <Phrases
      v-model="form.values.list"
      of="parked"
    />
    <Meanwhile :names="['list', 'reason', 'on']" />
    <Notice :of="form.problem" />
  </Form>
</template>
