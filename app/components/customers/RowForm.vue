<script setup lang="ts">
// A small form for a site, a contact or a piece of equipment: a few named fields, kept in one act.
import { reactive } from 'vue'
import CustomFields from '~/components/settings/CustomFields.vue'
import { useAct } from '~/lib/useAct'

export interface RowField {
  key: string
  label: string
  kind?: 'date' | 'area' | 'choice'
  choices?: [string, string][]
}
const props = defineProps<{
  title: string
  fields: readonly RowField[]
  values: Record<string, string | null>
  custom?: { id: string; name: string; kind: string; choices: string[] }[]
  customValues?: Record<string, string>
  save: (values: Record<string, string | null>, custom: Record<string, string>) => Promise<void>
  remove?: () => Promise<void>
  copy?: { label: string; values: Record<string, string> }
}>()
const emit = defineEmits<{ close: [] }>()
const form = reactive<Record<string, string | null>>({ ...props.values })
const own = reactive({ values: { ...props.customValues } as Record<string, string> })
const { busy, problem, act } = useAct()
const keep = () =>
  act(async () => {
    await props.save({ ...form }, own.values)
    emit('close')
  })
const takeOut = () =>
  act(async () => {
    await props.remove!()
    emit('close')
  })
const text = (key: string) => form[key] ?? ''
</script>

<template>
  <el-dialog
    model-value
    :title="title"
    width="440"
    @close="emit('close')"
  >
    <form
      class="stack"
      @submit.prevent="keep"
    >
      <button
        v-if="copy"
        type="button"
        class="btn"
        @click="Object.assign(form, copy.values)"
      >
        {{ copy.label }}
      </button>
      <label
        v-for="f in fields"
        :key="f.key"
        class="field"
        ><span>{{ f.label }}</span>
        <textarea
          v-if="f.kind === 'area'"
          class="plain"
          rows="2"
          :value="text(f.key)"
          @input="form[f.key] = ($event.target as HTMLTextAreaElement).value"
        />
        <select
          v-else-if="f.kind === 'choice'"
          class="plain"
          :value="text(f.key)"
          @change="form[f.key] = ($event.target as HTMLSelectElement).value || null"
        >
          <option
            v-for="[k, n] in f.choices"
            :key="k"
            :value="k"
          >
            {{ n }}
          </option>
        </select>
        <input
          v-else
          class="plain"
          :type="f.kind ?? 'text'"
          :value="text(f.key)"
          @input="form[f.key] = ($event.target as HTMLInputElement).value"
        />
        <span
          v-if="problem?.at(f.key)"
          class="wrong"
          >{{ problem.at(f.key) }}</span
        ></label
      >
      <CustomFields
        v-if="custom?.length"
        v-model="own.values"
        :fields="custom"
      />
      <p
        v-if="problem"
        class="note bad"
        role="alert"
      >
        {{ problem.message }}
      </p>
      <div class="row">
        <button
          class="btn act grow"
          :disabled="busy"
        >
          Keep</button
        ><button
          v-if="remove"
          type="button"
          class="btn"
          :disabled="busy"
          @click="takeOut"
        >
          Take out
        </button>
      </div>
    </form>
  </el-dialog>
</template>
