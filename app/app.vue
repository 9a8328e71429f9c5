<script setup lang="ts">
import { onMounted } from 'vue'
import { forgetBook } from '~/lib/book'
import { useSession } from '~/stores/session'

onMounted(() =>
  window.addEventListener('signed-out', () => {
    useSession().$reset()
    // A session that ended by itself leaves no costs behind either.
    void forgetBook()
    void navigateTo({ path: '/sign-in', query: { to: location.pathname } })
  }),
)
</script>

<template>
  <NuxtLayout><NuxtPage /></NuxtLayout>
</template>
