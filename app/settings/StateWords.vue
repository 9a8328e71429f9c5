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

defineProps<{ may: boolean }>()
const session = useSession()
const form = useForm<Record<string, string>>({
  ...(session.me?.company.stateLabels as Record<string, string> | undefined),
})
const keep = () =>
  form.send(async () => {
    // What was not typed over stays as it is, whoever changed it meanwhile.
    const changed = form.changes()
    const labels = WORK_ORDER_STATES.filter((state) => state in changed).map((state) => ({
      state,
      label: changed[state] ?? '',
    }))
    await call('keepStateLabels', { body: { labels } })
    session.keep(await call('session'))
  })
</script>

<template>
  <h2 id="words">Our words for the states of work</h2>
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
          :disabled="!may"
          :placeholder="state.replaceAll('_', ' ')"
        />
      </Field>
      <ActButton
        v-if="may"
        submit
        :disabled="!form.changed"
      >
        Keep these words
      </ActButton>
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
