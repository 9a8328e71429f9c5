<script setup lang="ts">
// Somebody else pays: found by name, number or address, or entered anew, without leaving the quote.
import { ref, watch } from 'vue'
import type { Answer } from '~~/shared/api'
import { call, newId, Problem } from '~/lib/api'
import ActButton from '~/base/ActButton.vue'
import Field from '~/base/Field.vue'
import OneField from '~/base/OneField.vue'
import TextInput from '~/base/TextInput.vue'

defineProps<{ place: { text: string } }>()
const emit = defineEmits<{ choose: [customerId: string] }>()
const words = ref('')
const entering = ref(false)
const items = ref<Answer<'matches'>['items']>([])
/** why nobody could be looked for */
const unseen = ref('')
let turn = 0
watch(words, async (w) => {
  const mine = ++turn
  if (w.trim().length < 2) return void (items.value = [])
  const got = await call('matches', { query: { q: w.trim() } }).catch((error: Problem) => error)
  if (mine !== turn) return
  unseen.value = got instanceof Problem ? got.message : ''
  items.value = got instanceof Problem ? [] : got.items
})
async function enter(line1: string) {
  const body = { id: newId(), siteId: newId(), name: words.value, line1 }
  emit('choose', (await call('newCustomer', { body })).customerId)
}
</script>

<template>
  <div class="sheet payer stack">
    <Field label="Who pays"
      ><TextInput
        v-model="words"
        autofocus
        placeholder="Name, number, address"
        autocomplete="off"
    /></Field>
    <div
      v-for="m in items.slice(0, 5)"
      :key="m.customerId"
      class="row"
    >
      <span class="grow"
        ><b>{{ m.name }}</b
        >{{ ' '
        }}<span class="quiet small">{{
          [m.phone, m.place].filter(Boolean).join(' · ')
        }}</span></span
      ><ActButton @click="emit('choose', m.customerId)"> Pays </ActButton>
    </div>
    <p
      v-if="unseen"
      class="note bad"
      role="alert"
    >
      Nobody could be looked for: {{ unseen }}
    </p>
    <OneField
      v-if="entering"
      shown
      primary
      label="Their address"
      :placeholder="place.text"
      :act="`Enter “${words}”`"
      :send="enter"
    />
    <ActButton
      v-else-if="words.trim().length > 1"
      @click="entering = true"
    >
      Enter “{{ words.trim() }}” as a new customer
    </ActButton>
  </div>
</template>

<style scoped>
.payer {
  padding: 12px;
}
</style>
