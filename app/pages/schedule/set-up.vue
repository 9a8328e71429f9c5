<script setup lang="ts">
// What scheduling needs: first what is still missing and for what, then hours, territories, time off, meetings, holidays, roads, calendars.
import { computed, reactive, ref, watch } from 'vue'
import type { Answer } from '~~/shared/api'
import { localDate } from '~~/core/time/zone'
import { call, newId } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useLoad } from '~/lib/useLoad'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office' })
type SetUp = Answer<'scheduleSetUp'>
type Person = SetUp['technicians'][number]
const session = useSession()
const { data, problem, refresh } = useLoad(() => call('scheduleSetUp'))
const { data: roads, refresh: roadsAgain } = useLoad(() => call('roads'))
const { busy, problem: failed, act } = useAct()
const owns = computed(() => ['owner', 'office'].includes(session.role))
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
const readTerritories = (e: Event) =>
  act(async () => {
    const chosen = (e.target as HTMLInputElement).files?.[0]
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
          personId: off.personId || undefined,
          from: off.from || undefined,
          fromTime: off.fromTime || null,
          to: off.to || off.from || undefined,
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
          personId: meeting.personId || undefined,
          date: meeting.date || undefined,
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
    await keep(call('keepHoliday', { body: { date: date || undefined, name } }))
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
const takeRoads = (e: Event) =>
  act(async () => {
    const file = (e.target as HTMLInputElement).files?.[0]
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
    <table class="book">
      <thead>
        <tr>
          <th>Technician</th>
          <th>Hours, visits in the morning + afternoon</th>
          <th>Skills</th>
          <th>Territories</th>
          <th>Off, and entries</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="p in data.technicians"
          :key="p.id"
        >
          <td>
            <b>{{ p.name }}</b>
            <div class="small quiet">{{ about(p) }}</div>
          </td>
          <td class="small">
            <div
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
            >
          </td>
          <td class="small">
            <div
              v-for="s in p.skills"
              :key="s"
            >
              {{ s
              }}<span
                v-if="p.licences.find((l) => l.skill === s)"
                :class="
                  p.licences.find((l) => l.skill === s)!.until < session.today ? 'late' : 'quiet'
                "
              >
                until {{ session.day(p.licences.find((l) => l.skill === s)!.until) }}</span
              >
            </div>
          </td>
          <td class="small">
            {{
              data.territories
                .filter((t) => p.territoryIds.includes(t.id))
                .map((t) => t.name)
                .join(', ') || 'everywhere'
            }}
          </td>
          <td class="small">
            <div
              v-for="o in p.off"
              :key="o.id"
            >
              {{ spell(o) }}: {{ o.reason }}
              <button
                class="btn plain small"
                :aria-label="`Take back: ${o.reason}`"
                @click="takeOff(o.id)"
              >
                Take back
              </button>
            </div>
            <div
              v-for="e in p.entries"
              :key="e.id"
            >
              {{ session.dayTime(e.from) }}: {{ e.title }}
              <button
                class="btn plain small"
                :aria-label="`Take back: ${e.title}`"
                @click="takeEntry(e.id)"
              >
                Take back
              </button>
            </div>
          </td>
          <td class="right nowrap">
            <button
              v-if="owns"
              class="btn"
              :aria-label="`Change ${p.name}`"
              @click="edit(p)"
            >
              Change</button
            >{{ ' '
            }}<button
              class="btn"
              :aria-label="`Calendar of ${p.name}`"
              @click="newLink(p)"
            >
              {{ p.calendar ? 'New calendar link' : 'Calendar link' }}
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <div
      class="sheet box"
      role="group"
      aria-label="Drives from and to home"
    >
      <b>The drive to the first visit and the one home</b>
      <el-radio-group
        :model-value="data.drivesOutside"
        :disabled="!owns || busy"
        @change="keepDrives(Boolean($event))"
      >
        <el-radio :value="false">are within the hours</el-radio>
        <el-radio :value="true">lie outside them</el-radio>
      </el-radio-group>
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
        <label class="field"
          ><span>Who is off</span
          ><select
            v-model="off.personId"
            class="plain"
          >
            <option value="">choose</option>
            <option
              v-for="p in data.technicians"
              :key="p.id"
              :value="p.id"
            >
              {{ p.name }}
            </option>
          </select></label
        >
        <div class="row">
          <label class="field grow"
            ><span>From</span
            ><input
              v-model="off.from"
              class="plain"
              type="date" /></label
          ><label class="field"
            ><span>at</span
            ><input
              v-model="off.fromTime"
              class="plain"
              type="time" /></label
          ><label class="field grow"
            ><span>To</span
            ><input
              v-model="off.to"
              class="plain"
              type="date" /></label
          ><label class="field"
            ><span>at</span
            ><input
              v-model="off.toTime"
              class="plain"
              type="time"
          /></label>
        </div>
        <div class="row">
          <label class="field grow"
            ><span>Reason</span
            ><input
              v-model="off.reason"
              class="plain" /></label
          ><button
            class="btn act"
            :disabled="busy"
          >
            Enter time off
          </button>
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
        <label class="field"
          ><span>For whom</span
          ><select
            v-model="meeting.personId"
            class="plain"
          >
            <option value="">choose</option>
            <option
              v-for="p in data.technicians"
              :key="p.id"
              :value="p.id"
            >
              {{ p.name }}
            </option>
          </select></label
        >
        <div class="row">
          <label class="field grow"
            ><span>Day</span
            ><input
              v-model="meeting.date"
              class="plain"
              type="date" /></label
          ><label class="field"
            ><span>from</span
            ><input
              v-model="meeting.from"
              class="plain"
              type="time" /></label
          ><label class="field"
            ><span>to</span
            ><input
              v-model="meeting.to"
              class="plain"
              type="time"
          /></label>
        </div>
        <div class="row">
          <label class="field grow"
            ><span>What it is</span
            ><input
              v-model="meeting.title"
              class="plain" /></label
          ><button
            class="btn act"
            :disabled="busy"
          >
            Enter it
          </button>
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
    <table
      v-if="data.territories.length"
      class="book"
    >
      <thead>
        <tr>
          <th>Territory</th>
          <th>Postcodes</th>
          <th>Served by</th>
          <th class="right">Sites</th>
          <th class="right">Takes a day</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="t in data.territories"
          :key="t.id"
        >
          <td>
            <b>{{ t.name }}</b>
          </td>
          <td class="small num codes">{{ t.postcodes.join(' ') }}</td>
          <td
            class="small"
            :class="{ soon: !t.people.length }"
          >
            {{ t.people.join(', ') || 'nobody' }}
          </td>
          <td class="right num">{{ t.sites }}</td>
          <td
            class="right num nowrap"
            title="The sum of its people, in the morning and in the afternoon"
          >
            {{ t.morning }} and {{ t.afternoon }}
          </td>
          <td class="right">
            <button
              v-if="owns"
              class="btn"
              :aria-label="`Change ${t.name}`"
              @click="
                Object.assign(area, { id: t.id, name: t.name, postcodes: t.postcodes.join(', ') })
              "
            >
              Change
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <form
      v-if="owns"
      class="sheet box"
      @submit.prevent="keepArea"
    >
      <div class="row">
        <label class="field"
          ><span>{{ area.id ? 'Change the territory' : 'A territory' }}</span
          ><input
            v-model="area.name"
            class="plain"
            placeholder="Name" /></label
        ><label class="field grow"
          ><span>Postcodes: single ones, beginnings, ranges</span
          ><input
            v-model="area.postcodes"
            class="plain num"
            placeholder="04101–04105, 04110" /></label
        ><button
          class="btn act"
          :disabled="busy"
        >
          Keep the territory
        </button>
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
        <label class="field grow"
          ><span>Or a CSV file with a territory and a postcode in each row</span
          ><input
            type="file"
            accept=".csv,text/csv"
            @change="readTerritories" /></label
        ><a
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
        ><table class="book">
          <tbody>
            <tr
              v-for="t in file.found.territories"
              :key="t.name"
            >
              <td>
                <b>{{ t.name }}</b>
              </td>
              <td class="num">{{ t.postcodes }} postcodes</td>
              <td class="num good">{{ t.added }} new</td>
              <td
                class="num"
                :class="{ soon: t.dropped }"
              >
                {{ t.dropped }} dropped
              </td>
            </tr>
          </tbody>
        </table>
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
          <button
            v-if="!file.found.kept"
            class="btn act"
            :disabled="busy || !file.found.territories.length"
            @click="keepTerritories"
          >
            Keep {{ file.found.territories.length }}
            {{ file.found.territories.length === 1 ? 'territory' : 'territories' }}</button
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
      <label
        v-for="[k, label] in MESSAGES"
        :key="k"
        class="row left"
        ><input
          v-model="told[k]"
          type="checkbox"
          :disabled="!owns"
        />
        {{ label }}</label
      >
      <p class="quiet small">
        By text to those who agreed to texts, by mail to the others unless they want none; whoever
        can get neither is shown, to be rung.
      </p>
      <details>
        <summary>The words</summary>
        <div class="two">
          <label
            v-for="k in ['confirmation', 'eve', 'onWay', 'late'] as const"
            :key="k"
            class="field"
            ><span>{{
              {
                confirmation: 'Confirmation',
                eve: 'The day before',
                onWay: 'On the way',
                late: 'Running late',
              }[k]
            }}</span
            ><textarea
              v-model="told.words[k]"
              class="plain"
              rows="3"
              :disabled="!owns"
            />
          </label>
        </div>
        <p class="quiet small">
          Filled in: {when} {day} {window} {time} {who} {title} {place} {name} {phone} {company}
        </p>
      </details>
      <div
        v-if="owns"
        class="row"
      >
        <button
          class="btn act"
          :disabled="busy || !told.open"
        >
          Keep these messages
        </button>
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
          ><button
            v-if="owns"
            type="button"
            class="btn plain small"
            :aria-label="`Take back ${h.name}`"
            @click="keepHoliday(h.date, '')"
          >
            Take back
          </button>
        </div>
        <div
          v-if="owns"
          class="row"
        >
          <label class="field"
            ><span>Day</span
            ><input
              v-model="holiday.date"
              class="plain"
              type="date" /></label
          ><label class="field grow"
            ><span>Called</span
            ><input
              v-model="holiday.name"
              class="plain" /></label
          ><button
            class="btn act"
            :disabled="busy"
          >
            Nobody works then
          </button>
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
        <label
          v-if="owns"
          class="field"
          ><span>Take another network: GeoJSON lines with their speed</span
          ><input
            type="file"
            accept=".json,.geojson,application/geo+json"
            @change="takeRoads"
        /></label>
      </div>
    </div>
    <el-dialog
      :model-value="editing !== null"
      :title="editing?.name"
      width="860"
      @close="editing = null"
    >
      <form
        class="stack"
        @submit.prevent="keepPerson"
      >
        <table class="book">
          <thead>
            <tr>
              <th>Day</th>
              <th>From</th>
              <th>To</th>
              <th>Morning</th>
              <th>Afternoon</th>
              <th>Break</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="(d, i) in form.days"
              :key="i"
            >
              <td>
                <label class="row"
                  ><input
                    v-model="d.on"
                    type="checkbox"
                  />
                  {{ DAYS[i] }}</label
                >
              </td>
              <td>
                <input
                  v-model="d.from"
                  class="plain"
                  type="time"
                  :disabled="!d.on"
                  :aria-label="`${DAYS[i]} from`"
                />
              </td>
              <td>
                <input
                  v-model="d.to"
                  class="plain"
                  type="time"
                  :disabled="!d.on"
                  :aria-label="`${DAYS[i]} to`"
                />
              </td>
              <td>
                <input
                  v-model.number="d.morning"
                  class="plain num"
                  type="number"
                  min="0"
                  max="20"
                  :disabled="!d.on"
                  :aria-label="`${DAYS[i]}, visits in the morning`"
                />
              </td>
              <td>
                <input
                  v-model.number="d.afternoon"
                  class="plain num"
                  type="number"
                  min="0"
                  max="20"
                  :disabled="!d.on"
                  :aria-label="`${DAYS[i]}, visits in the afternoon`"
                />
              </td>
              <td class="nowrap">
                <input
                  v-model="d.breakFrom"
                  class="plain"
                  type="time"
                  :disabled="!d.on"
                  :aria-label="`${DAYS[i]}, break from`"
                />{{ ' '
                }}<input
                  v-model="d.breakTo"
                  class="plain"
                  type="time"
                  :disabled="!d.on"
                  :aria-label="`${DAYS[i]}, break to`"
                />
              </td>
            </tr>
          </tbody>
        </table>
        <label class="field"
          ><span>Skills, with commas between</span
          ><input
            v-model="form.skills"
            class="plain"
        /></label>
        <div
          v-if="skills.length"
          class="row licences"
        >
          <label
            v-for="s in skills"
            :key="s"
            class="field"
            ><span>{{ s }}: licence valid until</span
            ><input
              class="plain"
              type="date"
              :value="licence(s)?.until ?? ''"
              @change="setLicence(s, { until: ($event.target as HTMLInputElement).value })"
          /></label>
        </div>
        <fieldset class="row who">
          <legend class="quiet small">Territories; none means everywhere</legend>
          <label
            v-for="t in data.territories"
            :key="t.id"
            class="row"
            ><input
              v-model="form.areas"
              type="checkbox"
              :value="t.id"
            />
            {{ t.name }}</label
          >
        </fieldset>
        <div class="row">
          <label class="field"
            ><span>Works here as</span
            ><select
              v-model="form.kind"
              class="plain"
            >
              <option value="employee">employee</option>
              <option value="subcontractor">subcontractor</option>
              <option value="apprentice">apprentice</option>
            </select></label
          ><label class="field grow"
            ><span>Always goes with</span
            ><select
              v-model="form.goesWith"
              class="plain"
            >
              <option :value="null">nobody: is booked alone</option>
              <option
                v-for="p in data.technicians.filter((x) => x.id !== editing?.id && !x.goesWith)"
                :key="p.id"
                :value="p.id"
              >
                {{ p.name }}
              </option>
            </select></label
          >
        </div>
        <div class="row">
          <label class="field"
            ><span>The day begins at</span
            ><select
              v-model="form.startsAt"
              class="plain"
            >
              <option value="home">home</option>
              <option
                value="yard"
                :disabled="!data.yardKnown"
              >
                the yard
              </option>
            </select></label
          ><label class="field"
            ><span>and ends at</span
            ><select
              v-model="form.endsAt"
              class="plain"
            >
              <option value="home">home</option>
              <option
                value="yard"
                :disabled="!data.yardKnown"
              >
                the yard
              </option>
            </select></label
          ><label class="field grow"
            ><span
              >Home{{
                editing?.home ? ' is known; move it to the postcode' : ' is in the postcode'
              }}</span
            ><input
              v-model="form.homePostcode"
              class="plain num"
              :placeholder="editing?.home ? 'stays where it is' : '04101'"
          /></label>
        </div>
        <p
          v-if="failed"
          class="note bad"
          role="alert"
        >
          {{ failed.message }}
        </p>
        <button
          class="btn act"
          :disabled="busy"
        >
          Keep
        </button>
      </form>
    </el-dialog>
  </section>
  <p
    v-else
    class="empty"
    role="status"
  >
    {{ problem?.message ?? 'Loading…' }}
  </p>
</template>

<style scoped>
.page {
  padding: 18px 20px;
  display: flex;
  flex-direction: column;
  gap: 12px;
}
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
input[type='number'] {
  width: 70px;
}
td input[type='time'] {
  width: 118px;
}
</style>
