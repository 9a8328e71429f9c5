<script setup lang="ts">
// The code of the second step, in the form that it stands in.
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'
import { formAround } from '~/base/useForm'

defineProps<{
  /** of an app that is set up just now */
  fromApp?: boolean
}>()
const values = formAround()!.values as { code: string }
</script>

<template>
  <Field
    name="code"
    :label="fromApp ? 'Code of your app' : 'Code of your app, or a recovery code'"
  >
    <TextInput
      v-model="values.code"
      name="code"
      autocomplete="one-time-code"
      inputmode="text"
      maxlength="20"
      autofocus
    />
  </Field>
</template>
