<script setup lang="ts">
// The public request form: drawn on the server, works without JavaScript, may stand inside the firm's own web page.
import type { Answer } from '~~/shared/api'

const route = useRoute()
const { data } = await useFetch<Answer<'requestForm'>>('/api/v1/public/request', {
  query: { form: route.query.form },
})
const sent = computed(() => route.query.sent === 'yes')
const was = (name: string) => data.value?.fields.find((f) => f.name === name)?.value ?? ''
const wrong = (path: string) => data.value?.errors.find((e) => e.path === path)?.message ?? ''
const FIELDS = [
  ['name', 'Your name', 'text', 'name'],
  ['phone', 'Telephone', 'tel', 'tel'],
  ['email', 'Mail address', 'email', 'email'],
  ['line1', 'Where the work is', 'text', 'street-address'],
  ['town', 'Town', 'text', 'address-level2'],
  ['postcode', 'Postcode', 'text', 'postal-code'],
] as const
useHead({ title: data.value ? `Ask ${data.value.firm}` : 'Ask for work' })
</script>

<template>
  <main
    v-if="data"
    class="customer"
  >
    <h1>Ask {{ data.firm }} for help</h1>
    <p
      v-if="sent"
      class="note done"
      role="status"
    >
      <b>Thank you. We have your request and will ring or write to you.</b><br />If water is running
      where it should not, please ring us: {{ data.phone }}
    </p>
    <template v-else>
      <p class="quiet">
        Tell us what is wrong and how to reach you. If it is urgent, please ring {{ data.phone }}.
      </p>
      <p
        v-if="data.detail"
        class="note bad"
        role="alert"
      >
        <b>Not sent yet.</b> {{ data.detail }}
      </p>
      <form
        method="post"
        action="/request"
        enctype="multipart/form-data"
      >
        <label class="field"
          ><span>What do you need?</span
          ><textarea
            name="problem"
            class="plain"
            rows="5"
            required
            maxlength="2000"
            :value="was('problem')"
          /><span
            v-if="wrong('problem')"
            class="wrong"
            >{{ wrong('problem') }}</span
          ></label
        >
        <div class="two">
          <label
            v-for="[key, label, type, auto] in FIELDS"
            :key="key"
            class="field"
            ><span>{{ label }}</span
            ><input
              :name="key"
              :type="type"
              class="plain"
              :autocomplete="auto"
              maxlength="160"
              :required="key === 'name'"
              :value="was(key)"
            /><span
              v-if="wrong(key)"
              class="wrong"
              >{{ wrong(key) }}</span
            ></label
          >
        </div>
        <label class="field"
          ><span>When would suit you?</span
          ><input
            name="wanted"
            class="plain"
            maxlength="200"
            :value="was('wanted')"
        /></label>
        <label class="field"
          ><span>Pictures, if they help (4 at most, 5 MB each)</span
          ><input
            type="file"
            name="pictures"
            accept="image/png,image/jpeg,image/webp"
            multiple
        /></label>
        <label
          class="trap"
          aria-hidden="true"
          >Leave this empty<input
            name="website"
            tabindex="-1"
            autocomplete="off"
        /></label>
        <input
          type="hidden"
          name="stamp"
          :value="data.stamp"
        />
        <button class="btn act">Send the request</button>
      </form>
    </template>
  </main>
</template>

<style scoped>
.customer {
  max-width: 640px;
  margin: 0 auto;
  padding: 20px 14px 40px;
  font-size: 1rem;
}
form,
.customer {
  display: flex;
  flex-direction: column;
  gap: 14px;
}
.two {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 12px;
}
.customer :deep(.field > span) {
  font-size: 0.875rem;
}
.btn {
  min-height: 48px;
  align-self: flex-start;
  padding: 0 22px;
}
.done {
  background: var(--green-1);
  border-color: var(--green-2);
}
.trap {
  position: absolute;
  left: -9999px;
}
</style>
