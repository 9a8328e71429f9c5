<script setup lang="ts">
// Where the yard is: days of technicians may begin and end there.
import { watch } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Field from '~/base/Field.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { call } from '~/lib/api'
import { useSetUpForm, type SetUp } from './useSetUp'

const props = defineProps<{ yard: string; owns: boolean }>()
const emit = defineEmits<{ kept: [setUp: SetUp] }>()
/** A postcode becomes the place that it is. */
let stands = props.yard
const { form, keep } = useSetUpForm(
  { at: props.yard },
  (now) => {
    stands = now.yard
    emit('kept', now)
  },
  () => ({ at: stands }),
)
watch(
  () => props.yard,
  (at) => form.follow({ at }),
)
const save = () => keep(() => call('keepYard', { body: { at: form.values.at, shown: props.yard } }))
</script>

<template>
  <Form
    :of="form"
    class="sheet box"
    @submit="save"
  >
    <div class="row">
      <Field
        class="grow"
        name="at"
        label="Our yard: a postcode, or latitude and longitude"
      >
        <TextInput
          v-model="form.values.at"
          :disabled="!owns"
          placeholder="42.0987, -76.8049"
        />
      </Field>
      <ActButton
        v-if="owns"
        submit
        >Keep the yard</ActButton
      >
    </div>
    <Notice />
  </Form>
</template>
