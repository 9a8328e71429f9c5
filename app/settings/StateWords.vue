<script setup lang="ts">
// The firm's own words for the states of work.
import { WORK_ORDER_STATES } from '~~/core/visits/workOrderState'
import ActButton from '~/base/ActButton.vue'
import Field from '~/base/Field.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { useForm } from '~/base/useForm'
import { call } from '~/lib/api'
import { useSession } from '~/stores/session'

const session = useSession()
const form = useForm<Record<string, string>>({
  ...(session.me?.company.stateLabels as Record<string, string> | undefined),
})
const keep = () =>
  form.send(async () => {
    const labels = WORK_ORDER_STATES.map((state) => ({ state, label: form.values[state] ?? '' }))
    await call('keepStateLabels', { body: { labels } })
    session.keep(await call('session'))
  })
</script>

<template>
  <h2>Our words for the states of work</h2>
  <Form
    :of="form"
    @submit="keep"
  >
    <div class="states">
      <Field
        v-for="state in WORK_ORDER_STATES"
        :key="state"
        :label="state.replaceAll('_', ' ')"
      >
        <TextInput
          v-model="form.values[state]"
          maxlength="30"
          :placeholder="state.replaceAll('_', ' ')"
        />
      </Field>
      <ActButton submit> Keep these words </ActButton>
    </div>
    <Notice :of="form.problem" />
  </Form>
</template>

<style scoped>
.states {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 8px;
  align-items: end;
}
</style>
