<script setup lang="ts">
// Who is calling: matches while it is typed with why each fits, a new customer in the same place, and what to know of the one chosen.
import { computed, onMounted, ref, watch } from 'vue'
import { formatPhone } from '~~/core/text/phone'
import type { Answer } from '~~/shared/api'
import { call, newId, type Problem } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import type { Draft } from '~/stores/call'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Choice from '~/base/Choice.vue'
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'

const props = defineProps<{
  chosen: Answer<'caller'> | null
  setUp: Answer<'setUp'> | null
  problem: Problem | null
}>()
const emit = defineEmits<{ choose: [customerId: string, siteId: string | null]; clear: [] }>()
const draft = defineModel<Draft>({ required: true })
const session = useSession()
const matches = ref<Answer<'matches'>['items']>([])
const at = ref(0)
/** why nobody could be looked for */
const unseen = ref('')
const who = ref<{ focus: () => void }>()
const name = ref<{ focus: () => void }>()
defineExpose({ focus: () => who.value?.focus() })
const { busy, problem: failed, act } = useAct()
const wrong = (path: string) => failed.value?.at(path) || props.problem?.at(path) || ''

let turn = 0
let pending: Promise<void> = Promise.resolve()
async function search() {
  const words = draft.value.query.trim()
  const mine = ++turn
  if (words.length < 2) return void (matches.value = [])
  try {
    const got = await call('matches', { query: { q: words } })
    if (mine !== turn) return
    matches.value = got.items
    unseen.value = ''
  } catch (error) {
    // Nobody was looked for: that is not “nobody was found”.
    if (mine !== turn) return
    matches.value = []
    unseen.value = (error as Problem).message
  }
  at.value = 0
}
watch(
  () => draft.value.query,
  () => {
    if (!props.chosen && !draft.value.isNew) pending = search()
  },
)
onMounted(() => {
  if (!props.chosen && !draft.value.isNew && draft.value.query) void search()
})
function choose(customerId: string, siteId: string | null) {
  matches.value = []
  turn++
  emit('choose', customerId, siteId)
}
function beginNew() {
  const q = draft.value.query
  const number = /^[\d\s().+-]{4,}$/.test(q)
  Object.assign(draft.value, {
    isNew: true,
    name: number ? '' : q,
    phone: number ? q : draft.value.phone,
  })
  matches.value = []
  setTimeout(() => name.value?.focus())
}
function key(e: KeyboardEvent) {
  if (e.key === 'ArrowDown') at.value = Math.min(matches.value.length, at.value + 1)
  else if (e.key === 'ArrowUp') at.value = Math.max(0, at.value - 1)
  else if (e.key === 'Enter' && !e.ctrlKey && !e.metaKey) {
    // Faster than the answer: what was typed is meant, not what is on the screen.
    void pending.then(() => {
      const m = matches.value[at.value]
      if (m) choose(m.customerId, m.siteId)
      else if (draft.value.query.trim() && !unseen.value) beginNew()
    })
  } else return
  e.preventDefault()
}

// Nobody is entered twice: who is perhaps the same is shown while the new one is typed.
const alike = ref<Answer<'alike'>['items']>([])
const alikeUnseen = ref(false)
let waiting: ReturnType<typeof setTimeout> | undefined
watch(
  () =>
    draft.value.isNew &&
    [draft.value.name, draft.value.phone, draft.value.email, draft.value.line1].join('|'),
  (typed) => {
    clearTimeout(waiting)
    if (!typed || typed.length < 7) return void (alike.value = [])
    waiting = setTimeout(async () => {
      const d = draft.value
      const got = await call('alike', {
        body: { name: d.name, phone: d.phone, email: d.email, line1: d.line1 },
      }).catch(() => null)
      alikeUnseen.value = got === null
      alike.value = got?.items ?? []
    }, 200)
  },
  { immediate: true },
)
const neat = () => {
  draft.value.phone = formatPhone(draft.value.phone, props.setUp?.country ?? 'US')
}
const saveNew = () =>
  act(async () => {
    const d = draft.value
    const made = await call('newCustomer', {
      body: {
        id: newId(),
        siteId: newId(),
        name: d.name,
        phone: d.phone,
        email: d.email,
        line1: d.line1,
        town: d.town,
        postcode: d.postcode,
        source: d.source,
        prospect: d.prospect,
      },
    })
    choose(made.customerId, made.sites[0]!.id)
  })
const site = computed(() => props.chosen?.sites.find((s) => s.id === draft.value.siteId))
const contacts = computed(
  () => props.chosen?.contacts.filter((k) => !k.siteId || k.siteId === draft.value.siteId) ?? [],
)
function speak(contactId: string) {
  const k = props.chosen?.contacts.find((c) => c.id === contactId)
  Object.assign(draft.value, {
    contactId: k?.id ?? null,
    speaking: k?.name ?? '',
    phone: k?.phone || props.chosen?.phone || '',
  })
}
</script>

<template>
  <section class="who">
    <Field label="Who is calling">
      <TextInput
        ref="who"
        v-model="draft.query"
        class="big"
        placeholder="Name, number, address, serial number"
        autocomplete="off"
        role="combobox"
        :aria-expanded="matches.length > 0"
        aria-controls="matches"
        @keydown="key"
    /></Field>
    <p
      v-if="wrong('customerId') && !chosen"
      class="wrong"
    >
      {{ wrong('customerId') }}
    </p>
    <p
      v-if="unseen && !chosen && !draft.isNew"
      class="note bad"
      role="alert"
    >
      Nobody could be looked for: {{ unseen }} <ActButton @click="search"> Look again</ActButton
      >{{ ' ' }}<ActButton @click="beginNew"> Enter as new </ActButton>
    </p>
    <ul
      v-else-if="!chosen && !draft.isNew && draft.query.trim().length > 1"
      id="matches"
      role="listbox"
      aria-label="Who it could be"
    >
      <li
        v-for="(m, i) in matches"
        :key="m.customerId"
        role="option"
        :aria-selected="i === at"
        :class="{ at: i === at }"
        @mousedown.prevent="choose(m.customerId, m.siteId)"
      >
        <b>{{ m.name }}</b>{{ ' '
        }}<span
          v-if="m.prospect"
          class="chip"
          >prospect</span
        >{{ ' '
        }}<span
          v-if="m.stopWork"
          class="chip late"
          >stop work</span
        >{{ ' '
        }}<span
          v-if="m.late"
          class="late small"
          >owes {{ session.money(m.owed) }}, {{ m.late }} days late</span
        >{{ ' ' }}<br /><span class="quiet small"
          >{{ [m.phone, m.place].filter(Boolean).join(' · ')
          }}<template v-if="m.open"> · {{ m.open }} open</template></span
        >{{ ' ' }}<br /><span class="small why">by {{ m.why.join(', ') }}</span>
      </li>
      <li
        role="option"
        :aria-selected="at === matches.length"
        :class="{ at: at === matches.length }"
        @mousedown.prevent="beginNew"
      >
        <b class="good">New customer “{{ draft.query }}”</b>
      </li>
    </ul>
    <div
      v-if="draft.isNew && !chosen"
      class="new stack"
    >
      <Field
        label="Name"
        :error="wrong('name')"
        ><TextInput
          ref="name"
          v-model="draft.name"
      /></Field>
      <Field label="Telephone"
        ><TextInput
          v-model="draft.phone"
          inputmode="tel"
          @blur="neat"
      /></Field>
      <p
        v-if="alikeUnseen"
        class="note warn"
        role="status"
      >
        Whether they are known already could not be looked up. Look under their number before you
        enter them twice.
      </p>
      <div
        v-if="alike.length"
        class="note warn"
        role="status"
      >
        <b>Perhaps known already</b>
        <div
          v-for="a in alike"
          :key="a.customerId"
          class="row alike"
        >
          <span class="grow"
            >{{ a.name }}<br /><span class="small"
              >{{ [a.phone, a.place].filter(Boolean).join(' · ') }}<br />{{
                a.reasons.join(', ')
              }}</span
            ></span
          ><ActButton @click="choose(a.customerId, null)"> It is them </ActButton>
        </div>
      </div>
      <Field
        label="Address of the site"
        :error="wrong('line1')"
        ><TextInput v-model="draft.line1"
      /></Field>
      <div class="row">
        <Field
          class="grow"
          label="Town"
          ><TextInput v-model="draft.town" /></Field
        ><Field
          style="width: 90px"
          label="Postcode"
          ><TextInput v-model="draft.postcode"
        /></Field>
      </div>
      <Field
        label="Mail address"
        :error="wrong('email')"
        ><TextInput
          v-model="draft.email"
          type="email"
      /></Field>
      <Check v-model="draft.prospect"> Only asks for a price so far</Check>
      <div class="row">
        <ActButton
          primary
          :disabled="busy"
          @click="saveNew"
        >
          Keep this customer</ActButton
        ><ActButton @click="draft.isNew = false"> Not new </ActButton>
      </div>
    </div>
    <template v-if="chosen">
      <div class="row">
        <b class="grow name"
          >{{ chosen.name }}
          <span
            v-if="chosen.prospect"
            class="chip"
            >prospect</span
          >{{ ' '
          }}<span
            v-for="t in chosen.tags"
            :key="t"
            class="chip"
            >{{ t }}</span
          ></b
        ><ActButton
          quiet
          @click="emit('clear')"
        >
          Someone else
        </ActButton>
      </div>
      <p
        v-if="chosen.stopWork || chosen.overLimit"
        class="note bad"
      >
        <b>{{ chosen.stopWork ? 'Stop work.' : 'Over the limit.' }}</b>
        {{
          chosen.stopWork ||
          `Owes ${session.money(chosen.owed)}, the limit is ${session.money(chosen.creditLimit!)}`
        }}
      </p>
      <Field label="Where"
        ><Choice
          v-model="draft.siteId"
          :options="[
            { value: null, label: 'Choose the site' },
            ...chosen.sites.map((s) => ({
              value: s.id,
              label: [s.name, s.line1, s.town].filter(Boolean).join(', '),
            })),
          ]"
      /></Field>
      <p
        v-if="wrong('siteId')"
        class="wrong"
      >
        {{ wrong('siteId') }}
      </p>
      <p
        v-if="site?.territory"
        class="small quiet"
      >
        {{ site.territory }}<template v-if="site.accessNote"> · {{ site.accessNote }}</template>
      </p>
      <Field
        v-if="contacts.length"
        label="Contact"
        ><Choice
          :model-value="draft.contactId ?? ''"
          :options="[
            { value: '', label: 'somebody else' },
            ...contacts.map((k) => ({
              value: k.id,
              label: `${k.name}${k.role ? `, ${k.role}` : ''}`,
            })),
          ]"
          @change="speak($event)"
      /></Field>
      <div class="row">
        <Field
          class="grow"
          label="Speaking with"
          ><TextInput v-model="draft.speaking" /></Field
        ><Field
          class="grow"
          label="Their number"
          ><TextInput
            v-model="draft.phone"
            inputmode="tel"
            @blur="neat"
        /></Field>
      </div>
      <ul
        v-if="chosen.notes.length"
        class="notes"
        aria-label="What matters"
      >
        <li
          v-for="n in chosen.notes"
          :key="n"
        >
          {{ n }}
        </li>
      </ul>
      <dl>
        <div>
          <dt>Owes</dt>
          <dd
            class="num"
            :class="{ late: chosen.late }"
          >
            {{ session.money(chosen.owed)
            }}<template v-if="Number(chosen.credits.amount)"
              >, a credit of {{ session.money(chosen.credits) }} taken off</template
            ><template v-if="chosen.late"> · {{ chosen.late }} days late</template>
          </dd>
        </div>
        <div
          v-for="a in chosen.agreements"
          :key="a.id"
        >
          <dt>{{ a.plan }}</dt>
          <dd :class="{ soon: a.state !== 'in force' }">{{ a.state }}</dd>
        </div>
        <div v-if="chosen.exempt">
          <dt>Tax</dt>
          <dd>{{ chosen.exempt }}</dd>
        </div>
        <div
          v-for="q in chosen.quotes"
          :key="q.id"
        >
          <dt>
            <NuxtLink
              :to="`/quotes/${q.id}`"
              class="num"
              >{{ q.number }}</NuxtLink
            >
          </dt>
          <dd>{{ q.title }} · {{ q.waiting }} · {{ session.money(q.total) }}</dd>
        </div>
        <div
          v-for="w in chosen.openWork"
          :key="w.id"
        >
          <dt>
            <NuxtLink
              :to="`/work/${w.id}`"
              class="num"
              >{{ w.number }}</NuxtLink
            >
          </dt>
          <dd>{{ w.title }} · {{ session.state(w.state) }}</dd>
        </div>
        <div
          v-for="w in chosen.lastWork.slice(0, 3)"
          :key="`l${w.id}`"
        >
          <dt class="nowrap">{{ session.day(w.on) }}</dt>
          <dd>
            <NuxtLink :to="`/work/${w.id}`">{{ w.title }}</NuxtLink>
          </dd>
        </div>
      </dl>
    </template>
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
ul {
  list-style: none;
  margin: -8px 0 0;
  padding: 0;
  border: 1px solid var(--rule-2);
  background: var(--sheet);
}
li {
  padding: 7px 10px;
  cursor: pointer;
}
li + li {
  border-top: 1px solid var(--rule);
}
li.at {
  background: var(--green-1);
}
.why {
  color: var(--green);
}
.notes {
  margin: 0;
  background: var(--marigold-1);
  border-color: #e6cf9a;
  border-radius: 4px;
}
.notes li {
  cursor: default;
  padding: 5px 10px;
  border-color: #efdfb9;
}
.alike {
  padding-top: 6px;
}
.name {
  font-size: 16px;
}
dl {
  margin: 0;
}
dl div {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  padding: 6px 0;
  border-bottom: 1px solid var(--rule);
}
dt {
  color: var(--ink-2);
  flex: none;
}
dd {
  margin: 0;
  text-align: right;
}
dd.num {
  white-space: normal;
}
</style>
