<script setup lang="ts">
// What scheduling needs: first what is still missing and for what, then hours, territories, time off, meetings, holidays, roads, calendars.
import { computed, reactive, ref, watch } from 'vue'
import type { Answer } from '~~/shared/api'
import { localDate } from '~~/core/time/zone'
import { call, newId } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useLoad } from '~/lib/useLoad'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Choice from '~/base/Choice.vue'
import CountInput from '~/base/CountInput.vue'
import DateInput from '~/base/DateInput.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'
import TimeInput from '~/base/TimeInput.vue'
import FileInput from '~/base/FileInput.vue'
import DataTable from '~/base/DataTable.vue'
import { given } from '~/lib/given'
import Radio from '~/base/Radio.vue'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'

definePageMeta({ layout: 'office' })
type SetUp = Answer<'scheduleSetUp'>
type Person = SetUp['technicians'][number]
const session = useSession()
const { data, problem, refresh } = useLoad(() => call('scheduleSetUp'))
const { data: roads, refresh: roadsAgain } = useLoad(() => call('roads'))
const { busy, problem: failed, act } = useAct()
const owns = computed(() => session.may('dispatch.setUp'))
const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun']
const keep = (work: Promise<SetUp>) =>
  work.then((got) => {
    data.value = got
  })

const editing = ref<Person | null>(null)
const form = reactive({
  days: [] as {
    on: boolean
    from: string
    to: string
    morning: number
    afternoon: number
    breakFrom: string
    breakTo: string
  }[],
  skills: '',
  licences: [] as { skill: string; until: string }[],
  areas: [] as string[],
  kind: 'employee',
  goesWith: null as string | null,
  startsAt: 'home',
  endsAt: 'home',
  homePostcode: '',
})
function edit(p: Person) {
  failed.value = null
  editing.value = p
  form.skills = p.skills.join(', ')
  form.licences = p.licences.map((l) => ({ ...l }))
  form.areas = [...p.territoryIds]
  Object.assign(form, {
    kind: p.kind,
    goesWith: p.goesWith,
    startsAt: p.startsAt,
    endsAt: p.endsAt,
    homePostcode: '',
  })
  form.days = DAYS.map((_, i) => {
    const h = p.hours.find((x) => x.weekday === i + 1)
    return h
      ? {
          on: true,
          from: h.from,
          to: h.to,
          morning: h.morning,
          afternoon: h.afternoon,
          breakFrom: h.breakFrom,
          breakTo: h.breakTo,
        }
      : {
          on: false,
          from: '08:00',
          to: '16:30',
          morning: 2,
          afternoon: 2,
          breakFrom: '',
          breakTo: '',
        }
  })
}
const skills = computed(() => [
  ...new Set(
    form.skills
      .split(',')
      .map((s) => s.trim())
      .filter(Boolean),
  ),
])
const licence = (skill: string) => form.licences.find((l) => l.skill === skill)
/** A licence belongs to a skill; without a day there is none. */
function setLicence(skill: string, change: { until: string }) {
  const l = licence(skill)
  if (l) Object.assign(l, change)
  else form.licences.push({ skill, ...change })
}
const keepPerson = () =>
  act(async () => {
    await keep(
      call('changeTechnician', {
        params: { id: editing.value!.id },
        body: {
          version: editing.value!.version,
          hours: form.days.flatMap((d, i) =>
            d.on
              ? [
                  {
                    weekday: i + 1,
                    from: d.from,
                    to: d.to,
                    morning: d.morning,
                    afternoon: d.afternoon,
                    breakFrom: d.breakFrom,
                    breakTo: d.breakTo,
                  },
                ]
              : [],
          ),
          kind: form.kind as 'employee',
          goesWith: form.goesWith,
          startsAt: form.startsAt as 'home',
          endsAt: form.endsAt as 'home',
          homePostcode: form.homePostcode,
          skills: skills.value,
          licences: form.licences.filter((l) => l.until && skills.value.includes(l.skill)),
          territoryIds: form.areas,
        },
      }),
    )
    editing.value = null
  })
type Territories = Answer<'importTerritories'>
const file = reactive({ data: '', found: null as Territories | null })
const readTerritories = ([chosen]: File[]) =>
  act(async () => {
    if (!chosen) return
    file.data = await chosen.text()
    file.found = null
    file.found = await call('importTerritories', { body: { data: file.data, dryRun: true } })
  })
const keepTerritories = () =>
  act(async () => {
    file.found = await call('importTerritories', { body: { data: file.data, dryRun: false } })
    file.data = ''
    await refresh()
  })
const keepDrives = (outside: boolean) => act(() => keep(call('keepDrives', { body: { outside } })))
const MESSAGES = [
  ['confirmation', 'A confirmation when a visit is booked with its time'],
  ['eve', 'A word the day before, from 16:00 on'],
  ['onWay', 'A word when the technician sets off'],
] as const
const told = reactive({
  open: false,
  confirmation: false,
  eve: false,
  onWay: false,
  words: { confirmation: '', eve: '', onWay: '', late: '' },
})
watch(data, (d) => {
  if (d && !told.open) Object.assign(told, d.messages, { words: { ...d.messages.words } })
})
const keepMessages = () =>
  act(async () => {
    const { open: _, ...body } = told
    await keep(call('keepVisitMessages', { body }))
    told.open = false
  })
const area = reactive({ id: '', name: '', postcodes: '' })
const keepArea = () =>
  act(async () => {
    await keep(
      call('keepTerritory', {
        body: { id: area.id || newId(), name: area.name, postcodes: area.postcodes },
      }),
    )
    Object.assign(area, { id: '', name: '', postcodes: '' })
  })
const off = reactive({ personId: '', from: '', fromTime: '', to: '', toTime: '', reason: '' })
const keepOff = () =>
  act(async () => {
    await keep(
      call('addTimeOff', {
        body: {
          id: newId(),
          personId: given(off.personId),
          from: given(off.from),
          fromTime: off.fromTime || null,
          to: given(off.to || off.from),
          toTime: off.toTime || null,
          reason: off.reason,
        },
      }),
    )
    Object.assign(off, { from: '', fromTime: '', to: '', toTime: '', reason: '' })
  })
const meeting = reactive({ personId: '', date: '', from: '08:00', to: '09:00', title: '' })
const keepMeeting = () =>
  act(async () => {
    await keep(
      call('addEntry', {
        body: {
          id: newId(),
          personId: given(meeting.personId),
          date: given(meeting.date),
          from: meeting.from,
          to: meeting.to,
          title: meeting.title,
        },
      }),
    )
    meeting.title = ''
  })
const holiday = reactive({ date: '', name: '' })
const keepHoliday = (date: string, name: string) =>
  act(async () => {
    await keep(call('keepHoliday', { body: { date: given(date), name } }))
    Object.assign(holiday, { date: '', name: '' })
  })
const about = (p: Person) =>
  [
    p.kind === 'employee' ? '' : p.kind,
    p.goesWith
      ? `goes with ${data.value!.technicians.find((t) => t.id === p.goesWith)?.name.split(' ')[0]}`
      : '',
    p.startsAt === 'yard' ? 'from the yard' : '',
    p.endsAt === 'yard' ? 'back to the yard' : '',
  ]
    .filter(Boolean)
    .join(', ')
const takeOff = (id: string) => act(() => keep(call('removeTimeOff', { params: { id } })))
const takeEntry = (id: string) => act(() => keep(call('removeEntry', { params: { id } })))
const link = reactive({ name: '', url: '' })
const newLink = (p: Person) =>
  act(async () =>
    Object.assign(link, {
      name: p.name,
      url: (await call('newCalendar', { params: { id: p.id } })).url,
    }),
  )
const takeRoads = ([file]: File[]) =>
  act(async () => {
    if (!file) return
    if (file.size > 50_000_000)
      throw Object.assign(new Error('This file is larger than 50 MB. Take a smaller area.'), {
        at: () => '',
      })
    await call('importRoads', {
      body: { id: newId(), name: file.name.replace(/\.\w+$/, ''), data: await file.text() },
    })
    await roadsAgain()
  })
/** “Tue 24 Nov” for a whole day, “Fri 27 Nov 12:00–18:00” for a part of one. */
function spell({ from, to }: { from: string; to: string }) {
  const date = (ms: number) => localDate(ms, session.zone)
  const [first, last] = [date(Date.parse(from)), date(Date.parse(to) - 1)]
  const days = first === last ? session.day(first) : `${session.day(first)} to ${session.day(last)}`
  if (session.time(from) === '00:00' && session.time(to) === '00:00') return days
  return first === last
    ? `${days} ${session.time(from)}–${session.time(to)}`
    : `${session.dayTime(from)} to ${session.dayTime(to)}`
}
const wrong = (path: string) => failed.value?.at(path) ?? ''
const hoursOf = (p: Person) =>
  DAYS.flatMap((d, i) => {
    const h = p.hours.find((x) => x.weekday === i + 1)
    return h ? [`${d} ${h.from}–${h.to}`] : []
  })
/** Days with the same hours are said once. */
const shortHours = (p: Person) => {
  const by = new Map<string, string[]>()
  for (const [i, d] of DAYS.entries()) {
    const h = p.hours.find((x) => x.weekday === i + 1)
    const key =
      h &&
      `${h.from}–${h.to}, ${h.morning} + ${h.afternoon}${h.breakFrom ? `, break ${h.breakFrom}–${h.breakTo}` : ''}`
    if (key) by.set(key, [...(by.get(key) ?? []), d])
  }
  return [...by].map(
    ([k, d]) =>
      `${d.length > 2 && DAYS.indexOf(d.at(-1)!) - DAYS.indexOf(d[0]!) === d.length - 1 ? `${d[0]}–${d.at(-1)}` : d.join(', ')} ${k}`,
  )
}
const DRIVES = [
  [false, 'are within the hours'],
  [true, 'lie outside them'],
] as const
</script>

<template>
  <section
    v-if="data"
    class="page"
  >
    <div class="row">
      <h1 class="grow">Hours and areas</h1>
      <NuxtLink
        class="btn"
        to="/schedule"
        >Back to the schedule</NuxtLink
      >
    </div>
    <p
      v-if="failed ?? problem"
      class="note bad"
      role="alert"
    >
      {{ (failed ?? problem)?.message }}
    </p>
    <ul
      class="sheet guide"
      aria-label="What scheduling needs"
    >
      <li
        v-for="g in data.guide"
        :key="g.code"
      >
        <span
          class="num"
          :class="g.done ? 'good' : 'soon'"
          >{{ g.done ? '✓' : '!' }}</span><span class="grow">{{ g.text }}</span
        ><a
          v-if="!g.done"
          :href="g.where"
          >Go there</a
        >
      </li>
    </ul>
    <h2 id="technicians">Technicians</h2>
    <DataTable
      :rows="data.technicians"
      :row-key="(p) => p.id"
      :columns="[
        { key: 'technician', label: 'Technician' },
        { key: 'hoursVisitsIn', label: 'Hours, visits in the morning + afternoon', look: 'small' },
        { key: 'skills', label: 'Skills', look: 'small' },
        {
          key: 'territories',
          label: 'Territories',
          look: 'small',
          text: (p) =>
            data!.territories
              .filter((t) => p.territoryIds.includes(t.id))
              .map((t) => t.name)
              .join(', ') || 'everywhere',
        },
        { key: 'offAndEntries', label: 'Off, and entries', look: 'small' },
        { key: 'act', right: true, look: 'nowrap' },
      ]"
      ><template #technician="{ row: p }"
        ><b>{{ p.name }}</b>
        <div class="small quiet">{{ about(p) }}</div></template
      >
      <template #hoursVisitsIn="{ row: p }"
        ><div
          v-for="h in shortHours(p)"
          :key="h"
          class="num"
        >
          {{ h }}
        </div>
        <span
          v-if="!hoursOf(p).length"
          class="soon"
          >no hours yet: nobody is offered</span
        ></template
      >
      <template #skills="{ row: p }"
        ><div
          v-for="s in p.skills"
          :key="s"
        >
          {{ s
          }}<span
            v-if="p.licences.find((l) => l.skill === s)"
            :class="p.licences.find((l) => l.skill === s)!.until < session.today ? 'late' : 'quiet'"
          >
            until {{ session.day(p.licences.find((l) => l.skill === s)!.until) }}</span
          >
        </div></template
      >

      <template #offAndEntries="{ row: p }"
        ><div
          v-for="o in p.off"
          :key="o.id"
        >
          {{ spell(o) }}: {{ o.reason }}
          <ActButton
            quiet
            class="small"
            :aria-label="`Take back: ${o.reason}`"
            @click="takeOff(o.id)"
          >
            Take back
          </ActButton>
        </div>
        <div
          v-for="e in p.entries"
          :key="e.id"
        >
          {{ session.dayTime(e.from) }}: {{ e.title }}
          <ActButton
            quiet
            class="small"
            :aria-label="`Take back: ${e.title}`"
            @click="takeEntry(e.id)"
          >
            Take back
          </ActButton>
        </div></template
      >
      <template #act="{ row: p }"
        ><ActButton
          v-if="owns"
          :aria-label="`Change ${p.name}`"
          @click="edit(p)"
        >
          Change</ActButton
        >{{ ' '
        }}<ActButton
          :aria-label="`Calendar of ${p.name}`"
          @click="newLink(p)"
        >
          {{ p.calendar ? 'New calendar link' : 'Calendar link' }}
        </ActButton></template
      ></DataTable
    >
    <div
      class="sheet box"
      role="group"
      aria-label="Drives from and to home"
    >
      <b>The drive to the first visit and the one home</b>
      <div class="row">
        <Radio
          v-for="[outside, words] in DRIVES"
          :key="words"
          name="drives"
          :model-value="data.drivesOutside"
          :value="outside"
          :disabled="!owns || busy"
          @change="keepDrives"
        >
          {{ words }}
        </Radio>
      </div>
      <span class="quiet small">{{
        data.drivesOutside
          ? 'The first visit can begin when the hours do; the way home is no overtime.'
          : 'Whoever begins at 8:00 sets off then, and is home when the hours end.'
      }}</span>
    </div>
    <p
      v-if="link.url"
      class="note row"
      role="status"
    >
      <span class="grow"
        >The calendar of <b>{{ link.name }}</b>, for a calendar program; a link before this one has
        ended:<br /><code class="num url">{{ link.url }}</code></span
      >
    </p>
    <div class="two">
      <form
        class="sheet box"
        @submit.prevent="keepOff"
      >
        <h2>Time off</h2>
        <Field label="Who is off"
          ><Choice
            v-model="off.personId"
            :options="[
              { value: '', label: 'choose' },
              ...data.technicians.map((p) => ({ value: p.id, label: p.name })),
            ]"
        /></Field>
        <div class="row">
          <Field
            class="grow"
            label="From"
            ><DateInput v-model="off.from" /></Field
          ><Field label="at"><TimeInput v-model="off.fromTime" /></Field
          ><Field
            class="grow"
            label="To"
            ><DateInput v-model="off.to" /></Field
          ><Field label="at"><TimeInput v-model="off.toTime" /></Field>
        </div>
        <div class="row">
          <Field
            class="grow"
            label="Reason"
            ><TextInput v-model="off.reason" /></Field
          ><ActButton
            primary
            submit
            :disabled="busy"
          >
            Enter time off
          </ActButton>
        </div>
        <p
          v-if="wrong('from') || wrong('to') || wrong('personId') || wrong('reason')"
          class="wrong"
        >
          {{ wrong('personId') || wrong('from') || wrong('to') || wrong('reason') }}
        </p>
      </form>
      <form
        class="sheet box"
        @submit.prevent="keepMeeting"
      >
        <h2>Meeting, training</h2>
        <Field label="For whom"
          ><Choice
            v-model="meeting.personId"
            :options="[
              { value: '', label: 'choose' },
              ...data.technicians.map((p) => ({ value: p.id, label: p.name })),
            ]"
        /></Field>
        <div class="row">
          <Field
            class="grow"
            label="Day"
            ><DateInput v-model="meeting.date" /></Field
          ><Field label="from"><TimeInput v-model="meeting.from" /></Field
          ><Field label="to"><TimeInput v-model="meeting.to" /></Field>
        </div>
        <div class="row">
          <Field
            class="grow"
            label="What it is"
            ><TextInput v-model="meeting.title" /></Field
          ><ActButton
            primary
            submit
            :disabled="busy"
          >
            Enter it
          </ActButton>
        </div>
        <p
          v-if="wrong('date') || wrong('title')"
          class="wrong"
        >
          {{ wrong('date') || wrong('title') }}
        </p>
      </form>
    </div>
    <h2 id="territories">
      Territories
      <span
        v-if="data.sitesNowhere"
        class="soon small"
        >{{ data.sitesNowhere }} {{ data.sitesNowhere === 1 ? 'site lies' : 'sites lie' }} in
        none</span
      >
    </h2>
    <DataTable
      v-if="data.territories.length"
      :rows="data.territories"
      :row-key="(t) => t.id"
      :columns="[
        { key: 'territory', label: 'Territory' },
        {
          key: 'postcodes',
          label: 'Postcodes',
          look: 'small codes num',
          text: (t) => t.postcodes.join(' '),
        },
        {
          key: 'servedBy',
          label: 'Served by',
          look: 'small',
          tone: (t) => ({ soon: !t.people.length }),
          text: (t) => t.people.join(', ') || 'nobody',
        },
        { key: 'sites', label: 'Sites', figures: true, text: (t) => t.sites },
        { key: 'takesADay', label: 'Takes a day', figures: true, look: 'nowrap' },
        { key: 'act', right: true },
      ]"
      ><template #territory="{ row: t }"
        ><b>{{ t.name }}</b></template
      >

      <template #takesADay="{ row: t }"
        ><span title="The sum of its people, in the morning and in the afternoon"
          >{{ t.morning }} and {{ t.afternoon }}</span
        ></template
      >
      <template #act="{ row: t }"
        ><ActButton
          v-if="owns"
          :aria-label="`Change ${t.name}`"
          @click="
            Object.assign(area, { id: t.id, name: t.name, postcodes: t.postcodes.join(', ') })
          "
        >
          Change
        </ActButton></template
      ></DataTable
    >
    <form
      v-if="owns"
      class="sheet box"
      @submit.prevent="keepArea"
    >
      <div class="row">
        <Field :label="area.id ? 'Change the territory' : 'A territory'"
          ><TextInput
            v-model="area.name"
            placeholder="Name" /></Field
        ><Field
          class="grow"
          label="Postcodes: single ones, beginnings, ranges"
          ><TextInput
            v-model="area.postcodes"
            class="num"
            placeholder="04101–04105, 04110" /></Field
        ><ActButton
          primary
          submit
          :disabled="busy"
        >
          Keep the territory
        </ActButton>
      </div>
      <p
        v-if="wrong('name') || wrong('postcodes')"
        class="wrong"
      >
        {{ wrong('name') || wrong('postcodes') }}
      </p>
    </form>
    <div
      v-if="owns"
      class="sheet box"
    >
      <div class="row">
        <span class="small quiet grow"
          >Or a CSV file with a territory and a postcode in each row</span
        ><FileInput
          label="Choose a CSV file"
          accept=".csv,text/csv"
          @choose="readTerritories"
        /><a
          class="btn"
          href="/api/v1/export/territories.csv"
          >Save as CSV</a
        ><NuxtLink
          class="btn"
          to="/schedule/map"
          >See them on the map</NuxtLink
        >
      </div>
      <template v-if="file.found"
        ><DataTable
          :rows="file.found.territories"
          :row-key="(t) => t.name"
          :columns="[
            { key: 'c1' },
            { key: 'c2', look: 'num' },
            { key: 'c3', look: 'good num' },
            { key: 'c4', look: 'num', tone: (t) => ({ soon: t.dropped }) },
          ]"
          ><template #c1="{ row: t }"
            ><b>{{ t.name }}</b></template
          >
          <template #c2="{ row: t }">{{ t.postcodes }} postcodes</template>
          <template #c3="{ row: t }">{{ t.added }} new</template>
          <template #c4="{ row: t }">{{ t.dropped }} dropped </template></DataTable
        >
        <p
          v-for="e in file.found.errors.slice(0, 8)"
          :key="e.line"
          class="wrong"
        >
          Line {{ e.line }}: {{ e.message }}
        </p>
        <p
          v-if="file.found.errors.length > 8"
          class="wrong"
        >
          and {{ file.found.errors.length - 8 }} more lines
        </p>
        <div class="row">
          <ActButton
            v-if="!file.found.kept"
            primary
            :disabled="busy || !file.found.territories.length"
            @click="keepTerritories"
          >
            Keep {{ file.found.territories.length }}
            {{ file.found.territories.length === 1 ? 'territory' : 'territories' }}</ActButton
          ><span
            v-else
            class="good"
            >Kept.</span
          >
        </div></template
      >
    </div>
    <h2 id="messages">What customers are told by itself</h2>
    <form
      class="sheet box"
      @submit.prevent="keepMessages"
      @input="told.open = true"
    >
      <Check
        v-for="[k, label] in MESSAGES"
        :key="k"
        v-model="told[k]"
        class="left"
        :disabled="!owns"
      >
        {{ label }}</Check
      >
      <p class="quiet small">
        By text to those who agreed to texts, by mail to the others unless they want none; whoever
        can get neither is shown, to be rung.
      </p>
      <details>
        <summary>The words</summary>
        <div class="two">
          <Field
            v-for="k in ['confirmation', 'eve', 'onWay', 'late'] as const"
            :key="k"
            :label="
              {
                confirmation: 'Confirmation',
                eve: 'The day before',
                onWay: 'On the way',
                late: 'Running late',
              }[k]
            "
            ><TextInput
              v-model="told.words[k]"
              rows="3"
              :disabled="!owns"
            />
          </Field>
        </div>
        <p class="quiet small">
          Filled in: {when} {day} {window} {time} {who} {title} {place} {name} {phone} {company}
        </p>
      </details>
      <div
        v-if="owns"
        class="row"
      >
        <ActButton
          primary
          submit
          :disabled="busy || !told.open"
        >
          Keep these messages
        </ActButton>
      </div>
    </form>
    <div class="two">
      <form
        class="sheet box"
        @submit.prevent="keepHoliday(holiday.date, holiday.name || 'Holiday')"
      >
        <h2>Holidays</h2>
        <div
          v-for="h in data.holidays"
          :key="h.date"
          class="row"
        >
          <span class="grow">{{ session.day(h.date, true) }}: {{ h.name }}</span
          ><ActButton
            v-if="owns"
            quiet
            class="small"
            :aria-label="`Take back ${h.name}`"
            @click="keepHoliday(h.date, '')"
          >
            Take back
          </ActButton>
        </div>
        <div
          v-if="owns"
          class="row"
        >
          <Field label="Day"><DateInput v-model="holiday.date" /></Field
          ><Field
            class="grow"
            label="Called"
            ><TextInput v-model="holiday.name" /></Field
          ><ActButton
            primary
            submit
            :disabled="busy"
          >
            Nobody works then
          </ActButton>
        </div>
      </form>
      <div
        id="roads"
        class="sheet box"
      >
        <h2>Roads</h2>
        <p v-if="roads?.network">
          {{ roads.network.name }}: {{ roads.network.lines }} roads,
          {{ roads.network.positions }} positions<span
            v-if="roads.network.parts > 1"
            class="soon"
            >; it falls into {{ roads.network.parts }} parts, the largest is used</span
          >
        </p>
        <p
          v-else
          class="quiet"
        >
          No roads yet: driving is the distance as the crow flies, and a third more.
        </p>
        <div
          v-if="owns"
          class="row"
        >
          <span class="small quiet grow">Another network: GeoJSON lines with their speed</span>
          <FileInput
            label="Choose roads"
            accept=".json,.geojson,application/geo+json"
            @choose="takeRoads"
          />
        </div>
      </div>
    </div>
    <Dialog
      :model-value="editing !== null"
      :title="editing?.name ?? ''"
      width="860"
      @close="editing = null"
    >
      <form
        class="stack"
        @submit.prevent="keepPerson"
      >
        <DataTable
          :rows="form.days"
          :row-key="(d, i) => i"
          :columns="[
            { key: 'day', label: 'Day' },
            { key: 'from', label: 'From' },
            { key: 'to', label: 'To' },
            { key: 'morning', label: 'Morning' },
            { key: 'afternoon', label: 'Afternoon' },
            { key: 'break', label: 'Break', look: 'nowrap' },
          ]"
          ><template #day="{ row: d, index: i }"
            ><Check v-model="d.on"> {{ DAYS[i] }}</Check></template
          >
          <template #from="{ row: d, index: i }"
            ><TimeInput
              v-model="d.from"
              :disabled="!d.on"
              :aria-label="`${DAYS[i]} from`"
          /></template>
          <template #to="{ row: d, index: i }"
            ><TimeInput
              v-model="d.to"
              :disabled="!d.on"
              :aria-label="`${DAYS[i]} to`"
          /></template>
          <template #morning="{ row: d, index: i }"
            ><CountInput
              v-model="d.morning"
              :disabled="!d.on"
              :aria-label="`${DAYS[i]}, visits in the morning`"
              :min="0"
              :max="20"
          /></template>
          <template #afternoon="{ row: d, index: i }"
            ><CountInput
              v-model="d.afternoon"
              :disabled="!d.on"
              :aria-label="`${DAYS[i]}, visits in the afternoon`"
              :min="0"
              :max="20"
          /></template>
          <template #break="{ row: d, index: i }"
            ><TimeInput
              v-model="d.breakFrom"
              :disabled="!d.on"
              :aria-label="`${DAYS[i]}, break from`" />{{ ' '
            }}<TimeInput
              v-model="d.breakTo"
              :disabled="!d.on"
              :aria-label="`${DAYS[i]}, break to`" /></template
        ></DataTable>
        <Field label="Skills, with commas between"><TextInput v-model="form.skills" /></Field>
        <div
          v-if="skills.length"
          class="row licences"
        >
          <Field
            v-for="s in skills"
            :key="s"
            :label="`${s}: licence valid until`"
            ><DateInput
              :model-value="licence(s)?.until ?? ''"
              @change="setLicence(s, { until: $event })"
          /></Field>
        </div>
        <fieldset class="row who">
          <legend class="quiet small">Territories; none means everywhere</legend>
          <Check
            v-for="t in data.territories"
            :key="t.id"
            v-model="form.areas"
            :value="t.id"
          >
            {{ t.name }}</Check
          >
        </fieldset>
        <div class="row">
          <Field label="Works here as"
            ><Choice
              v-model="form.kind"
              :options="[
                { value: 'employee', label: 'employee' },
                { value: 'subcontractor', label: 'subcontractor' },
                { value: 'apprentice', label: 'apprentice' },
              ]" /></Field
          ><Field
            class="grow"
            label="Always goes with"
            ><Choice
              v-model="form.goesWith"
              :options="[
                { value: null, label: 'nobody: is booked alone' },
                ...data.technicians
                  .filter((x) => x.id !== editing?.id && !x.goesWith)
                  .map((p) => ({ value: p.id, label: p.name })),
              ]"
          /></Field>
        </div>
        <div class="row">
          <Field label="The day begins at"
            ><Choice
              v-model="form.startsAt"
              :options="[
                { value: 'home', label: 'home' },
                { value: 'yard', label: 'the yard', disabled: !data.yardKnown },
              ]" /></Field
          ><Field label="and ends at"
            ><Choice
              v-model="form.endsAt"
              :options="[
                { value: 'home', label: 'home' },
                { value: 'yard', label: 'the yard', disabled: !data.yardKnown },
              ]" /></Field
          ><Field
            class="grow"
            :label="`Home${editing?.home ? ' is known; move it to the postcode' : ' is in the postcode'}`"
            ><TextInput
              v-model="form.homePostcode"
              class="num"
              :placeholder="editing?.home ? 'stays where it is' : '04101'"
          /></Field>
        </div>
        <Notice :of="failed" />
        <ActButton
          primary
          submit
          :disabled="busy"
        >
          Keep
        </ActButton>
      </form>
    </Dialog>
  </section>
  <Pending
    v-else
    :problem="problem"
    says="Loading…"
  />
</template>

<style scoped>
.guide {
  list-style: none;
  margin: 0;
  padding: 6px 14px;
}
.guide li {
  display: flex;
  gap: 10px;
  padding: 4px 0;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
.box {
  padding: 12px;
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.box .row {
  align-items: flex-end;
}
.box .row.left {
  align-items: center;
}
.licences {
  flex-wrap: wrap;
}
.codes {
  white-space: normal;
  max-width: 420px;
}
.url {
  white-space: normal;
  overflow-wrap: anywhere;
}
.who {
  border: 0;
  padding: 0;
  margin: 0;
  gap: 14px;
  flex-wrap: wrap;
}
td .el-input-number {
  width: 76px;
}
</style>
