<script setup lang="ts">
// The whole guide, one page after the other: to read, or on paper.
import ActButton from '~/base/ActButton.vue'
import GuideText from '~/help/GuideText.vue'
import { useGuide } from '~/help/useGuide'

definePageMeta({ layout: 'office' })
const { pages, isLost } = useGuide()
const go = (name: string) => document.getElementById(name)?.scrollIntoView()
const print = () => window.print()
</script>

<template>
  <section class="page guide">
    <div class="row no-print">
      <h1 class="grow">The whole guide</h1>
      <ActButton @click="print">Print it</ActButton>
    </div>
    <p
      v-if="isLost"
      role="status"
    >
      The guide cannot be fetched at this moment. Load the page again when the line is back.
    </p>
    <nav
      class="no-print"
      aria-label="Pages of the guide"
    >
      <a
        v-for="page in pages"
        :key="page.name"
        :href="`#${page.name}`"
        >{{ page.title }}</a
      >
    </nav>
    <article
      v-for="page in pages"
      :id="page.name"
      :key="page.name"
    >
      <h2>{{ page.title }}</h2>
      <GuideText
        :of="page"
        @go="go"
      />
    </article>
  </section>
</template>

<style scoped>
.guide {
  max-width: 760px;
}
nav {
  columns: 2;
  margin: 12px 0 24px;
}
nav a {
  display: block;
  padding: 3px 0;
}
article {
  padding: 16px 0;
  border-top: 1px solid var(--rule);
  break-inside: avoid;
}
h2 {
  margin-bottom: 8px;
}
</style>
