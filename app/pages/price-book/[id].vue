<script setup lang="ts">
// One entry of the book: what it is beside what it costs and why; changes are worked out while they are typed and kept in one act.
import { computed } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Meanwhile from '~/base/Meanwhile.vue'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'
import StateTag from '~/base/StateTag.vue'
import { newId } from '~/lib/api'
import EntryAround from '~/pricebook/entry/EntryAround.vue'
import EntryForm from '~/pricebook/entry/EntryForm.vue'
import EntryPicture from '~/pricebook/entry/EntryPicture.vue'
import EntrySold from '~/pricebook/entry/EntrySold.vue'
import EntryWhy from '~/pricebook/entry/EntryWhy.vue'
import { useEntry } from '~/pricebook/entry/useEntry'

definePageMeta({ layout: 'office' })
const route = useRoute()
/** What has no field that it could stand beneath. */
const UNNAMED = ['parts', 'retired', 'pinned']
const fresh = computed(() => route.params.id === 'new')
const id = fresh.value ? newId() : String(route.params.id)
const of = useEntry(id, () => fresh.value)
const { entry, rules, problem, refresh, owns, form, typed, tried, odd } = of
</script>

<template>
  <section
    v-if="(entry || fresh) && rules"
    class="page entry"
  >
    <div class="row">
      <NuxtLink
        class="btn plain"
        to="/price-book"
        aria-label="Back to the price book"
        >←</NuxtLink
      >
      <h1 class="grow">
        {{ fresh ? 'New entry' : form.name }}
        <span
          v-if="entry"
          class="num quiet"
          >{{ entry.code }}</span
        >
        {{ ' ' }}
        <StateTag
          v-if="entry?.retired"
          word="retired"
          tone="soon"
        />
      </h1>
      <template v-if="owns">
        <ActButton
          v-if="entry"
          :disabled="typed.busy"
          @click="of.retire"
        >
          {{ entry.retired ? 'Bring back' : 'Retire' }}
        </ActButton>
        <ActButton
          primary
          :disabled="typed.busy || !typed.changed"
          @click="of.keep()"
        >
          Keep this entry
        </ActButton>
      </template>
    </div>
    <Notice :of="typed.problem" />
    <Meanwhile :names="UNNAMED" />
    <div class="two stacks">
      <EntryForm
        :of="of"
        :fresh="fresh"
      />
      <aside>
        <EntryPicture
          v-if="entry"
          :entry="entry"
          :owns="owns"
          :busy="typed.busy"
          @choose="of.choosePicture"
          @remove="of.keepPicture('')"
        />
        <EntryWhy
          :kind="form.kind"
          :entry="entry"
          :tried="tried"
          :odd="odd"
        />
        <template v-if="entry">
          <EntrySold
            :entry="entry"
            :owns="owns"
            :busy="typed.busy || typed.changed"
            @take-hours="of.takeHours"
          />
          <EntryAround :entry="entry" />
        </template>
      </aside>
    </div>
  </section>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
  />
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 400px;
  gap: 12px;
  align-items: start;
}
.entry :deep(.box) {
  padding: 14px;
  display: flex;
  flex-direction: column;
  gap: 10px;
}
aside {
  display: flex;
  flex-direction: column;
  gap: 12px;
}
</style>
