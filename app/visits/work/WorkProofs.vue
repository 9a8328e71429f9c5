<script setup lang="ts">
// What was signed and photographed on site.
import { ref } from 'vue'
import { SIGN_PURPOSES } from '~~/core/visits/signedPaper'
import ActButton from '~/base/ActButton.vue'
import { useSession } from '~/stores/session'
import SignedSheet from './SignedSheet.vue'
import type { Work } from './useWorkOrder'

defineProps<{ work: Work }>()
const session = useSession()
/** the signature whose paper is looked at */
const open = ref('')
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
          >{{ SIGN_PURPOSES[s.purpose].says.toLowerCase() }}, {{ session.dayTime(s.signedAt) }}, on
          {{ s.takenBy }}’s phone</span
        >
        <ActButton
          v-if="s.kept"
          quiet
          class="small no-print"
          :aria-label="`What ${s.name} signed`"
          @click="open = s.id"
          >What was signed…</ActButton
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
    <SignedSheet
      v-if="open"
      :id="open"
      @close="open = ''"
    />
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
