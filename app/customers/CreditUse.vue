<script setup lang="ts">
// What can be done with money that no invoice took.
</script>

<template>
  <p class="quiet small">
    A credit lowers what they owe. To set it against an invoice, or to give it back, take its
    payment back under their payments, and enter it again where it belongs.
  </p>
</template>
