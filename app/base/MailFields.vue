<script setup lang="ts">
// To whom a mail goes, and what it says; within a form that has these four.
import FormFields from './FormFields.vue'
import { field } from './fields'

const props = defineProps<{ rows: number }>()
const FIELDS = [
  [field('first', 'To', { kind: 'email' }), field('second', 'and to', { kind: 'email' })],
  field('subject', 'Subject'),
  field('body', 'Text', { kind: 'area', rows: props.rows }),
]
</script>

<template>
  <FormFields :fields="FIELDS" />
</template>
