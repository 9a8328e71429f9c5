<script setup lang="ts">
// The page of a document: its number and title, the acts on it, itself, and beside it what happened.
import HistoryTimeline from './HistoryTimeline.vue'

defineProps<{
  number: string
  title: string
  history: InstanceType<typeof HistoryTimeline>['$props']['entries']
  /** whose history goes on before that */
  of: InstanceType<typeof HistoryTimeline>['$props']['of']
  id: string
  /** on a phone: no margin, no history */
  field?: boolean
  /** why the last act was not done */
  problem?: string
}>()
</script>

<template>
  <article
    class="document stacks"
    :class="{ field }"
  >
    <div class="body">
      <header class="row">
        <div class="grow">
          <h1>
            <span class="quiet num">{{ number }}</span> {{ title }} <slot name="state" />
          </h1>
          <slot name="standing" />
        </div>
        <slot name="way" />
      </header>
      <div class="row acts no-print"><slot name="acts" /></div>
      <p
        v-if="problem"
        class="note bad"
        role="alert"
      >
        {{ problem }}
      </p>
      <slot />
    </div>
    <aside
      v-if="!field"
      class="no-print"
    >
      <slot name="beside" />
      <h2>History</h2>
      <HistoryTimeline
        :id="id"
        :entries="history"
        :of="of"
      />
    </aside>
  </article>
</template>

<style scoped>
.document {
  display: grid;
  grid-template-columns: minmax(0, 1fr) var(--beside);
  min-height: 100%;
}
.document.field {
  display: block;
}
.body {
  padding: 16px 20px;
  display: flex;
  flex-direction: column;
  gap: 12px;
  min-width: 0;
}
.field .body {
  padding: 12px;
}
header {
  align-items: flex-start;
}
.acts {
  flex-wrap: wrap;
}
aside {
  border-left: 1px solid var(--rule-2);
  background: #fbfcfb;
  padding: 16px;
  display: flex;
  flex-direction: column;
  gap: 12px;
  min-width: 0;
}
</style>
