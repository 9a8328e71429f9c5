<script setup lang="ts">
// What a price is made of: its parts, which sum to it, as a bookkeeper would write them down.
import type { Answer } from '~~/shared/api'
import { useSession } from '~/stores/session'

defineProps<{ why: Answer<'tryPrice'>['why']; title: string }>()
const session = useSession()
const show = (amount: string) =>
  session.money({ amount, currency: session.me!.company.currency }, false)
</script>

<template>
  <table
    class="why"
    :aria-label="title"
  >
    <caption>
      {{
        title
      }}
    </caption>
    <tbody>
      <tr
        v-for="(r, i) in why.reasons"
        :key="i"
      >
        <td>{{ r.text }}</td>
        <td class="num right">{{ show(r.amount) }}</td>
      </tr>
    </tbody>
    <tfoot>
      <tr>
        <th scope="row">Price</th>
        <td class="num right double">{{ show(why.price) }}</td>
      </tr>
      <tr v-if="why.hour">
        <td class="quiet small">An hour brings, parts paid</td>
        <td class="num right quiet small">{{ show(why.hour) }}</td>
      </tr>
    </tfoot>
  </table>
</template>

<style scoped>
.why {
  width: 100%;
  border-collapse: collapse;
}
caption {
  text-align: left;
  font-weight: 650;
  padding-bottom: 4px;
}
td,
th {
  padding: 4px 0;
  text-align: left;
  border-bottom: 1px solid var(--rule);
}
.right {
  text-align: right;
  white-space: nowrap;
}
tfoot th,
tfoot td {
  border-bottom: 0;
  font-weight: 700;
}
tfoot .quiet {
  font-weight: 400;
}
</style>
