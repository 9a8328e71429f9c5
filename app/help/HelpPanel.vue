<script setup lang="ts">
// What this screen is for, what can be done on it, its keys; and every other page of the guide, found by its words.
import { computed, ref, watch } from 'vue'
import ActButton from '~/base/ActButton.vue'
import DataTable from '~/base/DataTable.vue'
import SidePanel from '~/base/SidePanel.vue'
import TextInput from '~/base/TextInput.vue'
import { shortcutsNow } from '~/lib/shortcuts'
import GuideText from './GuideText.vue'
import { nameOf, useGuide } from './useGuide'

const props = defineProps<{ /** there are no keys, and no office around it */ onPhone?: boolean }>()
const emit = defineEmits<{ close: [] }>()
const route = useRoute()
const { isLost, find, pageOf } = useGuide()
const words = ref('')
/** The page that is read, where it is another than the screen’s. */
const chosen = ref('')
watch(
  () => route.path,
  () => (chosen.value = ''),
)
const here = computed(() => nameOf(route))
const page = computed(() => pageOf(chosen.value || here.value))
const found = computed(() => (words.value.trim() ? find.value(words.value) : []))
const keys = computed(() => (chosen.value || props.onPhone ? [] : shortcutsNow()))
function read(name: string) {
  chosen.value = name === here.value ? '' : name
  words.value = ''
}
const firstOfFound = () => {
  if (found.value[0]) read(found.value[0].name)
}
</script>

<template>
  <SidePanel
    title="Help"
    :about="here"
    @close="emit('close')"
  >
    <div class="stack">
      <TextInput
        v-model="words"
        aria-label="Search the help"
        placeholder="Search the help"
        @keydown.enter="firstOfFound"
      />
      <template v-if="words.trim()">
        <ul
          v-if="found.length"
          aria-label="Found in the help"
          class="found"
        >
          <li
            v-for="one in found"
            :key="one.name"
          >
            <ActButton
              quiet
              @click="read(one.name)"
              >{{ one.title }}</ActButton
            >
          </li>
        </ul>
        <p
          v-else
          class="quiet"
        >
          No page has these words.
        </p>
      </template>
      <p
        v-else-if="isLost"
        role="status"
      >
        The help cannot be fetched at this moment. Close it, and open it again when the line is
        back.
      </p>
      <template v-else-if="page">
        <ActButton
          v-if="chosen"
          quiet
          class="back"
          @click="chosen = ''"
          >← This screen</ActButton
        >
        <h3>{{ page.title }}</h3>
        <GuideText
          :of="page"
          @go="read"
        />
      </template>
      <template v-if="keys.length && !words.trim()">
        <h3>Keys</h3>
        <DataTable
          label="Keys"
          :rows="keys"
          :row-key="({ keys: name }) => name"
          :columns="[
            { key: 'keys', look: 'nowrap' },
            { key: 'does', text: ({ does }) => does },
          ]"
        >
          <template #keys="{ row: { keys: name } }">
            <kbd>{{ name }}</kbd>
          </template>
        </DataTable>
      </template>
      <p
        v-if="!onPhone"
        class="small"
      >
        <NuxtLink to="/help">The whole guide, to read or print</NuxtLink>
      </p>
    </div>
  </SidePanel>
</template>

<style scoped>
.found {
  padding: 0;
  list-style: none;
}
.back {
  align-self: flex-start;
}
</style>
