<script setup lang="ts">
// What a work order keeps besides its lines: details that changed at the customer, answers, the firm's own fields, the note that prints.
import { ref } from 'vue'
import { DETAIL_NAMES } from '~~/core/customers/changedDetails'
import type { Answer } from '~~/shared/api'
import FilledFields from '~/components/settings/FilledFields.vue'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import ActButton from '~/base/ActButton.vue'
import Notice from '~/base/Notice.vue'
import { useSession } from '~/stores/session'
import { saySupplied } from '~/visits/saySupplied'
import ParkForm from './ParkForm.vue'
import WordsForm from './WordsForm.vue'

const props = defineProps<{
  work: Answer<'workOrder'>
  edits: boolean
  refresh: () => Promise<unknown>
}>()
const emit = defineEmits<{ changed: [work: Answer<'workOrder'>] }>()
const session = useSession()
const { busy, problem, act } = useAct()
/** which of the two is being written */
const open = ref<'' | 'words' | 'park'>('')
const carry = () =>
  act(async () => emit('changed', await call('carryOver', { params: { id: props.work.id } })))
const takeOut = () =>
  act(async () => {
    const body = { version: props.work.version, list: '' }
    emit('changed', await call('followUp', { params: { id: props.work.id }, body }))
  })
</script>

<template>
  <div
    v-if="work.changedDetails.length"
    class="note warn"
    role="status"
  >
    <div class="row">
      <b class="grow">The customer’s details changed since this work order was made</b
      ><ActButton
        v-if="edits"
        class="no-print"
        :disabled="busy"
        @click="carry"
      >
        Carry over
      </ActButton>
    </div>
    <div
      v-for="d in work.changedDetails"
      :key="d.detail"
      class="small"
    >
      {{ DETAIL_NAMES[d.detail] }}: <s>{{ d.was || 'nothing' }}</s> → <b>{{ d.is || 'nothing' }}</b>
    </div>
  </div>
  <Notice :of="problem" />
  <div
    v-if="
      work.equipment ||
      work.supplied ||
      work.answers.length ||
      work.printedNote ||
      work.fields.length ||
      edits
    "
    class="sheet words"
  >
    <span v-if="work.supplied"
      ><span class="quiet small">About what we supplied</span>
      <NuxtLink :to="`/work/${work.supplied.workOrderId}`">{{
        saySupplied(work.supplied)
      }}</NuxtLink></span
    >
    <span v-if="work.equipment"><span class="quiet small">About</span> {{ work.equipment }}</span>
    <span
      v-for="a in work.answers"
      :key="a.question"
      ><span class="quiet small">{{ a.question }}</span> {{ a.answer }}</span
    >
    <span v-if="work.printedNote"
      ><span class="quiet small">Printed on the invoice</span> {{ work.printedNote }}</span
    >
    <span
      v-if="work.officeNote"
      class="no-print"
      ><span class="quiet small">For the office alone</span> {{ work.officeNote }}</span
    >
    <ActButton
      v-if="edits && session.may('visits.follow')"
      quiet
      class="small no-print"
      @click="open = 'words'"
    >
      Change what it says…
    </ActButton>
    <WordsForm
      v-if="open === 'words'"
      :work="work"
      :refresh="refresh"
      @changed="emit('changed', $event)"
      @close="open = ''"
    />
    <ParkForm
      v-if="open === 'park'"
      :work="work"
      :refresh="refresh"
      @changed="emit('changed', $event)"
      @close="open = ''"
    />
    <span v-else-if="work.followUp"
      ><span class="quiet small">Parked in</span> {{ work.followUp
      }}{{ work.followUpOn ? `, until ${session.day(work.followUpOn)}` : ''
      }}{{ work.followUpReason ? `: ${work.followUpReason}` : '' }}
      <ActButton
        v-if="edits"
        quiet
        class="small no-print"
        :disabled="busy"
        @click="takeOut"
      >
        Take it out
      </ActButton></span
    >
    <ActButton
      v-else-if="edits"
      quiet
      class="small no-print"
      @click="open = 'park'"
    >
      + park it in a list
    </ActButton>
    <div
      v-if="edits && work.fields.length"
      class="own no-print"
    >
      <FilledFields
        :fields="work.fields"
        :subject-id="work.id"
        :act="act"
        @filled="refresh"
      />
    </div>
    <template v-else
      ><span
        v-for="f in work.fields.filter((x) => x.value)"
        :key="f.id"
        ><span class="quiet small">{{ f.name }}</span> {{ f.value }}</span
      ></template
    >
  </div>
</template>

<style scoped>
.words {
  padding: 9px 12px;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  align-items: center;
}
.own {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 8px;
  width: 100%;
}
.btn.plain {
  padding: 0;
  min-height: 24px;
  color: var(--green);
}
</style>
