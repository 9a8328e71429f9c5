<script setup lang="ts">
import WorkOrderPage from '~/visits/work/WorkOrderPage.vue'

definePageMeta({ layout: 'office' })
const { params, query } = useRoute()
</script>

<template>
  <WorkOrderPage
    :id="String(params.id)"
    :bill="Boolean(query.bill)"
  />
</template>
