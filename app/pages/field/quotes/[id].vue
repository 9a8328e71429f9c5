<script setup lang="ts">
// One quote, on the phone of the person who was sent to make it.
import QuoteSheet from '~/components/quotes/QuoteSheet.vue'

definePageMeta({ layout: 'field', key: (route) => route.fullPath })
const id = String(useRoute().params.id)
</script>

<template>
  <QuoteSheet
    :id="id"
    field
  />
</template>
