<script setup lang="ts">
// Telling a customer that a visit will be late: by text or mail with prepared words, or by telephone, noted.
import { ref, watch } from 'vue'
import { ElMessage } from 'element-plus'
import type { Answer, Given } from '~~/shared/api'
import { call, Problem } from '~/lib/api'
import { useForm } from '~/base/useForm'
import Form from '~/base/Form.vue'
import OneField from '~/base/OneField.vue'
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
const form = useForm({ to: '', body: '', way: 'mail' as 'mail' | 'text' })
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
    take(notice.value?.texts ? 'text' : 'mail')
  },
  { immediate: true },
)
/** Each way has its own address and its own words. */
function take(way: 'mail' | 'text') {
  const n = notice.value
  form.begin({
    way,
    to: way === 'text' ? (n?.phone ?? '') : (n?.to.join(', ') ?? ''),
    body: (way === 'text' ? n?.text : n?.body) ?? '',
  })
}
type Told = Omit<Given<'tellCustomer'>, 'version'>
async function tell(body: Told, said: string) {
  const { visitId: id, version } = notice.value!
  await call('tellCustomer', { params: { id }, body: { ...body, version } })
  ElMessage({ type: 'success', message: said })
  emit('close')
}
const write = () =>
  form.send(() => {
    const { way, to, body } = form.values
    const said = way === 'text' ? 'The text is on its way.' : 'The mail is on its way.'
    const all = way === 'text' ? [to] : to.split(/[,;\s]+/).filter(Boolean)
    return tell({ channel: way, to: all, body, subject: notice.value!.subject }, said)
  })
const WHAT: Record<Answer<'visitNotice'>['kind'], string> = {
  confirmation: 'when we come',
  eve: 'when we come',
  onWay: 'that somebody is on the way',
  late: 'that we are late',
  moved: 'of the other time',
  later: 'that it has to wait',
  off: 'that nobody comes',
}
const noteCall = (spoken: string) => tell({ spoken: spoken || 'they know' }, 'Noted.')
</script>

<template>
  <Dialog
    :model-value="visitId !== null"
    :title="notice ? `Tell ${notice.customer} ${WHAT[notice.kind]}` : 'Tell the customer'"
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
    <Form
      v-if="notice"
      :of="form"
      @submit="write"
    >
      <div
        class="row"
        role="group"
        aria-label="How"
      >
        <ActButton
          :on="form.values.way === 'text'"
          :disabled="!notice.texts"
          :title="notice.texts ? '' : 'They have not agreed to texts'"
          @click="take('text')"
        >
          By text</ActButton
        ><ActButton
          :on="form.values.way === 'mail'"
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
        v-if="form.values.way === 'mail' && !notice.mails"
        class="note warn"
      >
        This customer wants no mails. Ring {{ notice.phone || 'them' }}.
      </p>
      <template v-else
        ><Field :label="form.values.way === 'text' ? 'Text to' : 'Mail to'"
          ><TextInput
            v-model="form.values.to"
            :type="form.values.way === 'text' ? 'tel' : 'text'" /></Field
        ><Field label="Text"
          ><TextInput
            v-model="form.values.body"
            rows="8" /></Field
      ></template>
      <Notice />
      <ActButton
        v-if="form.values.way === 'text' || notice.mails"
        primary
        submit
        :disabled="!form.values.to.trim()"
      >
        {{ form.values.way === 'text' ? 'Send the text' : 'Send the mail' }}
      </ActButton>
    </Form>
    <OneField
      v-if="notice"
      optional
      shown
      class="rang"
      placeholder="what they said"
      act="Note the call"
      :label="`Or rang ${notice.phone}`"
      :send="noteCall"
    />
  </Dialog>
</template>

<style scoped>
.rang {
  margin-top: 14px;
  border-top: 1px solid var(--rule);
  padding-top: 10px;
}
</style>
