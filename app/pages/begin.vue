<script setup lang="ts">
// A firm begins: whoever has the code that the server printed says who they are, and where the firm is.
import DoorPage from '~/access/DoorPage.vue'
import { useAtDoor } from '~/access/useAtDoor'
import BeginForm from '~/begin/BeginForm.vue'
import Pending from '~/base/Pending.vue'

definePageMeta({ layout: false })
const { data, problem, refresh } = useAtDoor('beginning')
</script>

<template>
  <DoorPage
    v-if="data?.waits"
    title="Your firm begins here"
    wide
  >
    <BeginForm :countries="data.countries" />
  </DoorPage>
  <DoorPage
    v-else-if="data"
    title="A firm is here already"
  >
    <p>Whoever belongs to it <NuxtLink to="/sign-in">signs in</NuxtLink>.</p>
  </DoorPage>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
  />
</template>
