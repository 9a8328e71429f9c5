<script setup lang="ts">
// Before an invoice is made: what it will say, when it is due, to whom it goes. Made and sent in one act; never by accident.
import { computed, ref, watch } from 'vue'
import type { Answer } from '~~/shared/api'
import { call, newId } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useSession } from '~/stores/session'

const open = defineModel<boolean>({ required: true })
const props = defineProps<{ work: Answer<'workOrder'> }>()
const emit = defineEmits<{ made: [invoice: Answer<'invoice'>] }>()
const session = useSession()
const { busy, problem, act } = useAct()
const first = ref('')
const second = ref('')
const dueOn = ref('')
const text = ref('')
let id = newId()
let key = newId()
watch(
  open,
  (is) => {
    if (!is) return
    id = newId()
    key = newId()
    first.value = props.work.customer.email
    second.value = props.work.customer.email2
    dueOn.value = props.work.bill.dueOn
    text.value = `Thank you for having us. Your invoice for “${props.work.title}” is attached; you can also read it and pay here:\n\n{link}\n\n${session.me?.company.name ?? ''}`
  },
  { immediate: true },
)
const lines = computed(() => props.work.lines.filter((l) => Number(l.toBill.amount) > 0))
const make = (send: boolean) =>
  act(async () => {
    const to = send ? [first.value, second.value].map((a) => a.trim()).filter(Boolean) : []
    const invoice = await call('makeInvoice', {
      params: { id: props.work.id },
      key: key + (send ? 's' : 'n') + to.join('').length,
      body: {
        id,
        dueOn: dueOn.value,
        to,
        body: text.value,
        shownTotal: props.work.bill.total.amount,
      },
    })
    emit('made', invoice)
    open.value = false
  })
</script>

<template>
  <el-dialog
    v-model="open"
    :title="`Bill ${work.number}`"
    width="620"
    append-to-body
  >
    <div class="stack">
      <p
        v-if="work.time.uncoveredSeconds"
        class="note warn"
      >
        <b
          >{{ Math.round(work.time.uncoveredSeconds / 60) }} minutes were worked that no line
          charges for.</b
        >
        Charge or explain them first, or they are lost to this invoice.
      </p>
      <ul
        v-if="work.bill.missing.length"
        class="note warn missing"
      >
        <li
          v-for="m in work.bill.missing"
          :key="m"
        >
          {{ m }}
        </li>
      </ul>
      <table class="book">
        <tbody>
          <tr
            v-for="l in lines"
            :key="l.id"
          >
            <td>{{ l.name }}</td>
            <td class="right num quiet">{{ l.quantity }} × {{ l.unitPrice }}</td>
            <td class="right num">{{ session.money(l.toBill, false) }}</td>
          </tr>
          <tr>
            <td class="quiet">Tax{{ work.customer.exempt ? ' (exempt)' : '' }}</td>
            <td />
            <td class="right num">{{ session.money(work.bill.tax, false) }}</td>
          </tr>
          <tr class="sum">
            <td>Total</td>
            <td />
            <td class="right num">
              <span class="double">{{ session.money(work.bill.total) }}</span>
            </td>
          </tr>
        </tbody>
      </table>
      <div class="row">
        <label class="field grow"
          ><span>Send to</span
          ><input
            v-model="first"
            class="plain"
            type="email" /></label
        ><label class="field grow"
          ><span>and to</span
          ><input
            v-model="second"
            class="plain"
            type="email"
        /></label>
        <label class="field"
          ><span>Due ({{ work.customer.terms }})</span
          ><input
            v-model="dueOn"
            class="plain"
            type="date"
        /></label>
      </div>
      <label class="field"
        ><span>Text of the mail; the invoice is attached as PDF and linked</span
        ><textarea
          v-model="text"
          class="plain"
          rows="5"
        />
      </label>
      <p
        v-if="problem"
        class="note bad"
        role="alert"
      >
        {{ problem.message }}
      </p>
      <p class="quiet small">Once made, an invoice is not changed any more.</p>
      <div class="row">
        <button
          class="btn act"
          :disabled="busy || !first.trim()"
          @click="make(true)"
        >
          Make and send invoice {{ session.money(work.bill.total) }}</button
        ><button
          class="btn"
          :disabled="busy"
          @click="make(false)"
        >
          Make it, send later
        </button>
      </div>
    </div>
  </el-dialog>
</template>

<style scoped>
.missing {
  margin: 0;
  padding-left: 30px;
}
</style>
