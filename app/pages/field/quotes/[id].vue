<script setup lang="ts">
// One quote, on the phone of the person who was sent to make it.
import QuotePage from '~/quotes/QuotePage.vue'

definePageMeta({ layout: 'field', key: (route) => route.fullPath })
const id = String(useRoute().params.id)
</script>

<template>
  <QuotePage
    :id="id"
    field
  />
</template>
