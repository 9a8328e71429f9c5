<script setup lang="ts">
// Telling a customer that a visit will be late: by text or mail with prepared words, or by telephone, noted.
import { reactive, ref, watch } from 'vue'
import { ElMessage } from 'element-plus'
import type { Answer } from '~~/shared/api'
import { call, Problem } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import ActButton from '~/base/ActButton.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'
import Notice from '~/base/Notice.vue'

const props = defineProps<{ visitId: string | null }>()
const emit = defineEmits<{ close: [] }>()
const notice = ref<Answer<'visitNotice'> | null>(null)
/** why nothing is known of the visit */
const unseen = ref('')
const form = reactive({ to: '', body: '', spoken: '', way: 'mail' as 'mail' | 'text' })
const { busy, problem, act } = useAct()
watch(
  () => props.visitId,
  async (id) => {
    notice.value = null
    if (!id) return
    unseen.value = ''
    const got = await call('visitNotice', { params: { id } }).catch((error: Problem) => error)
    // Meanwhile it may have been opened for another visit.
    if (props.visitId !== id) return
    if (got instanceof Problem) unseen.value = got.message
    else notice.value = got
    form.spoken = ''
    take(notice.value?.texts ? 'text' : 'mail')
  },
  { immediate: true },
)
/** Each way has its own address and its own words. */
function take(way: 'mail' | 'text') {
  const n = notice.value
  Object.assign(form, {
    way,
    to: way === 'text' ? (n?.phone ?? '') : (n?.to[0] ?? ''),
    body: (way === 'text' ? n?.text : n?.body) ?? '',
  })
}
const tell = (spoken: boolean) =>
  act(async () => {
    await call('tellCustomer', {
      params: { id: notice.value!.visitId },
      body: spoken
        ? { spoken: form.spoken || 'they know' }
        : { channel: form.way, to: [form.to], body: form.body, subject: notice.value!.subject },
    })
    const sent = form.way === 'text' ? 'The text is on its way.' : 'The mail is on its way.'
    ElMessage({ type: 'success', message: spoken ? 'Noted.' : sent })
    emit('close')
  })
</script>

<template>
  <Dialog
    :model-value="visitId !== null"
    :title="notice ? `Tell ${notice.customer}` : 'Tell the customer'"
    width="560"
    @close="emit('close')"
  >
    <p
      v-if="unseen"
      class="note bad"
      role="alert"
    >
      {{ unseen }}
    </p>
    <p
      v-else-if="!notice"
      class="empty"
      role="status"
    >
      Looking up the visit…
    </p>
    <div
      v-if="notice"
      class="stack"
    >
      <div
        class="row"
        role="group"
        aria-label="How"
      >
        <ActButton
          :on="form.way === 'text'"
          :disabled="!notice.texts"
          :title="notice.texts ? '' : 'They have not agreed to texts'"
          @click="take('text')"
        >
          By text</ActButton
        ><ActButton
          :on="form.way === 'mail'"
          :disabled="!notice.mails"
          @click="take('mail')"
        >
          By mail</ActButton
        ><span
          v-if="!notice.texts"
          class="quiet small"
          >no consent to texts</span
        >
      </div>
      <p
        v-if="form.way === 'mail' && !notice.mails"
        class="note warn"
      >
        This customer wants no mails. Ring {{ notice.phone || 'them' }}.
      </p>
      <template v-else
        ><Field :label="form.way === 'text' ? 'Text to' : 'Mail to'"
          ><TextInput
            v-model="form.to"
            :type="form.way === 'text' ? 'tel' : 'email'" /></Field
        ><Field label="Text"
          ><TextInput
            v-model="form.body"
            rows="8" /></Field
      ></template>
      <Notice :of="problem" />
      <div class="row">
        <ActButton
          v-if="form.way === 'text' || notice.mails"
          primary
          :disabled="busy || !form.to.trim()"
          @click="tell(false)"
        >
          {{ form.way === 'text' ? 'Send the text' : 'Send the mail' }}</ActButton><span
          class="grow"
        /><Field :label="`Or rang ${notice.phone}`"
          ><TextInput
            v-model="form.spoken"
            placeholder="what they said" /></Field
        ><ActButton
          :disabled="busy"
          @click="tell(true)"
        >
          Note the call
        </ActButton>
      </div>
    </div>
  </Dialog>
</template>
