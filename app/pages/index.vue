<template>
  <p class="empty">One moment…</p>
</template>
