<script setup lang="ts">
// Who is calling, once they are chosen: for which of their sites, who speaks, under which number.
import { computed } from 'vue'
import { formatPhone } from '~~/core/text/phone'
import { saySite } from '~~/core/customers/saySite'
import type { Answer } from '~~/shared/api'
import type { Draft } from '~/stores/call'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import Choice from '~/base/Choice.vue'
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'

const props = defineProps<{
  chosen: Answer<'caller'>
  country: string
  wrong: (path: string) => string
}>()
const emit = defineEmits<{ clear: [] }>()
const draft = defineModel<Draft>({ required: true })
const session = useSession()
const site = computed(() => props.chosen.sites.find((s) => s.id === draft.value.siteId))
const contacts = computed(() =>
  props.chosen.contacts.filter((k) => !k.siteId || k.siteId === draft.value.siteId),
)
const neat = () => {
  draft.value.phone = formatPhone(draft.value.phone, props.country)
}
function speak(contactId: string) {
  const k = props.chosen.contacts.find((c) => c.id === contactId)
  Object.assign(draft.value, {
    contactId: k?.id ?? null,
    speaking: k?.name ?? '',
    phone: k?.phone || props.chosen.phone || '',
  })
}
</script>

<template>
  <div class="row">
    <b class="grow name"
      >{{ chosen.name }}
      <span
        v-if="chosen.prospect"
        class="chip"
        >prospect</span
      >{{ ' '
      }}<span
        v-for="t in chosen.tags"
        :key="t"
        class="chip"
        >{{ t }}</span
      ></b
    ><ActButton
      quiet
      @click="emit('clear')"
    >
      Someone else
    </ActButton>
  </div>
  <p
    v-if="chosen.stopWork || chosen.overLimit"
    class="note bad"
  >
    <b>{{ chosen.stopWork ? 'Stop work.' : 'Over the limit.' }}</b>
    {{
      chosen.stopWork ||
      `Owes ${session.money(chosen.owed)}, the limit is ${session.money(chosen.creditLimit!)}`
    }}
  </p>
  <Field label="Where"
    ><Choice
      v-model="draft.siteId"
      :options="[
        { value: null, label: 'Choose the site' },
        ...chosen.sites.map((s) => ({
          value: s.id,
          label: saySite(s),
        })),
      ]"
  /></Field>
  <p
    v-if="wrong('siteId')"
    class="wrong"
  >
    {{ wrong('siteId') }}
  </p>
  <p
    v-if="site?.territory"
    class="small quiet"
  >
    {{ site.territory }}<template v-if="site.accessNote"> · {{ site.accessNote }}</template>
  </p>
  <Field
    v-if="contacts.length"
    label="Contact"
    ><Choice
      :model-value="draft.contactId ?? ''"
      :options="[
        { value: '', label: 'somebody else' },
        ...contacts.map((k) => ({
          value: k.id,
          label: `${k.name}${k.role ? `, ${k.role}` : ''}`,
        })),
      ]"
      @change="speak($event)"
  /></Field>
  <div class="row">
    <Field
      class="grow"
      label="Speaking with"
      ><TextInput v-model="draft.speaking" /></Field
    ><Field
      class="grow"
      label="Their number"
      ><TextInput
        v-model="draft.phone"
        inputmode="tel"
        @blur="neat"
    /></Field>
  </div>
</template>

<style scoped>
.name {
  font-size: 1rem;
}
</style>
