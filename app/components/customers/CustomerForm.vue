<script setup lang="ts">
// Everything about a customer that can be changed by hand, in groups; kept in one act.
import { computed, reactive, ref } from 'vue'
import type { Answer } from '~~/shared/api'
import CustomFields from '~/components/settings/CustomFields.vue'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'

const props = defineProps<{ customer: Answer<'customer'>; setUp: Answer<'setUp'> | null }>()
const emit = defineEmits<{ kept: [customer: Answer<'customer'>]; close: [] }>()
const c = props.customer
const form = reactive({
  name: c.name,
  phone: c.phone,
  phone2: c.phone2,
  email: c.email,
  email2: c.email2,
  line1: c.line1,
  town: c.town,
  postcode: c.postcode,
  source: c.source,
  prospect: c.prospect,
  assignedTo: c.assignedTo,
  levelId: c.levelId,
  exempt: c.exempt,
  certificate: c.certificate,
  exemptUntil: c.exemptUntil ?? '',
  creditLimit: c.creditLimit?.amount ?? '',
  stopWork: c.stopWork,
  officeNote: c.officeNote,
  printedNote: c.printedNote,
  mailConsent: c.mailConsent,
  textConsent: c.textConsent,
  custom: { ...(c.custom as Record<string, string>) },
})
const version = ref(c.version)
const tags = ref(c.tags.join(', '))
const TERMS = [
  ['', 'as the company’s'],
  ['receipt', 'on receipt'],
  ['days:15', '15 days'],
  ['days:30', '30 days'],
  ['days:45', '45 days'],
  ['month_end:0', 'end of month'],
  ['month_end:15', 'end of month + 15 days'],
  ['next_month_day:10', '10th of next month'],
] as const
const terms = ref(
  c.terms
    ? [c.terms.kind, c.terms.days ?? c.terms.day].filter((x) => x !== undefined).join(':')
    : '',
)
const known = computed(() => TERMS.some((t) => t[0] === terms.value))
const prices = ref(c.ownPrices.map((p) => ({ ...p })))
const { busy, problem, act } = useAct()
const wrong = (path: string) => problem.value?.at(path) ?? ''
const asTerms = () => {
  const [kind, n] = terms.value.split(':')
  return !kind
    ? null
    : kind === 'receipt'
      ? { kind: kind as 'receipt' }
      : kind === 'next_month_day'
        ? { kind: kind as 'next_month_day', day: Number(n) }
        : { kind: kind as 'days', days: Number(n) }
}
const keep = () =>
  act(async () => {
    const { creditLimit, exemptUntil, ...rest } = form
    emit(
      'kept',
      await call('changeCustomer', {
        params: { id: c.id },
        body: {
          ...rest,
          version: version.value,
          creditLimit: creditLimit || null,
          exemptUntil: exemptUntil || null,
          terms: asTerms(),
          tags: tags.value
            .split(',')
            .map((t) => t.trim())
            .filter(Boolean),
          ownPrices: prices.value.map((p) => ({ entryId: p.entryId, price: p.price })),
        } as never,
      }),
    )
  })
/** Someone else was faster: what was typed here stays and can be kept on top of theirs. */
async function takeNewVersion() {
  version.value = (await call('customer', { params: { id: c.id } })).version
  problem.value = null
}
const found = ref<Answer<'searchPriceBook'>['items']>([])
async function findEntry(e: Event) {
  const q = (e.target as HTMLInputElement).value.trim()
  found.value =
    q.length > 1
      ? (await call('searchPriceBook', { query: { q } }).catch(() => ({ items: [] }))).items.slice(
          0,
          4,
        )
      : []
}
function addPrice(entry: Answer<'searchPriceBook'>['items'][number]) {
  if (!prices.value.some((p) => p.entryId === entry.id))
    prices.value.push({
      entryId: entry.id,
      name: entry.name,
      price: entry.price,
      bookPrice: entry.price,
    })
  found.value = []
}
</script>

<template>
  <el-dialog
    model-value
    title="Change the customer"
    width="760"
    @close="emit('close')"
  >
    <form
      class="groups"
      @submit.prevent="keep"
    >
      <fieldset>
        <legend>Who and where to bill</legend>
        <label class="field"
          ><span>Name</span
          ><input
            v-model="form.name"
            class="plain"
          /><span
            v-if="wrong('name')"
            class="wrong"
            >{{ wrong('name') }}</span
          ></label
        >
        <div class="row">
          <label class="field grow"
            ><span>Telephone</span
            ><input
              v-model="form.phone"
              class="plain" /></label
          ><label class="field grow"
            ><span>Second telephone</span
            ><input
              v-model="form.phone2"
              class="plain"
          /></label>
        </div>
        <div class="row">
          <label class="field grow"
            ><span>Mail address</span
            ><input
              v-model="form.email"
              class="plain"
            /><span
              v-if="wrong('email')"
              class="wrong"
              >{{ wrong('email') }}</span
            ></label
          ><label class="field grow"
            ><span>Second mail address</span
            ><input
              v-model="form.email2"
              class="plain"
            /><span
              v-if="wrong('email2')"
              class="wrong"
              >{{ wrong('email2') }}</span
            ></label
          >
        </div>
        <label class="field"
          ><span>Billing address</span
          ><input
            v-model="form.line1"
            class="plain"
        /></label>
        <div class="row">
          <label class="field grow"
            ><span>Town</span
            ><input
              v-model="form.town"
              class="plain" /></label
          ><label class="field"
            ><span>Postcode</span
            ><input
              v-model="form.postcode"
              class="plain"
          /></label>
        </div>
        <div class="row">
          <label class="field grow"
            ><span>Tags, with commas between</span
            ><input
              v-model="tags"
              class="plain" /></label
          ><label class="field grow"
            ><span>How they heard of us</span
            ><select
              v-model="form.source"
              class="plain"
            >
              <option value="">not asked</option>
              <option
                v-for="s in [...new Set([...(setUp?.sources ?? []), form.source])].filter(Boolean)"
                :key="s"
              >
                {{ s }}
              </option>
            </select></label
          >
        </div>
        <div class="row">
          <label class="row grow"
            ><input
              v-model="form.prospect"
              type="checkbox"
            />
            Only a prospect so far</label
          ><label class="field grow"
            ><span>Who has it</span
            ><select
              v-model="form.assignedTo"
              class="plain"
            >
              <option :value="null">nobody</option>
              <option
                v-for="p in setUp?.people ?? []"
                :key="p.id"
                :value="p.id"
              >
                {{ p.name }}
              </option>
            </select></label
          >
        </div>
      </fieldset>
      <fieldset>
        <legend>Money</legend>
        <div class="row">
          <label class="field grow"
            ><span>Terms</span
            ><select
              v-model="terms"
              class="plain"
            >
              <option
                v-for="[k, n] in TERMS"
                :key="k"
                :value="k"
              >
                {{ n }}
              </option>
              <option
                v-if="!known"
                :value="terms"
              >
                {{ c.termsInWords }}
              </option>
            </select></label
          ><label class="field grow"
            ><span>Price level</span
            ><select
              v-model="form.levelId"
              class="plain"
            >
              <option :value="null">standard</option>
              <option
                v-for="l in setUp?.levels ?? []"
                :key="l.id"
                :value="l.id"
              >
                {{ l.name }}
              </option>
            </select></label
          >
        </div>
        <div class="row">
          <label class="field grow"
            ><span>Credit limit</span
            ><input
              v-model="form.creditLimit"
              class="plain"
              inputmode="decimal"
              placeholder="none"
            /><span
              v-if="wrong('creditLimit')"
              class="wrong"
              >{{ wrong('creditLimit') }}</span
            ></label
          ><label class="field grow"
            ><span>Stop work, because</span
            ><input
              v-model="form.stopWork"
              class="plain"
          /></label>
        </div>
        <label class="row"
          ><input
            v-model="form.exempt"
            type="checkbox"
          />
          Exempt from tax</label
        >
        <div
          v-if="form.exempt"
          class="row"
        >
          <label class="field grow"
            ><span>Certificate</span
            ><input
              v-model="form.certificate"
              class="plain" /></label
          ><label class="field grow"
            ><span>Until</span
            ><input
              v-model="form.exemptUntil"
              class="plain"
              type="date"
          /></label>
        </div>
        <div
          v-for="(p, i) in prices"
          :key="p.entryId"
          class="row"
        >
          <span class="grow"
            >{{ p.name }} <span class="quiet small">book {{ p.bookPrice }}</span></span
          ><input
            v-model="p.price"
            class="plain"
            style="width: 100px"
            :aria-label="`Own price of ${p.name}`"
          /><button
            type="button"
            class="btn plain"
            :aria-label="`Take out ${p.name}`"
            @click="prices.splice(i, 1)"
          >
            ×
          </button>
        </div>
        <label class="field"
          ><span>An own price for</span
          ><input
            class="plain"
            placeholder="call-out charge, labour…"
            @input="findEntry"
        /></label>
        <div
          v-if="found.length"
          class="stack"
        >
          <button
            v-for="e in found"
            :key="e.id"
            type="button"
            class="btn"
            @click="addPrice(e)"
          >
            {{ e.name }} · {{ e.price }}
          </button>
        </div>
      </fieldset>
      <fieldset>
        <legend>Notes</legend>
        <label class="field"
          ><span>Office only, never seen by the customer</span
          ><textarea
            v-model="form.officeNote"
            class="plain"
            rows="3"
          />
        </label>
        <label class="field"
          ><span>Printed on their invoices</span
          ><textarea
            v-model="form.printedNote"
            class="plain"
            rows="2"
          />
        </label>
      </fieldset>
      <fieldset>
        <legend>May we write?</legend>
        <div class="row">
          <label class="field grow"
            ><span>By mail</span
            ><select
              v-model="form.mailConsent"
              class="plain"
            >
              <option
                v-for="v in ['not asked', 'yes', 'no']"
                :key="v"
              >
                {{ v }}
              </option>
            </select></label
          ><label class="field grow"
            ><span>By text</span
            ><select
              v-model="form.textConsent"
              class="plain"
            >
              <option
                v-for="v in ['not asked', 'yes', 'no']"
                :key="v"
              >
                {{ v }}
              </option>
            </select></label
          >
        </div>
        <CustomFields
          v-model="form.custom"
          :fields="setUp?.fields.filter((f) => f.subject === 'customer' && !f.retired) ?? []"
        />
      </fieldset>
      <div
        v-if="problem"
        class="note bad row wide"
        role="alert"
      >
        <span class="grow">{{ problem.message }}</span><button
          v-if="problem.code === 'stale'"
          type="button"
          class="btn"
          @click="takeNewVersion"
        >
          Keep mine on top of theirs
        </button>
      </div>
      <button
        class="btn act wide"
        :disabled="busy"
      >
        Keep
      </button>
    </form>
  </el-dialog>
</template>

<style scoped>
.groups {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
.wide {
  grid-column: 1 / 3;
}
fieldset {
  border: 1px solid var(--rule-2);
  border-radius: 4px;
  padding: 6px 12px 12px;
  margin: 0;
  display: flex;
  flex-direction: column;
  gap: 8px;
  min-width: 0;
}
legend {
  font-size: 12px;
  color: var(--ink-2);
  padding: 0 4px;
}
</style>
