<script setup lang="ts">
// One invoice, in the office.
import InvoicePage from '~/invoices/InvoicePage.vue'

definePageMeta({ layout: 'office', key: (route) => route.fullPath })
const id = String(useRoute().params.id)
</script>

<template>
  <InvoicePage :id="id" />
</template>
