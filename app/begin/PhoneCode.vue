<script setup lang="ts">
// The address of the field pages, as a code that a phone reads.
import { onMounted, ref } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Dialog from '~/base/Dialog.vue'

const open = ref(false)
const picture = ref('')
const address = ref('')
const isHereAlone = ref(false)
onMounted(async () => {
  const { origin, hostname } = window.location
  address.value = `${origin}/field?tour`
  isHereAlone.value = /^(localhost|127\.|\[::1\])/.test(hostname)
  const { toDataURL } = await import('qrcode')
  picture.value = await toDataURL(address.value, { margin: 2, scale: 6 })
})
</script>

<template>
  <ActButton @click="open = true">On a phone</ActButton>
  <Dialog
    v-model="open"
    title="The visits on a phone"
    width="360"
  >
    <div class="stack">
      <img
        v-if="picture"
        :src="picture"
        :alt="`A code that leads a phone to ${address}`"
      />
      <p>
        Read it with the phone’s camera, and sign in there. Whoever goes to customers finds their
        day:
      </p>
      <code class="num">{{ address }}</code>
      <p
        v-if="isHereAlone"
        class="soon small"
      >
        This address is of this machine alone, and no phone reaches it. Whoever runs Open Ledger
        lets it be reached by <b class="num">HOST</b> and <b class="num">PUBLIC_URL</b>.
      </p>
    </div>
  </Dialog>
</template>

<style scoped>
img {
  align-self: center;
  width: 220px;
  height: 220px;
}
code {
  overflow-wrap: anywhere;
}
</style>
