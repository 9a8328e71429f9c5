<script setup lang="ts">
import { reactive, ref } from 'vue'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useLoad } from '~/lib/useLoad'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office' })
const session = useSession()
const id = String(useRoute().params.id)
const { data: c, problem, refresh } = useLoad(() => call('customer', { params: { id } }))
const { busy, problem: failed, act } = useAct()
const editing = ref(false)
const form = reactive({ name: '', phone: '', phone2: '', email: '', email2: '', line1: '', town: '', postcode: '', officeNote: '', tag: '', stopWork: '', version: 0 })
function edit() {
  Object.assign(form, Object.fromEntries(Object.keys(form).map(k => [k, c.value![k as keyof typeof form]])))
  editing.value = true
}
const save = () => act(async () => {
  c.value = await call('changeCustomer', { params: { id }, body: { ...form } })
  editing.value = false
})
// Someone else was faster: theirs is fetched, what was typed here stays in the form and can be kept on top of it.
async function takeNewVersion() {
  await refresh()
  form.version = c.value!.version
  failed.value = null
}
const FIELDS = [['name', 'Name'], ['phone', 'Telephone'], ['phone2', 'Second telephone'], ['email', 'Mail address'], ['email2', 'Second mail address'], ['line1', 'Billing address'], ['town', 'Town'], ['postcode', 'Postcode'], ['tag', 'Tag'], ['stopWork', 'Stop work, because'], ['officeNote', 'Office only']] as const
</script>

<template>
  <div v-if="c" class="page">
    <div class="row"><h1 class="grow">{{ c.name }} <span v-if="c.prospect" class="chip">prospect</span> <span v-if="c.tag" class="chip">{{ c.tag }}</span></h1><button class="btn" @click="edit">Change</button></div>
    <p class="quiet">{{ [c.phone, c.phone2, c.email, c.email2].filter(Boolean).join(' · ') }} · {{ [c.line1, c.town, c.postcode].filter(Boolean).join(', ') }} · terms {{ c.terms }}<template v-if="c.level"> · {{ c.level }}</template><template v-if="c.exempt"> · tax exempt ({{ c.certificate }})</template></p>
    <p v-if="c.stopWork" class="note bad"><b>Stop work.</b> {{ c.stopWork }}</p><p v-if="c.officeNote" class="note"><span class="quiet small">Office only</span><br>{{ c.officeNote }}</p>
    <table class="book four"><thead><tr><th class="right">Promised</th><th class="right">Done</th><th class="right">Billed</th><th class="right">Paid</th><th class="right">Owes, with tax</th></tr></thead><tbody><tr class="sum"><td v-for="k in ['promised', 'done', 'billed', 'paid', 'owed'] as const" :key="k" class="right num"><span class="double">{{ session.money(c[k]) }}</span></td></tr></tbody></table>
    <div class="two">
      <div class="stack">
        <h2>Work</h2><table class="book"><tbody><tr v-for="w in c.work" :key="w.id"><td><NuxtLink :to="`/work/${w.id}`" class="num">{{ w.number }}</NuxtLink></td><td>{{ w.title }}</td><td class="quiet nowrap">{{ session.day(w.on) }}</td><td>{{ w.state.replaceAll('_', ' ') }}</td><td class="right num" :class="{ late: Number(w.toBill.amount) }">{{ Number(w.toBill.amount) ? `${session.money(w.toBill, false)} to bill` : '' }}</td></tr><tr v-if="!c.work.length"><td class="empty">No work yet.</td></tr></tbody></table>
        <h2>Sites</h2><table class="book"><tbody><tr v-for="s in c.sites" :key="s.id"><td><b>{{ s.name || s.line1 }}</b><br><span class="quiet small">{{ [s.line1, s.town, s.postcode].filter(Boolean).join(', ') }}</span></td><td>{{ s.accessNote }}</td><td class="quiet small">{{ c.equipment.filter(e => e.siteId === s.id).map(e => `${e.make} ${e.category}, ${e.serial}`).join('; ') }}</td></tr></tbody></table>
        <template v-if="c.contacts.length"><h2>Contacts</h2><table class="book"><tbody><tr v-for="k in c.contacts" :key="k.id"><td><b>{{ k.name }}</b></td><td>{{ k.role }}</td><td class="num">{{ k.phone }}</td></tr></tbody></table></template>
      </div>
      <div><h2>History</h2><ol><li v-for="h in c.history" :key="h.id">{{ h.text }}<br><span class="quiet small">{{ session.dayTime(h.at) }} · {{ h.who }}</span></li></ol></div>
    </div>
    <el-dialog v-model="editing" title="Change the customer" width="520">
      <form class="stack" @submit.prevent="save"><label v-for="[k, name] in FIELDS" :key="k" class="field"><span>{{ name }}</span><input v-model="form[k]" class="plain"><span v-if="failed?.at(k)" class="wrong">{{ failed.at(k) }}</span></label>
        <div v-if="failed" class="note bad row" role="alert"><span class="grow">{{ failed.message }}</span><button v-if="failed.code === 'stale'" type="button" class="btn" @click="takeNewVersion">Keep mine on top of theirs</button></div>
        <button class="btn act" :disabled="busy">Keep</button></form>
    </el-dialog>
  </div>
  <p v-else class="empty" role="status">{{ problem?.message ?? 'Opening…' }}</p>
</template>

<style scoped>
.page { padding: 16px 20px; display: flex; flex-direction: column; gap: 12px; } .two { display: grid; grid-template-columns: minmax(0, 1fr) 300px; gap: 20px; } .four { border: 1px solid var(--rule-2); } ol { list-style: none; margin: 10px 0 0; padding: 0 0 0 12px; border-left: 2px solid var(--green-2); } li { margin-bottom: 10px; }
</style>
