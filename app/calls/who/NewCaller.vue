<script setup lang="ts">
// Somebody who is not known yet, kept from within the call.
import { onMounted, ref } from 'vue'
import type { Answer } from '~~/shared/api'
import { call, newId } from '~/lib/api'
import { formatPhone } from '~~/core/text/phone'
import { useAct } from '~/lib/useAct'
import type { Draft } from '~/stores/call'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'
import { useAlike } from './useAlike'

const props = defineProps<{
  country: string
  /** what the booking says of a field */
  wrong: (path: string) => string
}>()
const emit = defineEmits<{ choose: [customerId: string, siteId: string | null] }>()
const draft = defineModel<Draft>({ required: true })
const name = ref<{ focus: () => void }>()
onMounted(() => name.value?.focus())
const { busy, problem, act } = useAct()
const { alike, unseen: alikeUnseen } = useAlike(draft)
const wrongHere = (path: string) => problem.value?.at(path) || props.wrong(path)
const neat = () => {
  draft.value.phone = formatPhone(draft.value.phone, props.country)
}
const saveNew = () =>
  act(async () => {
    const { name, phone, email, line1, town, postcode, source, prospect } = draft.value
    const kept: Answer<'newCustomer'> = await call('newCustomer', {
      body: {
        id: newId(),
        siteId: newId(),
        name,
        phone,
        email,
        line1,
        town,
        postcode,
        source,
        prospect,
      },
    })
    emit('choose', kept.customerId, kept.sites[0]!.id)
  })
</script>

<template>
  <div class="new stack">
    <Field
      label="Name"
      :error="wrongHere('name')"
      ><TextInput
        ref="name"
        v-model="draft.name"
    /></Field>
    <Field label="Telephone"
      ><TextInput
        v-model="draft.phone"
        inputmode="tel"
        @blur="neat"
    /></Field>
    <p
      v-if="alikeUnseen"
      class="note warn"
      role="status"
    >
      Whether they are known already could not be looked up. Look under their number before you
      enter them twice.
    </p>
    <div
      v-if="alike.length"
      class="note warn"
      role="status"
    >
      <b>Perhaps known already</b>
      <div
        v-for="a in alike"
        :key="a.customerId"
        class="row alike"
      >
        <span class="grow"
          >{{ a.name }}<br /><span class="small"
            >{{ [a.phone, a.place].filter(Boolean).join(' · ') }}<br />{{
              a.reasons.join(', ')
            }}</span
          ></span
        ><ActButton @click="emit('choose', a.customerId, null)"> It is them </ActButton>
      </div>
    </div>
    <Field
      label="Address of the site"
      :error="wrongHere('line1')"
      ><TextInput
        v-model="draft.line1"
        placeholder="may follow later"
    /></Field>
    <div class="row">
      <Field
        class="grow"
        label="Town"
        ><TextInput v-model="draft.town" /></Field
      ><Field
        style="width: 90px"
        label="Postcode"
        ><TextInput v-model="draft.postcode"
      /></Field>
    </div>
    <Field
      label="Mail address"
      :error="wrongHere('email')"
      ><TextInput
        v-model="draft.email"
        type="email"
    /></Field>
    <Check v-model="draft.prospect"> Only asks for a price so far</Check>
    <div class="row">
      <ActButton
        primary
        :disabled="busy"
        @click="saveNew"
      >
        Keep this customer</ActButton
      ><ActButton @click="draft.isNew = false"> Not new </ActButton>
    </div>
  </div>
</template>

<style scoped>
.alike {
  padding-top: 6px;
}
</style>
