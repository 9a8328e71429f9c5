<script setup lang="ts">
// What it is about: the problem, the equipment, the firm's standing questions, a price to read out, pictures.
import { computed, ref, watch } from 'vue'
import { decimalToMinor, minorToDecimal } from '~~/core/money/formatMinor'
import { daysLate } from '~~/core/collections/ageing'
import { CALL_KINDS, sayWorkKind } from '~~/core/visits/workKinds'
import type { Answer } from '~~/shared/api'
import PriceSearch from '~/components/pricebook/PriceSearch.vue'
import { call, newId, type Problem } from '~/lib/api'
import { dataUrl } from '~/lib/dataUrl'
import { useAct } from '~/lib/useAct'
import type { Found } from '~/lib/book'
import type { Draft } from '~/stores/call'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import Choice from '~/base/Choice.vue'
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'
import FileInput from '~/base/FileInput.vue'
import DataTable from '~/base/DataTable.vue'

export type ReadLine = Answer<'searchPriceBook'>['items'][number] & { quantity: string }
const props = defineProps<{
  callId: string
  chosen: Answer<'caller'> | null
  setUp: Answer<'setUp'> | null
  problem: Problem | null
}>()
const draft = defineModel<Draft>({ required: true })
const lines = defineModel<ReadLine[]>('lines', { required: true })
const files = defineModel<Answer<'call'>['files']>('files', { required: true })
const session = useSession()
const box = ref<{ focus: () => void }>()
defineExpose({ focus: () => box.value?.focus() })
const { problem: failed, act, busy } = useAct()
const wrong = (path: string) => props.problem?.at(path) ?? ''

const equipment = computed(
  () => props.chosen?.equipment.filter((e) => e.siteId === draft.value.siteId) ?? [],
)
/** What was supplied here before: the item that failed is named exactly, with the work order that it came with. */
const supplied = computed(
  () => props.chosen?.supplied.filter((s) => s.siteId === draft.value.siteId) ?? [],
)
const suppliedWords = ref('')
function aboutSupplied(words: string) {
  const s = supplied.value.find((x) => `${x.name}, ${x.number}` === words)
  if (!s) return
  draft.value.problem = [
    draft.value.problem,
    `About: ${s.name} (${s.number}, ${session.day(s.on, 'withYear')})`,
  ]
    .filter(Boolean)
    .join('\n')
  suppliedWords.value = ''
}
/** The same thing again within a month is worth knowing before anybody drives. */
const again = computed(() => {
  const work = [...(props.chosen?.openWork ?? []), ...(props.chosen?.lastWork ?? [])].find(
    (w) =>
      w.equipmentId &&
      w.equipmentId === draft.value.equipmentId &&
      daysLate(w.on, session.today) <= 30,
  )
  return work ? { ...work, days: daysLate(work.on, session.today) } : null
})
const asked = computed(() => props.setUp?.questions.filter((q) => !q.retired) ?? [])
const answerOf = (id: string) => draft.value.answers.find((a) => a.questionId === id)?.answer ?? ''
function answer(id: string, question: string, value: string) {
  const rest = draft.value.answers.filter((a) => a.questionId !== id)
  draft.value.answers = value ? [...rest, { questionId: id, question, answer: value }] : rest
}
function addEntries(entries: Found[]) {
  const first = !lines.value.length
  const all = [...lines.value, ...entries.map((e) => ({ ...e, quantity: '1' }))]
  lines.value = all
  // What is sold says how long it takes, and what it is about, while nobody has said it. Setting up is done once.
  const works = (e: ReadLine) => e.kind === 'task' || e.kind === 'assembly'
  const seconds = all.reduce(
    (n, l, i) => n + (works(l) && all.slice(0, i).some(works) ? l.furtherSeconds : l.seconds),
    0,
  )
  if (first && seconds)
    draft.value.durationSeconds = Math.max(1800, Math.round(seconds / 900) * 900)
  if (!draft.value.problem) draft.value.problem = entries[0]!.name
}
/** The price to read out, worked out as booking would: agreed prices, further tasks, the time of day, what an assembly becomes. */
const readOut = ref<Answer<'tryLines'> | null>(null)
let turn = 0
watch(
  () =>
    JSON.stringify([
      props.chosen?.customerId,
      draft.value.date,
      draft.value.start,
      lines.value.map((l) => [l.id, l.quantity]),
    ]),
  async () => {
    const mine = ++turn
    const got = lines.value.length
      ? await call('tryLines', {
          body: {
            customerId: props.chosen?.customerId ?? null,
            date: draft.value.date ?? '',
            start: draft.value.start ?? '',
            lines: lines.value.map((l) => ({ entryId: l.id, quantity: l.quantity })),
          },
        }).catch(() => null)
      : null
    if (mine === turn) readOut.value = got
  },
  { immediate: true },
)
/** What each of the chosen entries comes to; an assembly is several lines of the answer. */
const read = computed(() =>
  lines.value.map((_, i) => {
    const own = readOut.value?.lines.filter((l) => l.of === i) ?? []
    const [only, ...others] = own
    if (!only) return null
    const { currency } = session.me!.company
    const net = own.reduce((n, l) => n + decimalToMinor(l.net.amount, currency), 0)
    return {
      net: { amount: minorToDecimal(net, currency), currency },
      from: others.length ? `becomes ${own.length} lines` : only.priceFrom,
    }
  }),
)
const skills = computed(() => [...new Set(lines.value.flatMap((l) => l.skills))])
/** The lines as they are read out, and what an agreement takes off them. */
const told = computed(() => [
  ...lines.value.map((l, i) => ({
    name: l.name,
    from: read.value[i]?.from ?? '',
    net: read.value[i] ? session.money(read.value[i]!.net, false) : '…',
    saving: false,
  })),
  ...(readOut.value
    ? [
        {
          name: readOut.value.own ? 'With their agreement' : 'With a care agreement',
          from: '',
          net: `−${session.money(readOut.value.saving, false)}`,
          saving: true,
        },
      ]
    : []),
])
async function addPictures(chosen: File[]) {
  await act(async () => {
    for (const file of chosen) {
      const data = await dataUrl(file)
      const id = newId()
      await call('addFile', { body: { id, callId: props.callId, name: file.name, data } })
      files.value = [...files.value, { id, name: file.name, mime: file.type }]
    }
  })
}
</script>

<template>
  <section class="what">
    <Field label="What is wrong"
      ><TextInput
        ref="box"
        v-model="draft.problem"
        rows="4"
      />
    </Field>
    <p
      v-if="wrong('problem')"
      class="wrong"
    >
      {{ wrong('problem') }}
    </p>
    <div class="row">
      <Field
        class="grow"
        label="Kind of call"
        ><Choice
          v-model="draft.kind"
          :options="CALL_KINDS.map((k) => ({ value: k, label: sayWorkKind(k) }))"
      /></Field>
      <Field
        class="grow"
        label="How they heard of us"
        ><Choice
          v-model="draft.source"
          :options="[
            { value: '', label: 'not asked' },
            ...(setUp?.sources ?? []).map((s) => ({ value: s, label: s })),
          ]"
      /></Field>
    </div>
    <Field
      v-if="equipment.length"
      label="About"
      ><Choice
        v-model="draft.equipmentId"
        :options="[
          { value: null, label: 'nothing in particular' },
          ...equipment.map((e) => ({
            value: e.id,
            label: `${[e.make, e.category, e.serial].filter(Boolean).join(' ')}${e.state ? `, ${e.state}` : ''}`,
          })),
        ]"
    /></Field>
    <p
      v-if="again"
      class="note warn"
      role="status"
    >
      <b
        >Same equipment,
        {{
          again.days === 0 ? 'today' : again.days === 1 ? 'yesterday' : `${again.days} days ago`
        }}:</b
      >{{ ' ' }}<NuxtLink :to="`/work/${again.id}`">{{ again.number }}</NuxtLink> {{ again.title }}
    </p>
    <Field
      v-if="supplied.length"
      label="Something that we supplied"
      ><TextInput
        v-model="suppliedWords"
        list="supplied"
        placeholder="type to find it"
        @change="aboutSupplied"
      /><datalist id="supplied">
        <option
          v-for="s in supplied"
          :key="s.workOrderId + s.name"
          :value="`${s.name}, ${s.number}`"
        >
          {{ session.day(s.on) }}
        </option>
      </datalist></Field
    >
    <PriceSearch
      label="Price to read out"
      @choose="addEntries"
    />
    <DataTable
      v-if="lines.length"
      class="read"
      label="What it would cost"
      :rows="told"
      :row-key="(_, i) => i"
      :columns="[
        { key: 'what' },
        { key: 'net', figures: true, tone: (l) => ({ quiet: l.saving }), text: (l) => l.net },
        { key: 'act', right: true },
      ]"
      :sums="readOut ? { what: 'Before tax, about', net: session.money(readOut.net) } : undefined"
    >
      <template #what="{ row: l }"
        ><span :class="{ quiet: l.saving }">{{ l.name }}</span
        ><span
          v-if="l.from"
          class="quiet small from"
          >{{ l.from }}</span
        ></template
      >
      <template #act="{ row: l, index }"
        ><ActButton
          v-if="!l.saving"
          quiet
          :aria-label="`Take out ${l.name}`"
          @click="lines = lines.filter((_, j) => j !== index)"
        >
          ×
        </ActButton></template
      >
    </DataTable>
    <p
      v-if="skills.length"
      class="small quiet"
    >
      Wants {{ skills.join(', ') }}
    </p>
    <fieldset
      v-if="asked.length"
      class="stack"
    >
      <legend>Asked of every caller</legend>
      <div
        v-for="q in asked"
        :key="q.id"
        class="question"
      >
        <span :id="`q${q.id}`">{{ q.text }}</span>
        <span
          v-if="q.kind === 'yes_no'"
          class="row"
          role="group"
          :aria-labelledby="`q${q.id}`"
          ><ActButton
            v-for="v in ['yes', 'no']"
            :key="v"
            :on="answerOf(q.id) === v"
            :aria-pressed="answerOf(q.id) === v"
            @click="answer(q.id, q.text, answerOf(q.id) === v ? '' : v)"
          >
            {{ v }}
          </ActButton></span
        >
        <Choice
          v-else-if="q.kind === 'choice'"
          :aria-label="q.text"
          :model-value="answerOf(q.id)"
          :options="[{ value: '', label: '–' }, ...q.choices.map((c) => ({ value: c, label: c }))]"
          @change="answer(q.id, q.text, $event)"
        />
        <TextInput
          v-else
          :aria-labelledby="`q${q.id}`"
          :model-value="answerOf(q.id)"
          @input="answer(q.id, q.text, $event)"
        />
      </div>
    </fieldset>
    <Field label="Their order number"><TextInput v-model="draft.orderNumber" /></Field>
    <div class="row wrap">
      <a
        v-for="f in files"
        :key="f.id"
        class="picture"
        :href="`/api/v1/files/${f.id}`"
        target="_blank"
        :title="f.name"
        ><img
          v-if="f.mime.startsWith('image/')"
          :src="`/api/v1/files/${f.id}`"
          :alt="f.name"
        /><span v-else>{{ f.name }}</span></a
      >
      <FileInput
        :label="busy ? 'Keeping…' : 'Add pictures'"
        accept="image/png,image/jpeg,image/webp,application/pdf"
        multiple
        :disabled="busy"
        @choose="addPictures"
      />
    </div>
    <p
      v-if="failed"
      class="wrong"
      role="alert"
    >
      {{ failed.message }}
    </p>
  </section>
</template>

<style scoped>
section {
  padding: 14px 16px;
  overflow: auto;
  display: flex;
  flex-direction: column;
  gap: 10px;
  border-right: 1px solid var(--rule-2);
}
.wrap {
  flex-wrap: wrap;
}
.read td {
  padding: 6px 4px;
  vertical-align: middle;
}
.read .btn {
  min-height: 22px;
  padding: 0 6px;
}
fieldset {
  border: 1px solid var(--rule-2);
  border-radius: 4px;
  padding: 6px 10px 10px;
  margin: 0;
  gap: 6px;
}
legend {
  font-size: 12px;
  color: var(--ink-2);
  padding: 0 4px;
}
.question {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 122px;
  gap: 8px;
  align-items: center;
}
.question .btn {
  min-height: 28px;
  padding: 0 10px;
}
.picture img {
  width: 52px;
  height: 52px;
  object-fit: cover;
  border: 1px solid var(--rule-2);
  border-radius: 4px;
}
.from {
  display: block;
}
</style>
