<script setup lang="ts">
import { onMounted } from 'vue'
import WorkOrderPage from '~/visits/work/WorkOrderPage.vue'

definePageMeta({ layout: 'office' })
const { params, query } = useRoute()
const bills = Boolean(query.bill)
const adds = Boolean(query.add)
const cancels = query.end === 'cancel'
// Once opened it is not opened again, by a reload or by Back.
onMounted(() => (bills || adds || cancels) && navigateTo({ query: {} }, { replace: true }))
</script>

<template>
  <WorkOrderPage
    :id="String(params.id)"
    :bill="bills"
    :add="adds"
    :cancel="cancels"
  />
</template>
