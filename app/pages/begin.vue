<script setup lang="ts">
// A firm begins: whoever has the code that the server printed says who they are and where the firm is, or brings the
// archive of a firm that was elsewhere.
import { ref } from 'vue'
import DoorPage from '~/access/DoorPage.vue'
import { useAtDoor } from '~/access/useAtDoor'
import OwnerForm from '~/archive/OwnerForm.vue'
import TakeInArchive from '~/archive/TakeInArchive.vue'
import BeginForm from '~/begin/BeginForm.vue'
import ActButton from '~/base/ActButton.vue'
import Pending from '~/base/Pending.vue'

definePageMeta({ layout: false })
const { data, problem, refresh } = useAtDoor('beginning')
const bringing = ref(false)
</script>

<template>
  <DoorPage
    v-if="data?.waits && data.takenIn"
    title="Your firm is taken in"
    wide
  >
    <OwnerForm />
  </DoorPage>
  <DoorPage
    v-else-if="data?.waits"
    :title="bringing ? 'Take in your firm’s archive' : 'Your firm begins here'"
    wide
  >
    <TakeInArchive
      v-if="bringing"
      @taken="refresh"
    />
    <BeginForm
      v-else
      :countries="data.countries"
    />
    <ActButton
      quiet
      @click="bringing = !bringing"
      >{{
        bringing ? 'Begin anew instead' : 'It was in another Open Ledger: take in its archive'
      }}</ActButton
    >
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
