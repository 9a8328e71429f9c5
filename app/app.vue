<script setup lang="ts">
import { defineAsyncComponent, onMounted } from 'vue'
import { watchFocus } from '~/base/focusBack'
import { asked, warnWindow } from '~/base/leaving'
import { forgetBook } from '~/lib/book'
import { closeLive } from '~/lib/live'
import { useSession } from '~/stores/session'
// Small, and what a phone draws first: it comes with the app, not after it.
import '~/layouts/field.vue'

const Ask = defineAsyncComponent(() => import('~/base/Ask.vue'))
const SignInAgain = defineAsyncComponent(() => import('~/access/SignInAgain.vue'))
const session = useSession()
const { currentRoute } = useRouter()
const DAY_TURNS_MS = 20_000
onMounted(() => {
  watchFocus()
  window.addEventListener('beforeunload', warnWindow)
  window.addEventListener('signed-out', () => {
    closeLive()
    // Costs are nobody's until somebody signs in again; the book comes back then.
    void forgetBook()
    if (session.me) session.ended = true
    // Whoever is asked to sign in already comes back to where they wanted to go.
    else if (currentRoute.value.path !== '/sign-in') void navigateTo('/sign-in')
  })
  setInterval(() => session.turnDay(), DAY_TURNS_MS)
  // A window that slept over midnight is looked at again.
  document.addEventListener('visibilitychange', () => session.turnDay())
})
</script>

<template>
  <NuxtLayout><NuxtPage /></NuxtLayout>
  <Ask v-if="asked" />
  <SignInAgain v-if="session.ended" />
</template>
