<script setup lang="ts">
// From the demo to a firm of one's own: what to do, which changes nothing of the demo.
import { ref } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Dialog from '~/base/Dialog.vue'

const open = ref(false)
</script>

<template>
  <ActButton
    quiet
    class="small"
    @click="open = true"
    >Begin with our own firm</ActButton
  >
  <Dialog
    v-model="open"
    title="Begin with our own firm"
    width="520"
  >
    <div class="stack">
      <p>
        This is the demo, and it stays as it is: your firm begins beside it, in a folder of its own.
        Where Open Ledger runs, stop it with Ctrl-C, and write:
      </p>
      <code class="note num">npm start -- --firm</code>
      <p>
        It prints a code. Open <b class="num">/begin</b> there, write the code, and say who you are
        and where your firm is. The guide then knows what is still missing for what.
      </p>
      <p class="quiet small">
        Every later start of your firm is the same command; <b class="num">npm start</b> alone is
        the demo again.
      </p>
    </div>
  </Dialog>
</template>
