<script setup lang="ts">
// The shortcuts of this screen, and those of every screen.
import { shortcutsNow } from '~/lib/shortcuts'
import DataTable from '~/base/DataTable.vue'
import Dialog from '~/base/Dialog.vue'

const emit = defineEmits<{ close: [] }>()
const shortcuts = shortcutsNow()
</script>

<template>
  <Dialog
    title="Shortcuts"
    width="480"
    @close="emit('close')"
  >
    <DataTable
      :rows="shortcuts"
      :row-key="({ keys }) => keys"
      :columns="[
        { key: 'keys', look: 'nowrap' },
        { key: 'does', text: ({ does }) => does },
      ]"
    >
      <template #keys="{ row: { keys } }">
        <kbd>{{ keys }}</kbd>
      </template>
    </DataTable>
  </Dialog>
</template>
