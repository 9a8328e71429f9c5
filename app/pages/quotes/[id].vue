<script setup lang="ts">
// One quote, in the office.
import QuotePage from '~/quotes/QuotePage.vue'

definePageMeta({ layout: 'office', key: (route) => route.fullPath })
const id = String(useRoute().params.id)
</script>

<template>
  <QuotePage :id="id" />
</template>
