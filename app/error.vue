<script setup lang="ts">
// In place of the whole app: an address where nothing is, or a page that broke. Says which, and leads on.
import { computed } from 'vue'
import type { NuxtError } from '#app'

const props = defineProps<{ error: NuxtError }>()
const NOT_FOUND = 404
const isNowhere = computed(() => props.error.statusCode === NOT_FOUND)
const toStart = () => clearError({ redirect: '/' })
const again = () => window.location.reload()
</script>

<template>
  <main class="empty">
    <h1>{{ isNowhere ? 'There is nothing at this address' : 'This page could not be shown' }}</h1>
    <p>
      {{
        isNowhere
          ? 'It may have been written wrong, or what stood here is gone.'
          : 'Ask for it again, or go on from the start.'
      }}
    </p>
    <p class="ways">
      <button
        v-if="!isNowhere"
        class="btn"
        @click="again"
      >
        Ask again
      </button>
      <button
        class="btn act"
        @click="toStart"
      >
        To the start
      </button>
    </p>
  </main>
</template>

<style scoped>
.ways {
  display: flex;
  justify-content: center;
  gap: 10px;
  margin-top: 14px;
}
</style>
