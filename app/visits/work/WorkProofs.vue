<script setup lang="ts">
// What was signed and photographed on site.
import { useSession } from '~/stores/session'
import type { Work } from './useWorkOrder'

defineProps<{ work: Work }>()
const session = useSession()
</script>

<template>
  <div
    v-if="work.signatures.length || work.photos.length"
    class="row proofs"
  >
    <figure
      v-for="s in work.signatures"
      :key="s.id"
      class="sheet"
    >
      <img
        :src="`/api/v1/signatures/${s.id}`"
        :alt="`Signature of ${s.name}`"
      />
      <figcaption>
        <b>{{ s.name }}</b> for <span class="num">{{ session.money(s.total) }}</span><br /><span
          class="quiet small"
          >{{ session.dayTime(s.signedAt) }}, on {{ s.takenBy }}’s phone</span
        >
      </figcaption>
    </figure>
    <figure
      v-for="p in work.photos"
      :key="p.id"
      class="sheet"
    >
      <img
        :src="`/api/v1/photos/${p.id}?size=small`"
        alt="Photo from the visit"
      />
      <figcaption class="quiet small">{{ session.dayTime(p.takenAt) }}</figcaption>
    </figure>
  </div>
</template>

<style scoped>
.proofs {
  flex-wrap: wrap;
  align-items: stretch;
}
figure {
  margin: 0;
  padding: 8px;
}
figure img {
  display: block;
  height: 70px;
  max-width: 200px;
  object-fit: contain;
}
</style>
