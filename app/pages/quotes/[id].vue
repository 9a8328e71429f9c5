<script setup lang="ts">
// One quote, in the office.
import QuoteSheet from '~/components/quotes/QuoteSheet.vue'

definePageMeta({ layout: 'office', key: (route) => route.fullPath })
const id = String(useRoute().params.id)
</script>

<template>
  <QuoteSheet :id="id" />
</template>
