<script setup lang="ts">
import { onMounted } from 'vue'
import { useSession } from '~/stores/session'

onMounted(() => window.addEventListener('signed-out', () => {
  useSession().$reset()
  void navigateTo({ path: '/sign-in', query: { to: location.pathname } })
}))
</script>

<template>
  <NuxtLayout><NuxtPage /></NuxtLayout>
</template>
