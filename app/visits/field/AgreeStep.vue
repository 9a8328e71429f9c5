<script setup lang="ts">
// What the customer sees and signs: no internal figures; the total that they saw is sent along with the signature.
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { saySite } from '~~/core/customers/saySite'
import { SIGN_PURPOSES, type SignPurpose } from '~~/core/visits/signedPaper'
import Check from '~/base/Check.vue'
import SignaturePad from 'signature_pad'
import { call, newId } from '~/lib/api'
import { useSession } from '~/stores/session'
import type { useFieldVisit, Work } from './useFieldVisit'

const props = defineProps<{
  visitId: string
  work: Work
  of: ReturnType<typeof useFieldVisit>
}>()
const emit = defineEmits<{ done: [] }>()
const INK = '#16241f'
const EDGE = 16
const session = useSession()
const canvas = ref<HTMLCanvasElement>()
const pad = shallowRef<SignaturePad | null>(null)
const signer = ref('')
/** Who signs for a company says for which, and as what. */
const forCompany = ref(false)
const company = ref(props.work.customer.name)
const role = ref('')
/** Once somebody is done, what is signed was received. */
const purpose = computed<SignPurpose>(() =>
  props.work.visits.find(({ id }) => id === props.visitId)?.state === 'finished'
    ? 'after'
    : 'before',
)
/** Who cannot draw signs with the name that is typed. */
const isTyped = ref(false)
const wrong = (path: string) => props.of.failed.value?.at(path) ?? ''
/** What the customer looks at: it does not change under the finger that signs it. */
const shown = shallowRef(props.work)
const asShown = ({ lines, price }: Work) =>
  JSON.stringify([price.total, lines.map(({ name, quantity, net }) => [name, quantity, net])])
const changed = computed(() => asShown(props.work) !== asShown(shown.value))
/** Whoever signs what changed signs it anew. */
function showNow() {
  shown.value = props.work
  clear()
}
function clear() {
  isTyped.value = false
  pad.value?.clear()
}
/** The name, and that it was typed, stand where it would be drawn. */
function writeName() {
  pad.value!.clear()
  isTyped.value = true
  const { offsetWidth, offsetHeight } = canvas.value!
  const ink = canvas.value!.getContext('2d')!
  ink.fillStyle = INK
  ink.font = `italic 28px ${getComputedStyle(canvas.value!).fontFamily}`
  ink.fillText(signer.value.trim(), EDGE, offsetHeight / 2, offsetWidth - 2 * EDGE)
  ink.font = `14px ${getComputedStyle(canvas.value!).fontFamily}`
  ink.fillText('signed with the typed name', EDGE, offsetHeight - EDGE)
}
watch(signer, () => isTyped.value && clear())
/** As large as its place: a phone that is turned keeps what was drawn. */
function fit() {
  const box = canvas.value!
  const drawn = pad.value?.toData() ?? []
  const ratio = Math.max(1, window.devicePixelRatio)
  box.width = box.offsetWidth * ratio
  box.height = box.offsetHeight * ratio
  box.getContext('2d')!.scale(ratio, ratio)
  pad.value?.fromData(drawn)
  if (isTyped.value) writeName()
}
onMounted(() => {
  fit()
  pad.value = new SignaturePad(canvas.value!, { penColor: INK })
  // Who draws after all begins on an empty place.
  pad.value.addEventListener('beginStroke', () => isTyped.value && clear())
})
onMounted(() => window.addEventListener('resize', fit))
onBeforeUnmount(() => window.removeEventListener('resize', fit))
async function sign() {
  const body = {
    id: newId(),
    visitId: props.visitId,
    name: signer.value,
    company: forCompany.value ? company.value : '',
    role: forCompany.value ? role.value : '',
    purpose: purpose.value,
    image: isTyped.value || !pad.value!.isEmpty() ? pad.value!.toDataURL('image/png') : '',
    shownTotal: shown.value.price.total.amount,
  }
  if (await props.of.change(() => call('sign', { params: { id: props.work.id }, body })))
    emit('done')
}
</script>

<template>
  <section class="block agree">
    <h1>{{ session.me?.company.name }}</h1>
    <p>For {{ shown.customer.name }}, {{ saySite({ ...shown.site, name: '' }) }}</p>
    <table class="book">
      <tbody>
        <tr
          v-for="line in shown.lines"
          :key="line.id"
        >
          <td>
            {{ line.name }}
            <span
              v-if="line.quantity !== '1'"
              class="quiet"
            >
              × {{ line.quantity }}</span
            >
          </td>
          <td class="right num">{{ session.money(line.net, false) }}</td>
        </tr>
        <tr
          v-for="tax in shown.price.taxes"
          :key="tax.name"
        >
          <td class="quiet">{{ tax.name }}</td>
          <td class="right num">{{ session.money(tax.tax, false) }}</td>
        </tr>
        <tr class="sum">
          <td>Total with tax</td>
          <td class="right num">
            <span class="double">{{ session.money(shown.price.total) }}</span>
          </td>
        </tr>
      </tbody>
    </table>
    <p
      v-if="!shown.customer.level && Number(shown.price.saving.amount)"
      class="quiet"
    >
      With a {{ shown.price.savingLevel.toLowerCase() }} this would be
      {{ session.money(shown.price.saving) }} less, before tax.
    </p>
    <p
      v-if="changed"
      class="note warn"
      role="alert"
    >
      This changed meanwhile: shown is {{ session.money(shown.price.total) }}, now it is
      {{ session.money(work.price.total) }}.
      <button
        class="btn"
        @click="showNow"
      >
        Show it as it is now
      </button>
    </p>
    <div>
      <p class="quiet small">Sign here with your finger</p>
      <canvas
        ref="canvas"
        class="pad"
        aria-label="Signature"
      />
    </div>
    <label class="field">
      <span>Your name</span>
      <input
        v-model="signer"
        class="plain"
        autocomplete="off"
      />
      <span
        v-if="wrong('name')"
        class="wrong"
        >{{ wrong('name') }}</span
      >
    </label>
    <Check
      v-model="forCompany"
      class="left"
      >I sign for a company</Check
    >
    <template v-if="forCompany">
      <label class="field">
        <span>Company</span>
        <input
          v-model="company"
          class="plain"
          autocomplete="off"
        />
      </label>
      <label class="field">
        <span>As what</span>
        <input
          v-model="role"
          class="plain"
          autocomplete="off"
        />
      </label>
    </template>
    <p class="quiet">{{ SIGN_PURPOSES[purpose].words }}</p>
    <p
      v-if="wrong('image')"
      class="wrong"
    >
      {{ wrong('image') }}
    </p>
    <button
      class="btn act"
      :disabled="of.busy.value || changed"
      @click="sign"
    >
      {{ purpose === 'after' ? 'Received for' : 'I agree to' }}
      {{ session.money(shown.price.total) }}
    </button>
    <div class="row">
      <button
        class="btn grow"
        @click="clear"
      >
        Sign again
      </button>
      <button
        class="btn grow"
        @click="emit('done')"
      >
        Not now
      </button>
    </div>
    <button
      class="btn plain"
      :disabled="!signer.trim()"
      @click="writeName"
    >
      Sign with the typed name
    </button>
  </section>
</template>

<style scoped>
h1 {
  font-size: 1.125rem;
}
.agree {
  background: var(--sheet);
  min-height: 100vh;
}
.pad {
  width: 100%;
  height: 170px;
  border: 1px solid var(--rule-2);
  border-radius: 8px;
  background: #fff;
  touch-action: none;
  display: block;
}
</style>
