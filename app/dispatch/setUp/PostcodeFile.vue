<script setup lang="ts">
// Where postcodes are, from a file: sites that stand nowhere are found by it, and so is what is entered later.
import { computed } from 'vue'
import { POSTCODE_FIELDS, type PostcodeField } from '~~/core/customers/postcodePlaces'
import { counted } from '~~/core/text/counted'
import ActButton from '~/base/ActButton.vue'
import FileInput from '~/base/FileInput.vue'
import Notice from '~/base/Notice.vue'
import FileColumns from '~/components/base/FileColumns.vue'
import ImportNews from '~/components/base/ImportNews.vue'
import { call } from '~/lib/api'
import { useAnswer } from '~/lib/useAnswer'
import { usePostcodeFile } from './usePostcodeFile'

defineProps<{ owns: boolean }>()
const emit = defineEmits<{ kept: [] }>()
const { data: now, problem: unread, refresh } = useAnswer('postcodes')
const file = usePostcodeFile(async () => {
  await refresh()
  emit('kept')
})
const { table, columns, fileName, said, progress, busy, problem, done, missing } = file
const FIELDS: Readonly<Record<PostcodeField, string>> = {
  ...{ postcode: 'postcode', town: 'town', lat: 'latitude', lon: 'longitude' },
}
const label = (field: PostcodeField) => FIELDS[field]
const where = computed(() => {
  const { sitesWithout, missing: codes } = now.value!
  const more = sitesWithout > codes.length ? ' and others' : ''
  return sitesWithout
    ? `${counted(sitesWithout, 'site')} without a place: ${codes.join(', ')}${more}.`
    : 'Every site has its place.'
})
const forget = () =>
  file.act(async () => {
    now.value = await call('forgetPostcodes')
  })
</script>

<template>
  <div
    class="sheet box"
    role="group"
    aria-label="Postcodes"
  >
    <Notice :of="unread" />
    <div
      v-if="now"
      class="row"
    >
      <span class="grow"
        ><b>{{ counted(now.count, 'postcode') }}</b> with a place.
        <span :class="{ soon: now.sitesWithout }">{{ where }}</span></span
      >
      <template v-if="owns">
        <FileInput
          label="Choose a table of postcodes"
          accept=".csv,.txt,.tsv,text/csv"
          :disabled="busy"
          @choose="file.choose"
        />
        <ActButton
          v-if="now.count"
          quiet
          :disabled="busy"
          @click="forget"
          >Take the table away</ActButton
        >
      </template>
    </div>
    <span class="quiet small"
      >A row for each postcode with its latitude and longitude, as open tables of a country have
      them. A new site then stands in the middle of its postcode; one that was put on the map by
      hand stays there.</span
    >
    <ImportNews
      v-bind="{ said, problem, busy }"
      :progress="table ? progress : null"
      :done="false"
    />
    <template v-if="table">
      <h3>{{ fileName }}: {{ table.rows.length }} rows</h3>
      <FileColumns
        v-model="columns"
        :head="table.head"
        :rows="table.rows"
        :fields="POSTCODE_FIELDS"
        :label="label"
      />
      <p
        v-if="missing.length"
        class="wrong"
      >
        Say which column holds: {{ missing.map(label).join(', ') }}.
      </p>
      <div class="row">
        <span
          v-if="done"
          class="grow"
          role="status"
          >{{ done.kept ? 'Kept' : 'Nothing has been changed yet' }}:
          {{ counted(done.postcodes, 'postcode')
          }}<template v-if="done.wrong"
            >, {{ counted(done.wrong, 'row') }} without a place left out</template
          >; {{ counted(done.sites, 'site') }} {{ done.kept ? 'found' : 'would be found' }}.</span
        ><span
          v-else
          class="grow"
        />
        <ActButton
          :disabled="busy || !!missing.length"
          @click="file.go(false)"
          >Try it dry</ActButton
        >
        <ActButton
          primary
          :disabled="busy || !done || done.kept || !done.postcodes"
          @click="file.go(true)"
          >Keep these postcodes</ActButton
        >
      </div>
    </template>
  </div>
</template>
