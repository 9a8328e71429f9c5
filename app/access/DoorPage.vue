<script setup lang="ts">
// The page of somebody who is about to come in: one sheet in the middle of the window.
defineProps<{ title: string; wide?: boolean }>()
</script>

<template>
  <main class="door">
    <div
      class="sheet"
      :class="{ wide }"
    >
      <p class="mark"><span>Open Ledger</span></p>
      <h1>{{ title }}</h1>
      <slot />
    </div>
  </main>
</template>

<style scoped>
.door {
  min-height: 100vh;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  place-items: center;
  padding: 20px;
}
.sheet {
  width: min(380px, 100%);
  padding: 28px;
  border-radius: 5px;
  display: flex;
  flex-direction: column;
  gap: 14px;
}
.sheet.wide {
  width: min(620px, 100%);
}
.mark {
  font-weight: 700;
}
.mark span {
  border-bottom: 3px double var(--green);
  padding-bottom: 3px;
}
h1 {
  font-size: 1.25rem;
}
</style>
