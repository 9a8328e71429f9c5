<script setup lang="ts">
// The frame of a page that a customer opens by its private address: nothing of it is found by searching.
import { useSeenBy } from './useSeenBy'

const props = defineProps<{
  title: string
  /** whether there is anything behind the address */ found: boolean
  /** where it is told that a person looks at it */ seen: string
}>()
useHead({ title: () => props.title, meta: [{ name: 'robots', content: 'noindex' }] })
useSeenBy(() => (props.found ? props.seen : ''))
</script>

<template>
  <main class="customer">
    <slot v-if="found" />
    <p
      v-else
      class="empty sheet"
    >
      This link is not valid, or it has expired. Please ask us for a new one.
    </p>
  </main>
</template>

<style scoped>
.customer {
  max-width: 760px;
  margin: 0 auto;
  padding: 20px 14px 40px;
  display: flex;
  flex-direction: column;
  gap: 14px;
  font-size: 1rem;
}
.customer :deep(.acts) {
  display: flex;
  gap: 10px;
  flex-wrap: wrap;
}
.customer :deep(.btn) {
  min-height: 44px;
}
.customer :deep(.done) {
  background: var(--green-1);
  border-color: var(--green-2);
}
</style>
