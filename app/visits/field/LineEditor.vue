<script setup lang="ts">
// Beneath a line that was tapped: its quantity and price, whether it is done, and taking it out.
import Notice from '~/base/Notice.vue'
import Meanwhile from '~/base/Meanwhile.vue'
import { provideForm, useFormAbout } from '~/base/useForm'
import { call } from '~/lib/api'
import type { Line, LineChange, Work } from './useFieldVisit'

const props = defineProps<{ line: Line; busy: boolean; refresh: () => Promise<unknown> }>()
const emit = defineEmits<{ changed: [work: Work]; close: [] }>()
const form = useFormAbout(
  () => props.line,
  ({ quantity, unitPrice }) => ({ quantity, unitPrice }),
  props.refresh,
  { draft: `line ${props.line.id}` },
)
provideForm(form)
const params = { id: props.line.id }
/** Keeps what was typed, together with what is pressed; of a line that is taken out nothing is kept. */
const keep = (pressed: LineChange = {}) =>
  form.keep(async (version) => {
    const typed = pressed.removed ? {} : form.changes()
    const body = { version, ...typed, ...pressed }
    emit('changed', await call('changeLine', { params, body }))
    emit('close')
  })
</script>

<template>
  <p
    v-if="Number(line.billed.amount)"
    class="edit quiet small"
  >
    This line is on an invoice.
  </p>
  <form
    v-else
    class="edit"
    @submit.prevent="keep()"
  >
    <div class="row">
      <label class="field grow">
        <span>Quantity</span>
        <input
          v-model="form.values.quantity"
          class="plain num"
          inputmode="decimal"
        />
        <span
          v-if="form.wrong('quantity')"
          class="wrong"
          >{{ form.wrong('quantity') }}</span
        >
        <Meanwhile :names="['quantity']" />
      </label>
      <label class="field grow">
        <span>Each, on this work order only</span>
        <input
          v-model="form.values.unitPrice"
          class="plain num"
          inputmode="decimal"
        />
        <span
          v-if="form.wrong('unitPrice')"
          class="wrong"
          >{{ form.wrong('unitPrice') }}</span
        >
        <Meanwhile :names="['unitPrice']" />
      </label>
    </div>
    <div class="row">
      <button
        class="btn act grow"
        :disabled="busy || form.busy"
      >
        Keep
      </button>
      <button
        type="button"
        class="btn"
        :disabled="busy || form.busy"
        @click="keep({ done: !line.done })"
      >
        {{ line.done ? 'Not done' : 'Done' }}
      </button>
      <button
        type="button"
        class="btn"
        :disabled="busy || form.busy"
        @click="keep({ removed: true })"
      >
        Take out
      </button>
    </div>
    <Notice v-if="form.problem && !form.problem.errors.length" />
  </form>
</template>

<style scoped>
.edit {
  padding: 0 16px 14px;
  display: flex;
  flex-direction: column;
  gap: 10px;
}
</style>
