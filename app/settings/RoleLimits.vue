<script setup lang="ts">
// How far each role may lower a price alone; over it another person's yes is asked for.
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import CountInput from '~/base/CountInput.vue'
import Field from '~/base/Field.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'
import { useForm } from '~/base/useForm'
import { call } from '~/lib/api'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import { watch } from 'vue'
import { useSession } from '~/stores/session'

const session = useSession()
const { data, problem, refresh } = useAnswer('limits', undefined, SHOWS.setUp)
const form = useForm<{ roles: NonNullable<typeof data.value>['roles'] }>({ roles: [] })
watch(data, (now) => now && form.follow({ roles: now.roles.map((role) => ({ ...role })) }), {
  immediate: true,
})
const keep = () =>
  form.send(async () => {
    data.value = await call('keepLimits', { body: form.values })
  })
</script>

<template>
  <h2>How far each may lower a price</h2>
  <p class="quiet small">
    Below the book’s price, the customer’s level or what was agreed, whichever is more. Who wants to
    go further asks for another person’s yes on the spot.
  </p>
  <Form
    v-if="data"
    :of="form"
    @submit="keep"
  >
    <div
      v-for="(role, i) in form.values.roles"
      :key="role.role"
      class="role"
    >
      <Field
        :name="`roles[${i}].lowerPercent`"
        :label="`${role.role}, per cent below`"
        inline
        ><CountInput
          v-model="role.lowerPercent"
          :min="0"
          :max="100"
          :disabled="!session.may('limits.change')" /></Field
      ><Check
        v-model="role.belowCost"
        :disabled="!session.may('limits.change')"
        >below cost</Check
      >
    </div>
    <ActButton
      v-if="session.may('limits.change')"
      submit
      :disabled="!form.changed"
      >Keep these limits</ActButton
    >
    <Notice />
  </Form>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
  />
</template>

<style scoped>
.role {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 14px;
  align-items: center;
}
</style>
