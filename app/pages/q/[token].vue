<script setup lang="ts">
// The customer's page of a quote: drawn on the server, readable and answered without JavaScript.
import ForCustomer from '~/base/ForCustomer.vue'
import PaperSheet from '~/base/PaperSheet.vue'
import { quoteDocument } from '~~/core/quotes/quoteDocument'
import { sayMoney } from '~~/core/money/sayMoney'
import type { Answer } from '~~/shared/api'

const route = useRoute()
const token = encodeURIComponent(String(route.params.token))
const { data, error } = await useFetch<Answer<'publicQuote'>>(`/api/v1/public/quotes/${token}`)
if (error.value && import.meta.server) setResponseStatus(useRequestEvent()!, 404)
/** Why what was answered a moment ago was not kept. */
const REFUSED: Record<string, string> = {
  stale:
    'This quote was changed meanwhile. Please read it once more; below it stands as it is now.',
  invalid: 'Please write your name beside your answer.',
  busy: 'Very many are asking at this moment. Please press the button again in a few seconds.',
  failed: 'Something went wrong on our side. Please try again, or ring us.',
}
const refused = computed(() => REFUSED[String(route.query.said ?? '')] ?? '')
const total = computed(() =>
  data.value?.paper ? sayMoney(data.value.paper.total, data.value.paper.locale) : '',
)
</script>

<template>
  <ForCustomer
    :title="data ? `Quote ${data.number}` : 'Quote'"
    :found="Boolean(data)"
    :seen="`/api/v1/public/quotes/${token}/seen`"
  >
    <template v-if="data">
      <p
        v-if="data.state === 'accepted'"
        class="note done"
        role="status"
      >
        <b>You have accepted this quote. Thank you.</b> We ring or write to you about the day.
      </p>
      <p
        v-else-if="data.state === 'declined'"
        class="note"
        role="status"
      >
        <b>You have declined this quote.</b> If you change your mind, ring us: {{ data.phone }}
      </p>
      <p
        v-else-if="!data.paper"
        class="note"
        role="status"
      >
        <b>We are changing this quote at the moment.</b> It is here again once we have sent it anew.
        If you have a question, ring us: {{ data.phone }}
      </p>
      <p
        v-else-if="data.state === 'expired'"
        class="note"
        role="status"
      >
        <b>The price of this quote is no longer held.</b> Ring us, and we renew it: {{ data.phone }}
      </p>
      <p
        v-if="refused && data.state === 'sent'"
        class="note bad"
        role="alert"
      >
        <b>Not answered yet.</b> {{ refused }}
      </p>
      <PaperSheet
        v-if="data.paper"
        :paper="quoteDocument(data.paper)"
      />
      <form
        v-if="data.state === 'sent'"
        method="post"
        :action="`/q/${token}/answer`"
        class="sheet"
      >
        <h2>Your answer</h2>
        <input
          type="hidden"
          name="version"
          :value="data.version"
        />
        <label class="field"
          ><span>Your name</span
          ><input
            name="name"
            class="plain"
            autocomplete="name"
            maxlength="120"
            required
        /></label>
        <label class="field"
          ><span>Anything that we should know</span
          ><textarea
            name="words"
            class="plain"
            rows="3"
            maxlength="200"
          />
        </label>
        <div class="acts">
          <button
            class="btn act"
            name="accepted"
            value="true"
          >
            Yes, please do this for {{ total }}
          </button>
          <button
            class="btn"
            name="accepted"
            value="false"
          >
            No, thank you
          </button>
        </div>
      </form>
      <div
        v-if="data.paper"
        class="acts"
      >
        <a
          class="btn"
          :href="`/api/v1/public/quotes/${token}.pdf`"
          >Download as PDF</a
        >
      </div>
    </template>
  </ForCustomer>
</template>

<style scoped>
form {
  padding: 14px;
  display: flex;
  flex-direction: column;
  gap: 12px;
}
h2 {
  margin: 0;
}
@media print {
  form,
  .acts {
    display: none;
  }
}
</style>
