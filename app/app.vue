<script setup lang="ts">
import { defineAsyncComponent, onMounted } from 'vue'
import { asked, warnWindow } from '~/base/leaving'
import { forgetBook } from '~/lib/book'
import { forgetLostWrites } from '~/lib/lostWrites'
import { useSession } from '~/stores/session'

const Ask = defineAsyncComponent(() => import('~/base/Ask.vue'))
onMounted(() => window.addEventListener('beforeunload', warnWindow))
onMounted(() =>
  window.addEventListener('signed-out', () => {
    useSession().$reset()
    // A session that ended by itself leaves no costs behind either, nor what it had wanted to write.
    forgetLostWrites()
    void forgetBook()
    void navigateTo({ path: '/sign-in', query: { to: location.pathname } })
  }),
)
</script>

<template>
  <NuxtLayout><NuxtPage /></NuxtLayout>
  <Ask v-if="asked" />
</template>
