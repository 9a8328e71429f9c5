<script setup lang="ts">
// One kind of work: what it is called, how long it usually takes, what whoever goes must be able to do.
import { FIRST_KIND } from '~~/core/visits/workKinds'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Dialog from '~/base/Dialog.vue'
import Form from '~/base/Form.vue'
import FormFields from '~/base/FormFields.vue'
import Notice from '~/base/Notice.vue'
import { field } from '~/base/fields'
import { useForm } from '~/base/useForm'
import { call } from '~/lib/api'
import type { Answer } from '~~/shared/api'
import { choicesIn } from './setUp'

type Kinds = Answer<'workKinds'>
const props = defineProps<{ of: Kinds['items'][number] | null }>()
const emit = defineEmits<{ kept: [kinds: Kinds]; close: [] }>()
const form = useForm(
  {
    name: props.of?.name ?? '',
    minutes: String(props.of?.minutes ?? 60),
    skills: props.of?.skills.join(', ') ?? '',
    retired: props.of?.retired ?? false,
  },
  { draft: `kind ${props.of?.code ?? ''}` },
)
const FIELDS = [
  [
    field('name', 'What it is called'),
    field('minutes', 'Minutes that it takes', { kind: 'figures', narrow: true }),
  ],
  field('skills', 'Skills that it needs, with commas between'),
]
/** As it stood when it was opened. */
const shown = props.of && {
  ...{ name: props.of.name, minutes: props.of.minutes, retired: props.of.retired },
  skills: [...props.of.skills],
}
const keep = () =>
  form.send(async () => {
    const { name, retired } = form.values
    const [minutes, skills] = [Number(form.values.minutes), choicesIn(form.values.skills)]
    const body = { code: props.of?.code ?? '', name, minutes, skills, retired, shown }
    emit('kept', await call('keepWorkKind', { body }))
    emit('close')
  })
</script>

<template>
  <Dialog
    :title="of ? `Kind of work: ${of.name}` : 'A further kind of work'"
    width="460"
    @close="emit('close')"
  >
    <Form
      :of="form"
      @submit="keep"
    >
      <FormFields :fields="FIELDS" />
      <Check
        v-if="of && of.code !== FIRST_KIND"
        v-model="form.values.retired"
        name="retired"
        >It is not proposed any more</Check
      >
      <p class="quiet small">
        A call proposes these minutes and looks for people who can do it. Work that has this kind
        keeps it.
      </p>
      <Notice />
      <ActButton
        primary
        submit
        >Keep this kind</ActButton
      >
    </Form>
  </Dialog>
</template>
