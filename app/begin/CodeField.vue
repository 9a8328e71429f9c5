<script setup lang="ts">
// The code that lets the first in: printed where the server runs.
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'

const code = defineModel<string>({ required: true })
</script>

<template>
  <Field
    name="code"
    label="The code that was printed when the server started"
  >
    <TextInput
      v-model="code"
      autocomplete="off"
      class="num"
      autofocus
    />
  </Field>
</template>
