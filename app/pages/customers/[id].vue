<script setup lang="ts">
// A customer: what matters at the next visit, the four columns summed, everything that belongs to them, one line of time.
import { computed, ref } from 'vue'
import { ElMessage } from 'element-plus'
import ActButton from '~/base/ActButton.vue'
import HistoryTimeline from '~/base/HistoryTimeline.vue'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'
import BeginPaper, { type Paper } from '~/customers/BeginPaper.vue'
import CustomerAccount from '~/customers/CustomerAccount.vue'
import CustomerBeside from '~/customers/CustomerBeside.vue'
import CustomerComing from '~/customers/CustomerComing.vue'
import CustomerForm from '~/customers/CustomerForm.vue'
import CustomerMail from '~/customers/CustomerMail.vue'
import CustomerPapers from '~/customers/CustomerPapers.vue'
import CustomerPayments from '~/customers/CustomerPayments.vue'
import CustomerSites from '~/customers/CustomerSites.vue'
import EraseCustomer from '~/customers/EraseCustomer.vue'
import RowForm from '~/customers/RowForm.vue'
import {
  agreementForm,
  contactForm,
  equipmentForm,
  siteForm,
  type Customer,
  type OpenForm,
} from '~/customers/rowForms'
import TaskList from '~/tasks/TaskList.vue'
import { call, newId } from '~/lib/api'
import { dataUrl } from '~/lib/dataUrl'
import { SHOWS } from '~/lib/live'
import { useAct } from '~/lib/useAct'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office', key: (route) => route.fullPath })
const session = useSession()
const { params, query } = useRoute()
const id = String(params.id)
const { data: c, problem, refresh } = useAnswer('customer', () => ({ params: { id } }))
const { data: setUp } = useAnswer('setUp', undefined, SHOWS.setUp)
const { data: plans } = useAnswer('plans')
const { busy, problem: failed, act } = useAct()
const desk = computed(() => session.may('customers.make'))
const editing = ref(false)
const erasing = ref(false)
/** the paper that is begun, also from where the customer was found */
const beginning = ref<Paper | ''>((query.begin as Paper | undefined) ?? '')
const bills = computed(() => session.may('invoices.make'))
const open = ref<OpenForm | null>(null)
const siteFields = computed(
  () => setUp.value?.fields.filter((f) => f.subject === 'site' && !f.retired) ?? [],
)
const show = (form: OpenForm) => {
  open.value = form
}
const undoMerge = (mergeId: string) =>
  act(async () => {
    c.value = await call('undoMerge', { params: { id: mergeId } })
    ElMessage({ type: 'success', message: 'Taken apart again.' })
  })
const addFile = ([file]: File[]) =>
  act(async () => {
    if (!file) return
    const data = (await dataUrl(file)).replace(/^[^,]*,/, '')
    await call('addFile', { body: { id: newId(), customerId: id, name: file.name, data } })
    await refresh()
  })
function kept(got: Customer) {
  c.value = got
  editing.value = false
}
/** Whoever has it, where their name is known. */
const owner = () => setUp.value?.people.find((p) => p.id === c.value!.assignedTo)?.name
/** The firm's own fields of a subject, as they are filled. */
const ownFields = (values: unknown, subject: string): string[] => {
  const filled = values as Record<string, string>
  const fields = setUp.value?.fields.filter((f) => f.subject === subject && filled[f.id]) ?? []
  return fields.map((f) => `${f.name}: ${filled[f.id]}`)
}
const inOneLine = computed(() => {
  const { phone, phone2, email, email2, line1, town, postcode } = c.value!
  return [
    ...[phone, phone2, email, email2],
    [line1, town, postcode].filter(Boolean).join(', '),
    `terms ${c.value!.termsInWords}`,
    c.value!.level,
    owner() && `with ${owner()}`,
    c.value!.mailConsent === 'no' && 'no mails',
  ]
    .filter(Boolean)
    .join(' · ')
})
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
        >
        {{ ' ' }}
        <span
          v-for="tag in c.tags"
          :key="tag"
          class="chip"
          >{{ tag }}</span
        >
      </h1>
      <template v-if="!c.erased">
        <ActButton
          v-if="desk && c.sites.length"
          @click="beginning = 'quote'"
        >
          Begin a quote
        </ActButton>
        <ActButton
          v-if="bills && c.sites.length"
          @click="beginning = 'bill'"
        >
          Bill something
        </ActButton>
        <NuxtLink
          v-if="desk"
          class="btn act"
          :to="{ path: '/calls/new', query: { customer: c.id } }"
          >Book work</NuxtLink
        >
        <ActButton @click="editing = true"> Change </ActButton>
      </template>
    </div>
    <p class="quiet">{{ inOneLine }}</p>
    <ul
      v-if="c.notes.length"
      class="note warn notes"
      aria-label="What matters at the next visit"
    >
      <li
        v-for="note in c.notes"
        :key="note"
      >
        {{ note }}
      </li>
    </ul>
    <Notice :of="failed" />
    <TaskList
      about="customer"
      :subject-id="c.id"
    />
    <CustomerAccount :customer="c" />
    <CustomerComing :customer="c" />
    <div class="two stacks">
      <div class="stack">
        <CustomerSites
          :customer="c"
          :desk="desk"
          :own-fields="(site) => ownFields(site.custom, 'site')"
          @site="(site) => show(siteForm(c!, siteFields, site))"
          @equipment="(siteId, thing) => show(equipmentForm(siteId, thing))"
        />
        <CustomerPapers :customer="c" />
        <CustomerPayments
          :customer="c"
          @changed="refresh()"
        />
      </div>
      <div class="stack">
        <CustomerBeside
          :customer="c"
          :desk="desk"
          :busy="busy"
          :own-fields="ownFields(c.custom, 'customer')"
          @contact="(contact) => show(contactForm(c!, contact))"
          @agreement="show(agreementForm(c, plans?.items ?? [], session))"
          @file="addFile"
          @undo-merge="undoMerge"
        />
        <CustomerMail
          v-if="session.may('messages.see')"
          :customer-id="c.id"
        />
        <h2>History</h2>
        <HistoryTimeline
          :id="c.id"
          :entries="c.history"
          of="customerEarlier"
        />
        <template v-if="session.may('customers.erase') && !c.erased">
          <h2>This person’s data</h2>
          <div class="row">
            <a
              class="btn"
              :href="`/api/v1/customers/${c.id}/data.json`"
              >Hand out all of it</a
            >
            <ActButton @click="erasing = true"> Take it out… </ActButton>
          </div>
        </template>
      </div>
    </div>
    <CustomerForm
      v-if="editing"
      :customer="c"
      :set-up="setUp"
      :refresh="refresh"
      @kept="kept"
      @close="editing = false"
    />
    <BeginPaper
      v-if="beginning && !c.erased"
      :customer="c"
      :as="beginning"
      @close="beginning = ''"
    />
    <RowForm
      v-if="open"
      :of="open"
      :customer="c"
      :refresh="refresh"
      @kept="(now) => (c = now)"
      @close="open = null"
    />
    <EraseCustomer
      v-if="erasing"
      :customer="c"
      @close="erasing = false"
    />
  </div>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
  />
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) var(--beside);
  gap: 20px;
}
.notes {
  margin: 0;
  padding: 8px 14px 8px 30px;
}
</style>
