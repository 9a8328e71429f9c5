<script setup lang="ts">
// An invoice as it was sent; the same paper for the office and for the customer's page.
import type { Answer } from '~~/shared/api'
import { sayMoney } from '~~/core/money/sayMoney'

const props = defineProps<{
  paper: Answer<'invoice'>['paper']
  paid: { amount: string; currency: string }
  open: { amount: string; currency: string }
}>()
const money = (m: { amount: string }) =>
  sayMoney({ amount: m.amount, currency: props.paper.currency }, props.paper.locale)
const day = (d: string) =>
  new Intl.DateTimeFormat(props.paper.locale, { dateStyle: 'long', timeZone: 'UTC' }).format(
    new Date(`${d}T00:00Z`),
  )
const percent = (rate: string) => `${Number((Number(rate) * 100).toFixed(4))} %`
</script>

<template>
  <article class="invoice sheet">
    <header>
      <div>
        <h2>{{ paper.seller.name }}</h2>
        <p
          v-for="a in paper.seller.address"
          :key="a"
          class="quiet"
        >
          {{ a }}
        </p>
        <p class="quiet">{{ paper.seller.phone }} · {{ paper.seller.email }}</p>
      </div>
      <div class="right">
        <h1>Invoice {{ paper.number }}</h1>
        <p>Issued {{ day(paper.issueOn) }}</p>
        <p>
          <b>Due {{ day(paper.dueOn) }}</b>
        </p>
        <p class="quiet">{{ paper.terms }}</p>
        <p v-if="paper.orderNumber">Your order {{ paper.orderNumber }}</p>
      </div>
    </header>
    <div class="parties">
      <div>
        <span class="quiet small">Billed to</span><br /><b>{{ paper.buyer.name }}</b
        ><template
          v-for="a in paper.buyer.address"
          :key="a"
          ><br />{{ a }}</template
        >
      </div>
      <div>
        <span class="quiet small">Work done at</span><br />{{ paper.site }}<br /><span
          class="quiet small"
          >work order {{ paper.workOrder }}</span
        >
      </div>
    </div>
    <table class="book">
      <thead>
        <tr>
          <th>Work and material</th>
          <th class="right">Quantity</th>
          <th class="right">Amount</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="(l, i) in paper.lines"
          :key="i"
        >
          <td>
            {{ l.name
            }}<template v-if="Number(l.discount.amount)"
              ><br /><span class="quiet small"
                >less {{ money(l.discount) }} by your price level</span
              ></template
            >
          </td>
          <td class="right num">{{ l.quantity }}</td>
          <td class="right num">{{ money(l.net) }}</td>
        </tr>
        <tr>
          <td
            colspan="2"
            class="right"
          >
            Net
          </td>
          <td class="right num">{{ money(paper.net) }}</td>
        </tr>
        <tr
          v-for="t in paper.taxes"
          :key="t.name"
        >
          <td
            colspan="2"
            class="right"
          >
            {{ t.name }} {{ percent(t.rate) }}
          </td>
          <td class="right num">{{ money(t.tax) }}</td>
        </tr>
        <tr v-if="paper.exemptCertificate">
          <td
            colspan="2"
            class="right quiet"
          >
            Tax exempt, certificate {{ paper.exemptCertificate }}
          </td>
          <td />
        </tr>
        <tr class="sum">
          <td
            colspan="2"
            class="right"
          >
            Total
          </td>
          <td class="right num">
            <span class="double">{{ money(paper.total) }}</span>
          </td>
        </tr>
        <template v-if="Number(paid.amount)"
          ><tr>
            <td
              colspan="2"
              class="right"
            >
              Paid
            </td>
            <td class="right num">{{ money(paid) }}</td>
          </tr>
          <tr class="sum">
            <td
              colspan="2"
              class="right"
            >
              Still open
            </td>
            <td class="right num">{{ money(open) }}</td>
          </tr></template
        >
      </tbody>
    </table>
    <footer>
      <p
        v-if="paper.contact"
        class="quiet"
      >
        Contact: {{ paper.contact }}
      </p>
      <p v-if="paper.note">{{ paper.note }}</p>
      <p>{{ paper.payTo }}</p>
      <p class="quiet small">{{ paper.conditions }}</p>
    </footer>
  </article>
</template>

<style scoped>
.invoice {
  padding: 28px 32px;
  border-radius: 4px;
}
header,
.parties {
  display: flex;
  justify-content: space-between;
  gap: 24px;
  margin-bottom: 22px;
}
.parties > div {
  flex: 1;
}
footer {
  margin-top: 20px;
  display: flex;
  flex-direction: column;
  gap: 8px;
}
@media (max-width: 560px) {
  .invoice {
    padding: 18px 14px;
  }
  header,
  .parties {
    flex-direction: column;
    gap: 12px;
  }
  header .right {
    text-align: left;
  }
  .book td,
  .book th {
    padding-left: 2px;
    padding-right: 2px;
  }
}
</style>
