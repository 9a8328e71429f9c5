<script setup lang="ts">
// To whom a mail goes, and what it says.
import Field from './Field.vue'
import TextInput from './TextInput.vue'

const mail = defineModel<{ first: string; second: string; subject: string; body: string }>({
  required: true,
})
defineProps<{ rows: number }>()
</script>

<template>
  <div class="row">
    <Field
      class="grow"
      label="To"
      ><TextInput
        v-model="mail.first"
        type="email" /></Field
    ><Field
      class="grow"
      label="and to"
      ><TextInput
        v-model="mail.second"
        type="email"
    /></Field>
  </div>
  <Field label="Subject"><TextInput v-model="mail.subject" /></Field
  ><Field label="Text"
    ><TextInput
      v-model="mail.body"
      :rows="rows"
    />
  </Field>
</template>
