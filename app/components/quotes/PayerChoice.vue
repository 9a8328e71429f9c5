<script setup lang="ts">
// Somebody else pays: found by name, number or address, or entered anew, without leaving the quote.
import { ref, watch } from 'vue'
import type { Answer } from '~~/shared/api'
import { call, newId, Problem } from '~/lib/api'
import { useAct } from '~/lib/useAct'

const props = defineProps<{ place: { text: string } }>()
const emit = defineEmits<{ choose: [customerId: string] }>()
const words = ref('')
const line1 = ref('')
const entering = ref(false)
const items = ref<Answer<'matches'>['items']>([])
/** why nobody could be looked for */
const unseen = ref('')
const { busy, problem, act } = useAct()
let turn = 0
watch(words, async (w) => {
  const mine = ++turn
  if (w.trim().length < 2) return void (items.value = [])
  const got = await call('matches', { query: { q: w.trim() } }).catch((error: Problem) => error)
  if (mine !== turn) return
  unseen.value = got instanceof Problem ? got.message : ''
  items.value = got instanceof Problem ? [] : got.items
})
const enter = () =>
  act(async () => {
    const made = await call('newCustomer', {
      body: { id: newId(), siteId: newId(), name: words.value, line1: line1.value },
    })
    emit('choose', made.customerId)
  })
</script>

<template>
  <div class="sheet payer stack">
    <label class="field"
      ><span>Who pays</span
      ><input
        v-model="words"
        class="plain"
        autofocus
        placeholder="Name, number, address"
        autocomplete="off"
    /></label>
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
      ><button
        class="btn"
        @click="emit('choose', m.customerId)"
      >
        Pays
      </button>
    </div>
    <p
      v-if="unseen"
      class="note bad"
      role="alert"
    >
      Nobody could be looked for: {{ unseen }}
    </p>
    <form
      v-if="entering"
      class="row"
      @submit.prevent="enter"
    >
      <label class="field grow"
        ><span>Their address</span
        ><input
          v-model="line1"
          class="plain"
          :placeholder="props.place.text"
        /><span
          v-if="problem?.at('line1')"
          class="wrong"
          >{{ problem.at('line1') }}</span
        ></label
      ><button
        class="btn act"
        :disabled="busy"
      >
        Enter “{{ words }}”
      </button>
    </form>
    <button
      v-else-if="words.trim().length > 1"
      class="btn"
      @click="entering = true"
    >
      Enter “{{ words.trim() }}” as a new customer
    </button>
  </div>
</template>

<style scoped>
.payer {
  padding: 12px;
}
</style>
