<script setup lang="ts">
// Telling a customer that a visit will be late: by mail with prepared words, or by telephone, noted.
import { reactive, ref, watch } from 'vue'
import { ElMessage } from 'element-plus'
import type { Answer } from '~~/shared/api'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'

const props = defineProps<{ visitId: string | null }>()
const emit = defineEmits<{ close: [] }>()
const notice = ref<Answer<'visitNotice'> | null>(null)
const form = reactive({ to: '', body: '', spoken: '' })
const { busy, problem, act } = useAct()
watch(() => props.visitId, async (id) => {
  notice.value = null
  if (!id) return
  notice.value = await call('visitNotice', { params: { id } }).catch(() => null)
  Object.assign(form, { to: notice.value?.to[0] ?? '', body: notice.value?.body ?? '', spoken: '' })
}, { immediate: true })
const tell = (spoken: boolean) => act(async () => {
  await call('tellCustomer', { params: { id: props.visitId! }, body: spoken ? { spoken: form.spoken || 'they know' } : { to: [form.to], body: form.body, subject: notice.value!.subject } })
  ElMessage({ type: 'success', message: spoken ? 'Noted.' : 'The mail is on its way.' })
  emit('close')
})
</script>

<template>
  <el-dialog :model-value="visitId !== null" :title="notice ? `Tell ${notice.customer}` : 'Tell the customer'" width="560" @close="emit('close')">
    <div v-if="notice" class="stack">
      <p v-if="!notice.mails" class="note warn">This customer wants no mails. Ring {{ notice.phone || 'them' }}.</p>
      <template v-else><label class="field"><span>Mail to</span><input v-model="form.to" class="plain" type="email"></label><label class="field"><span>Text</span><textarea v-model="form.body" class="plain" rows="8" /></label></template>
      <p v-if="problem" class="note bad" role="alert">{{ problem.message }}</p>
      <div class="row"><button v-if="notice.mails" class="btn act" :disabled="busy || !form.to.trim()" @click="tell(false)">Send the mail</button><span class="grow" /><label class="field"><span>Or rang {{ notice.phone }}</span><input v-model="form.spoken" class="plain" placeholder="what they said"></label><button class="btn" :disabled="busy" @click="tell(true)">Note the call</button></div>
    </div>
  </el-dialog>
</template>
