<script setup lang="ts">
// One kind of work: what it is called, how long it usually takes, what whoever goes must be able to do, what it charges.
import { onMounted, ref } from 'vue'
import { FIRST_KIND } from '~~/core/visits/workKinds'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import Form from '~/base/Form.vue'
import FormFields from '~/base/FormFields.vue'
import Notice from '~/base/Notice.vue'
import { field } from '~/base/fields'
import { useForm } from '~/base/useForm'
import PriceSearch from '~/components/pricebook/PriceSearch.vue'
import { call } from '~/lib/api'
import { entriesNamed, type Found } from '~/lib/book'
import { useSession } from '~/stores/session'
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
    charges: [...(props.of?.charges ?? [])],
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
  ...{ skills: [...props.of.skills], charges: [...props.of.charges] },
}
/** What its charges are called; one that is gone from the book charges nothing. */
const names = ref(new Map<string, string>())
/** what is said of one that is not among them */
const nameless = ref('…')
const session = useSession()
onMounted(async () => {
  const { found, isSure } = await entriesNamed(session.me!.person.id, form.values.charges)
  take(found)
  nameless.value = isSure ? 'gone from the book' : 'cannot be looked up now'
})
function take(entries: readonly Found[]) {
  names.value = new Map([...names.value, ...entries.map(({ id, name }) => [id, name] as const)])
}
function add(entries: Found[]) {
  take(entries)
  form.values.charges = [...new Set([...form.values.charges, ...entries.map(({ id }) => id)])]
}
const takeOut = (id: string) => {
  form.values.charges = form.values.charges.filter((one) => one !== id)
}
const keep = () =>
  form.send(async () => {
    const { name, retired, charges } = form.values
    const [minutes, skills] = [Number(form.values.minutes), choicesIn(form.values.skills)]
    const body = { code: props.of?.code ?? '', name, minutes, skills, charges, retired, shown }
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
      <Field
        v-if="form.values.charges.length"
        label="What a call of it charges"
        name="charges"
      >
        <span
          v-for="id in form.values.charges"
          :key="id"
          class="chip"
          >{{ names.get(id) ?? nameless }}
          <ActButton
            quiet
            class="x"
            :aria-label="`Take out ${names.get(id) ?? nameless}`"
            @click="takeOut(id)"
          >
            ×
          </ActButton></span
        >
      </Field>
      <PriceSearch
        label="A further charge, out of the price book"
        not="assembly"
        :choose="add"
      />
      <Check
        v-if="of && of.code !== FIRST_KIND"
        v-model="form.values.retired"
        name="retired"
        >It is not proposed any more</Check
      >
      <p class="quiet small">
        A call proposes these minutes, looks for people who can do it, and reads out what it
        charges; leaving that out takes a reason. Work that has this kind keeps it.
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

<style scoped>
.x {
  min-height: 20px;
  padding: 0 2px;
}
</style>
