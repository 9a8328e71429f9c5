<script setup lang="ts">
// A customer: what matters at the next visit, the four columns summed, everything that belongs to them, one line of time.
import { computed, ref } from 'vue'
import { ElMessage } from 'element-plus'
import type { Answer } from '~~/shared/api'
import CustomerForm from '~/components/customers/CustomerForm.vue'
import RowForm, { type RowField } from '~/components/customers/RowForm.vue'
import SiteMap from '~/components/customers/SiteMap.vue'
import { call, newId } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { SHOWS } from '~/lib/live'
import { useLoad } from '~/lib/useLoad'
import { useSession } from '~/stores/session'
import { INVOICE_STATES } from '~/invoices/words'
import ActButton from '~/base/ActButton.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'
import FileInput from '~/base/FileInput.vue'
import DataTable from '~/base/DataTable.vue'
import HistoryTimeline from '~/base/HistoryTimeline.vue'
import { given } from '~/lib/given'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'

definePageMeta({ layout: 'office', key: (route) => route.fullPath })
type Customer = Answer<'customer'>
const session = useSession()
const id = String(useRoute().params.id)
const { data: c, problem, refresh } = useLoad(() => call('customer', { params: { id } }))
const { data: setUp } = useLoad(() => call('setUp'), 0, SHOWS.setUp)
const { data: plans } = useLoad(() => call('plans'))
const { busy, problem: failed, act } = useAct()
const editing = ref(false)
const desk = computed(() => session.may('customers.make'))
const open = ref<{
  title: string
  fields: readonly RowField[]
  values: Record<string, string | null>
  custom?: Answer<'setUp'>['fields']
  customValues?: Record<string, string>
  copy?: { label: string; values: Record<string, string> }
  save: (v: Record<string, string | null>, custom: Record<string, string>) => Promise<Customer>
  remove?: () => Promise<Customer>
} | null>(null)
const take = (work: Promise<Customer>) =>
  work.then((got) => {
    c.value = got
  })

const SITE: RowField[] = [
  { key: 'name', label: 'Name of the site' },
  { key: 'line1', label: 'Address' },
  { key: 'town', label: 'Town' },
  { key: 'postcode', label: 'Postcode' },
  { key: 'accessNote', label: 'Access: what the technician must know', kind: 'area' },
]
const siteFields = computed(
  () => setUp.value?.fields.filter((f) => f.subject === 'site' && !f.retired) ?? [],
)
function site(s?: Customer['sites'][number]) {
  open.value = {
    title: s ? 'Change the site' : 'A further site',
    fields: SITE,
    custom: siteFields.value,
    customValues: (s?.custom ?? {}) as Record<string, string>,
    values: s
      ? {
          name: s.name,
          line1: s.line1,
          town: s.town,
          postcode: s.postcode,
          accessNote: s.accessNote,
        }
      : { name: '', line1: '', town: '', postcode: '', accessNote: '' },
    copy: c.value!.line1
      ? {
          label: 'Same as the billing address',
          values: { line1: c.value!.line1, town: c.value!.town, postcode: c.value!.postcode },
        }
      : undefined,
    save: (v, custom) =>
      s
        ? call('changeSite', {
            params: { id: s.id },
            body: { version: s.version, ...v, custom },
          })
        : call('newSite', {
            body: { id: newId(), customerId: id, ...v, line1: given(v.line1), custom },
          }),
  }
}
function contact(k?: Customer['contacts'][number]) {
  const sites: [string, string][] = [
    ['', 'every site'],
    ...c.value!.sites.map((s) => [s.id, s.name || s.line1] as [string, string]),
  ]
  open.value = {
    title: k ? 'Change the contact' : 'A contact',
    fields: [
      { key: 'name', label: 'Name' },
      { key: 'role', label: 'Role: occupant, accounts, caretaker…' },
      { key: 'phone', label: 'Telephone' },
      { key: 'phone2', label: 'Second telephone' },
      { key: 'email', label: 'Mail address' },
      { key: 'siteId', label: 'At', kind: 'choice', choices: sites },
    ],
    values: k
      ? {
          name: k.name,
          role: k.role,
          phone: k.phone,
          phone2: k.phone2,
          email: k.email,
          siteId: k.siteId,
        }
      : { name: '', role: '', phone: '', phone2: '', email: '', siteId: null },
    save: (v) =>
      k
        ? call('changeContact', {
            params: { id: k.id },
            body: { version: k.version, ...v },
          })
        : call('newContact', { body: { id: newId(), customerId: id, ...v, name: given(v.name) } }),
    remove:
      k &&
      (() =>
        call('changeContact', {
          params: { id: k.id },
          body: { version: k.version, removed: true },
        })),
  }
}
function equipment(siteId: string, e?: Customer['equipment'][number]) {
  open.value = {
    title: e ? 'Change the equipment' : 'Equipment at this site',
    values: e
      ? {
          category: e.category,
          make: e.make,
          serial: e.serial,
          installedOn: e.installedOn,
          warrantyUntil: e.warrantyUntil,
          nextServiceOn: e.nextServiceOn,
          note: e.note,
        }
      : {
          category: '',
          make: '',
          serial: '',
          installedOn: null,
          warrantyUntil: null,
          nextServiceOn: null,
          note: '',
        },
    fields: [
      { key: 'category', label: 'What it is' },
      { key: 'make', label: 'Make' },
      { key: 'serial', label: 'Serial number' },
      { key: 'installedOn', label: 'Installed', kind: 'date' },
      { key: 'warrantyUntil', label: 'Warranty until', kind: 'date' },
      { key: 'nextServiceOn', label: 'Next service', kind: 'date' },
      { key: 'note', label: 'Note' },
    ],
    save: (v) =>
      e
        ? call('changeEquipment', {
            params: { id: e.id },
            body: { version: e.version, ...v },
          })
        : call('newEquipment', {
            body: { id: newId(), siteId, ...v, category: given(v.category) },
          }),
    remove:
      e &&
      (() =>
        call('changeEquipment', {
          params: { id: e.id },
          body: { version: e.version, removed: true },
        })),
  }
}
function agreement() {
  open.value = {
    title: 'A care agreement',
    values: {
      siteId: c.value!.sites[0]?.id ?? null,
      planId: plans.value?.items[0]?.id ?? null,
      startsOn: session.today,
    },
    fields: [
      {
        key: 'planId',
        label: 'Plan',
        kind: 'choice',
        choices: plans.value?.items.map((p) => [p.id, `${p.name}, ${p.price} a year`]) ?? [],
      },
      {
        key: 'siteId',
        label: 'Site',
        kind: 'choice',
        choices: c.value!.sites.map((s) => [s.id, s.name || s.line1]),
      },
      { key: 'startsOn', label: 'From', kind: 'date' },
    ],
    save: async (v) => {
      await call('newAgreement', {
        body: {
          id: newId(),
          customerId: id,
          siteId: given(v.siteId),
          planId: given(v.planId),
          startsOn: given(v.startsOn),
        },
      })
      return call('customer', { params: { id } })
    },
  }
}
const quote = () =>
  act(async () => {
    const made = await call('beginQuote', {
      body: { id: newId(), customerId: id, siteId: c.value!.sites[0]!.id, title: 'Work to quote' },
    })
    await navigateTo(`/quotes/${made.id}`)
  })
const undoMerge = (mergeId: string) =>
  act(async () => {
    c.value = await call('undoMerge', { params: { id: mergeId } })
    ElMessage({ type: 'success', message: 'Taken apart again.' })
  })
async function addFile([file]: File[]) {
  if (file) {
    await act(async () => {
      const bytes = new Uint8Array(await file.arrayBuffer())
      let binary = ''
      for (let i = 0; i < bytes.length; i += 32_768)
        binary += String.fromCharCode(...bytes.subarray(i, i + 32_768))
      await call('addFile', {
        body: { id: newId(), customerId: id, name: file.name, data: btoa(binary) },
      })
      await refresh()
    })
  }
}
const erasing = ref('')
const asking = ref(false)
const erase = () =>
  act(async () => {
    await call('erase', {
      params: { id },
      body: { version: c.value!.version, name: erasing.value },
    })
    await navigateTo('/customers')
  })
const of = (siteId: string) => c.value!.equipment.filter((e) => e.siteId === siteId)
const supplied = (siteId: string) =>
  c.value!.supplied.filter((s) => s.siteId === siteId).slice(0, 5)
const person = (pid: string | null) => setUp.value?.people.find((p) => p.id === pid)?.name
const customText = (values: Record<string, string>, subject: string) =>
  setUp.value?.fields
    .filter((f) => f.subject === subject && values[f.id])
    .map((f) => `${f.name}: ${values[f.id]}`) ?? []
const ACCOUNT = [
  ['promised', 'Promised'],
  ['done', 'Done'],
  ['billed', 'Billed'],
  ['paid', 'Paid'],
  ['owed', 'Owes, with tax'],
] as const
</script>

<template>
  <div
    v-if="c"
    class="page"
  >
    <p
      v-if="c.mergedInto"
      class="note warn"
    >
      This customer was merged.
      <NuxtLink :to="`/customers/${c.mergedInto}`">Go to the one that was kept</NuxtLink>
    </p>
    <div class="row">
      <h1 class="grow">
        {{ c.name }}
        <span
          v-if="c.prospect"
          class="chip soon"
          >prospect</span
        >{{ ' '
        }}<span
          v-for="t in c.tags"
          :key="t"
          class="chip"
          >{{ t }}</span
        >
      </h1>
      <ActButton
        v-if="desk && !c.erased && c.sites.length"
        :disabled="busy"
        @click="quote"
      >
        Begin a quote</ActButton
      ><NuxtLink
        v-if="desk && !c.erased"
        class="btn act"
        :to="{ path: '/calls/new', query: { customer: c.id } }"
        >Book work</NuxtLink
      ><ActButton
        v-if="!c.erased"
        @click="editing = true"
      >
        Change
      </ActButton>
    </div>
    <p class="quiet">
      {{ [c.phone, c.phone2, c.email, c.email2].filter(Boolean).join(' · ') }} ·
      {{ [c.line1, c.town, c.postcode].filter(Boolean).join(', ') }} · terms {{ c.termsInWords
      }}<template v-if="c.level"> · {{ c.level }}</template
      ><template v-if="c.assignedTo"> · with {{ person(c.assignedTo) }}</template
      ><template v-if="c.mailConsent === 'no'"> · no mails</template>
    </p>
    <ul
      v-if="c.notes.length"
      class="note warn notes"
      aria-label="What matters at the next visit"
    >
      <li
        v-for="n in c.notes"
        :key="n"
      >
        {{ n }}
      </li>
    </ul>
    <Notice :of="failed" />
    <DataTable
      class="four"
      label="Their account"
      :rows="[c]"
      :row-key="() => id"
      :columns="ACCOUNT.map(([key, label]) => ({ key, label, figures: true }))"
    >
      <template
        v-for="[k] in ACCOUNT"
        :key="k"
        #[k]="{ row }"
        ><b class="double">{{ session.money(row[k]) }}</b
        ><template v-if="k === 'owed' && Number(row.credits.amount)"
          ><br /><span class="small quiet"
            >a credit of {{ session.money(row.credits) }} taken off</span
          ></template
        ></template
      >
    </DataTable>
    <div class="two">
      <div class="stack">
        <div class="row">
          <h2 class="grow">Sites</h2>
          <ActButton
            v-if="desk"
            @click="site()"
          >
            Add a site
          </ActButton>
        </div>
        <div class="places">
          <div
            v-for="s in c.sites"
            :key="s.id"
            class="sheet place"
          >
            <div class="row">
              <b class="grow">{{ s.name || s.line1 }}</b><ActButton
                v-if="desk"
                quiet
                :aria-label="`Change ${s.name || s.line1}`"
                @click="site(s)"
              >
                Change
              </ActButton>
            </div>
            <span class="quiet"
              >{{ [s.line1, s.town, s.postcode].filter(Boolean).join(', ') }} ·
              <span :class="{ soon: !s.territory }">{{
                s.territory || 'in no territory'
              }}</span></span
            >
            <span v-if="s.accessNote">{{ s.accessNote }}</span><span
              v-for="t in customText(s.custom as Record<string, string>, 'site')"
              :key="t"
              class="small"
              >{{ t }}</span
            >
            <ul class="things">
              <li
                v-for="e in of(s.id)"
                :key="e.id"
              >
                <ActButton
                  quiet
                  :disabled="!desk"
                  @click="equipment(s.id, e)"
                >
                  {{ [e.make, e.category].filter(Boolean).join(' ') }}</ActButton>{{ ' '
                }}<span class="quiet small">{{
                  [
                    e.serial,
                    e.installedOn && `installed ${e.installedOn.slice(0, 4)}`,
                    e.state,
                    e.note,
                  ]
                    .filter(Boolean)
                    .join(' · ')
                }}</span>
              </li>
            </ul>
            <ActButton
              v-if="desk"
              quiet
              class="add"
              @click="equipment(s.id)"
            >
              + equipment
            </ActButton>
            <details v-if="supplied(s.id).length">
              <summary class="small quiet">Supplied here before</summary>
              <div
                v-for="(x, i) in supplied(s.id)"
                :key="i"
                class="small"
              >
                {{ session.day(x.on) }} · {{ x.name }} ·
                <NuxtLink :to="`/work/${x.workOrderId}`">{{ x.number }}</NuxtLink>
              </div>
            </details>
          </div>
        </div>
        <template v-if="c.quotes.length"
          ><h2>Quotes</h2>
          <DataTable
            :rows="c.quotes"
            :row-key="(q) => q.id"
            :columns="[
              { key: 'c1' },
              { key: 'c2', look: 'quiet', text: (q) => q.waiting || q.state },
              { key: 'c3', figures: true, text: (q) => session.money(q.total) },
            ]"
            ><template #c1="{ row: q }"
              ><NuxtLink
                :to="`/quotes/${q.id}`"
                class="num"
                >{{ q.number }}</NuxtLink
              >
              {{ q.title }}</template
            >
          </DataTable></template
        >
        <template v-if="c.papers.length"
          ><h2>Invoices</h2>
          <DataTable
            :rows="c.papers.slice(0, 12)"
            :row-key="(p) => p.id"
            :columns="[
              { key: 'c1' },
              { key: 'c2', look: 'quiet', text: (p) => session.day(p.on) },
              { key: 'c3', text: (p) => INVOICE_STATES[p.state] },
              { key: 'c4', figures: true, text: (p) => session.money(p.total, false) },
              {
                key: 'c5',
                figures: true,
                tone: (p) => ({ late: Number(p.open.amount) }),
                text: (p) => (Number(p.open.amount) ? `${session.money(p.open, false)} open` : ''),
              },
            ]"
            ><template #c1="{ row: p }"
              ><NuxtLink
                :to="`/invoices/${p.id}`"
                class="num"
                >{{ p.number }}</NuxtLink
              ></template
            >
          </DataTable></template
        >
        <h2>Work</h2>
        <DataTable
          v-if="c.work.length"
          label="Work"
          :rows="c.work"
          :row-key="(w) => w.id"
          :columns="[
            { key: 'number' },
            { key: 'title', text: (w) => w.title },
            { key: 'on', look: 'quiet nowrap', text: (w) => session.day(w.on) },
            { key: 'state', text: (w) => session.state(w.state) },
            {
              key: 'toBill',
              figures: true,
              tone: (w) => ({ late: Number(w.toBill.amount) }),
              text: (w) =>
                Number(w.toBill.amount) ? `${session.money(w.toBill, false)} to bill` : '',
            },
          ]"
          ><template #number="{ row: w }"
            ><NuxtLink
              :to="`/work/${w.id}`"
              class="num"
              >{{ w.number }}</NuxtLink
            ></template
          ></DataTable
        >
        <p
          v-else
          class="empty"
        >
          No work yet.
        </p>
      </div>
      <div class="stack side">
        <SiteMap :sites="c.sites" />
        <div class="row">
          <h2 class="grow">Contacts</h2>
          <ActButton
            v-if="desk"
            @click="contact()"
          >
            Add
          </ActButton>
        </div>
        <button
          v-for="k in c.contacts"
          :key="k.id"
          class="contact"
          :disabled="!desk"
          @click="contact(k)"
        >
          <b>{{ k.name }}</b>{{ ' ' }}<span class="quiet">{{ k.role }}</span
          ><br /><span class="num small">{{ [k.phone, k.phone2].filter(Boolean).join(', ') }}</span
          >{{ ' ' }}<span class="small">{{ k.email }}</span>
        </button>
        <p
          v-if="!c.contacts.length"
          class="quiet small"
        >
          Nobody but the customer.
        </p>
        <div class="row">
          <h2 class="grow">Care agreements</h2>
          <ActButton
            v-if="desk && c.sites.length"
            @click="agreement"
          >
            Add
          </ActButton>
        </div>
        <p
          v-for="a in c.agreements"
          :key="a.id"
        >
          {{ a.plan }}<br /><span
            class="small"
            :class="a.state === 'in force' ? 'quiet' : 'soon'"
            >{{ a.state }} · until {{ session.day(a.endsOn, 'withYear') }}</span
          >
        </p>
        <template v-if="customText(c.custom as Record<string, string>, 'customer').length"
          ><p
            v-for="t in customText(c.custom as Record<string, string>, 'customer')"
            :key="t"
            class="small"
          >
            {{ t }}
          </p></template
        >
        <template v-if="c.ownPrices.length"
          ><h2>Own prices</h2>
          <p
            v-for="p in c.ownPrices"
            :key="p.entryId"
            class="row"
          >
            <span class="grow">{{ p.name }}</span><span class="num">{{ p.price }}</span>
          </p></template
        >
        <div class="row">
          <h2 class="grow">Files</h2>
          <FileInput
            v-if="desk"
            label="Add"
            accept="image/png,image/jpeg,image/webp,application/pdf"
            :disabled="busy"
            @choose="addFile"
          />
        </div>
        <a
          v-for="f in c.files"
          :key="f.id"
          :href="`/api/v1/files/${f.id}`"
          target="_blank"
          >{{ f.name }}</a
        >
        <p
          v-for="m in c.merges"
          :key="m.id"
          class="small"
        >
          {{ m.name }} was merged into this one on {{ session.dayTime(m.at) }}.
          <ActButton
            :disabled="busy"
            @click="undoMerge(m.id)"
          >
            Take apart
          </ActButton>
        </p>
        <h2>History</h2>
        <HistoryTimeline :entries="c.history" />
        <template v-if="session.may('customers.erase') && !c.erased"
          ><h2>This person’s data</h2>
          <div class="row">
            <a
              class="btn"
              :href="`/api/v1/customers/${c.id}/data.json`"
              >Hand out all of it</a
            ><ActButton @click="asking = true"> Take it out… </ActButton>
          </div></template
        >
      </div>
    </div>
    <CustomerForm
      v-if="editing"
      :customer="c"
      :set-up="setUp"
      @kept="
        (got) => {
          c = got
          editing = false
        }
      "
      @close="editing = false"
    />
    <RowForm
      v-if="open"
      :title="open.title"
      :fields="open.fields"
      :values="open.values"
      :custom="open.custom"
      :custom-values="open.customValues"
      :copy="open.copy"
      :save="(v, custom) => take(open!.save(v, custom))"
      :remove="open.remove && (() => take(open!.remove!()))"
      @close="open = null"
    />
    <Dialog
      v-model="asking"
      title="Take this person’s data out"
      width="460"
    >
      <div class="stack">
        <p>
          Names, numbers, addresses, notes, pictures and mails are taken out for good. Invoices and
          receipts stay as they were sent, because the law wants them. This cannot be undone.
        </p>
        <Field
          :label="`Write “${c.name}” to say that you mean it`"
          :error="failed?.at('name') ? failed.at('name') : ''"
          ><TextInput v-model="erasing"
        /></Field>
        <Notice :of="failed" />
        <ActButton
          :disabled="busy || !erasing"
          @click="erase"
        >
          Take it out
        </ActButton>
      </div>
    </Dialog>
  </div>
  <Pending
    v-else
    :problem="problem"
  />
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 320px;
  gap: 20px;
}
.four .small {
  font: 12px var(--text);
}
.four {
  border: 1px solid var(--rule-2);
}
.notes {
  margin: 0;
  padding: 8px 14px 8px 30px;
}
.places {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(270px, 1fr));
  gap: 10px;
}
.place {
  padding: 10px 12px;
  border-radius: 4px;
  display: flex;
  flex-direction: column;
  gap: 3px;
}
.place .btn {
  min-height: 26px;
  padding: 0 6px;
}
.things {
  list-style: none;
  margin: 2px 0 0;
  padding: 0;
}
.things .btn {
  padding: 0;
  font-weight: 600;
  text-decoration: underline;
}
.add {
  align-self: flex-start;
  color: var(--green);
}
.contact {
  text-align: left;
  border: 0;
  border-bottom: 1px solid var(--rule);
  background: none;
  padding: 6px 0;
  cursor: pointer;
}
.side ol {
  list-style: none;
  margin: 0;
  padding: 0 0 0 12px;
  border-left: 2px solid var(--green-2);
}
.side li {
  margin-bottom: 10px;
}
</style>
