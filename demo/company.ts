// Otterfall Pump & Water, an invented firm in the invented Larkmoor County. Nothing here is real.
import { gzipSync } from 'node:zlib'
import { plusDays } from '../core/time/zone'
import type { Tx } from '../server/db/pool'
import { putCostRate } from '../server/access/index'
import { hashPassword } from '../server/access/password'
import { putField, putQuestion } from '../server/settings/queries'
import { insertRoads } from '../server/dispatch/roads.queries'
import { demoRoads } from './roads'
import { TOWNS } from './towns'
import type { Chance } from './random'
import { insertArea, insertDemoCompany, insertDemoPerson } from './queries'

const shift = (from: string, to: string, morning: number, afternoon: number) => ({
  from,
  to,
  morning,
  afternoon,
  ...(to > '13:00' ? { breakFrom: '12:00', breakTo: '12:30' } : {}),
})
const week = (day: ReturnType<typeof shift>, days = [1, 2, 3, 4, 5]) =>
  Object.fromEntries(days.map((d) => [d, day]))
const kind = (code: string, minutes = 60) => ({
  ...{ code, name: code.replace('_', ' '), minutes, skills: [], retired: false },
})
const WORK_KINDS = [
  kind('repair'),
  kind('no_water'),
  kind('service'),
  kind('installation', 120),
  kind('water_test', 30),
  kind('quote_visit'),
]
const PEOPLE = [
  { email: 'owner@demo.test', name: 'Hester Vane', role: 'owner' },
  { email: 'office@demo.test', name: 'Olive Brandt', role: 'office' },
  { email: 'dispatch@demo.test', name: 'Corin Ashby', role: 'dispatch' },
  { email: 'books@demo.test', name: 'Wilf Tanner', role: 'books' },
  {
    email: 'ines@demo.test',
    name: 'Ines Calloway',
    role: 'technician',
    cost: true,
    skills: ['pumps', 'wells'],
    hours: week(shift('07:30', '16:30', 2, 2)),
    town: 0,
    areas: [0],
  },
  {
    email: 'tobiah@demo.test',
    name: 'Tobiah Renn',
    role: 'technician',
    skills: ['treatment'],
    hours: week(shift('08:00', '16:30', 2, 2)),
    town: 1,
    areas: [0, 1],
  },
  {
    email: 'maud@demo.test',
    name: 'Maud Okonjo',
    role: 'technician',
    skills: ['pumps', 'wells'],
    hours: week(shift('07:00', '16:00', 2, 2)),
    town: 2,
    areas: [1],
  },
  {
    email: 'piet@demo.test',
    name: 'Piet Sandvik',
    role: 'technician',
    skills: ['treatment', 'lab'],
    hours: {
      ...week(shift('08:00', '16:30', 2, 2), [1, 3, 4, 5]),
      2: shift('08:00', '12:00', 2, 0),
    },
    town: 4,
    areas: [2, 0],
  },
  {
    email: 'rosa@demo.test',
    name: 'Rosa Illing',
    role: 'technician',
    skills: ['pumps', 'electric'],
    licence: 'electric',
    hours: week(shift('08:00', '17:00', 2, 2)),
    town: 3,
    areas: [1, 2],
    yard: true,
  },
  {
    email: 'gwil@demo.test',
    name: 'Gwil Harrow',
    role: 'technician',
    skills: ['apprentice'],
    hours: week(shift('08:00', '16:30', 0, 0)),
    town: 0,
    areas: [],
    kind: 'apprentice',
    with: 'rosa@demo.test',
  },
] as const

export interface DemoPerson {
  id: string
  email: string
  name: string
  role: string
  skills: readonly string[]
  bookable: boolean
}
export async function insertCompany(
  tx: Tx,
  random: Chance,
  day: string,
  seed: number,
  at: number,
): Promise<DemoPerson[]> {
  const wording = {
    invoice:
      'Thank you for having us. Your invoice is attached; you can also read it and pay here:\n\n{link}\n\nOtterfall Pump & Water',
    reminder1:
      'Dear {name},\n\nperhaps this slipped through: {sum} is open.\n\n{list}\n\nIf it is already on its way, thank you.\n\n{company}',
    reminder2:
      'Dear {name},\n\n{sum} is still open after our reminder. Please pay it this week, or ring us if something is not right.\n\n{list}\n\n{company}',
  }
  await insertDemoCompany(tx, [
    'Otterfall Pump & Water',
    '2 Mill Race',
    'Otterfall',
    '04103',
    '(607) 555-0100',
    'office@otterfall.test',
    '00-0000000',
    JSON.stringify({ kind: 'days', days: 15 }),
    'Pay by card on the page linked in our mail, by cheque to Otterfall Pump & Water, or in cash to the technician.',
    'Parts carry the maker’s warranty; our work is warranted for twelve months.',
    JSON.stringify(wording),
    42.765,
    -75.03,
    day,
    seed,
    JSON.stringify(WORK_KINDS),
  ])
  const areas: string[] = []
  for (const [i, name] of ['Middle county', 'The tarns', 'The marsh'].entries()) {
    areas.push(random.uuid(at))
    const towns = TOWNS.filter((t) => t.territory === i)
    await insertArea(
      tx,
      areas[i]!,
      name,
      towns.map((t) => t.postcode),
    )
  }
  await insertSetUp(tx, random, at)
  const roads = demoRoads() as { features: object[] }
  await insertRoads(tx, {
    id: random.uuid(at),
    name: 'Larkmoor County',
    roads: roads.features.length,
    data: gzipSync(JSON.stringify(roads)),
    by: null,
    at,
  })
  // One hash for all: the demo's password is public, and hashing ten times costs start-up time.
  const hash = await hashPassword('open-ledger', Buffer.alloc(16, seed % 251))
  const people: DemoPerson[] = []
  for (const [i, p] of PEOPLE.entries()) {
    const id = random.uuid(at)
    const technician = 'skills' in p
    const town = technician ? TOWNS[p.town]! : null
    await insertDemoPerson(tx, [
      id,
      p.email,
      p.name,
      `(607) 555-01${String(i + 1).padStart(2, '0')}`,
      p.role,
      technician,
      'cost' in p && p.cost,
      JSON.stringify(technician ? p.skills : []),
      JSON.stringify('licence' in p ? [{ skill: p.licence, until: plusDays(day, 24) }] : []),
      JSON.stringify(technician ? p.hours : {}),
      JSON.stringify(technician ? p.areas.map((a) => areas[a]!) : []),
      town?.lat ?? null,
      town?.lon ?? null,
      'kind' in p ? p.kind : 'employee',
      'yard' in p ? 'yard' : 'home',
      'home',
      'with' in p ? people.find((x) => x.email === p.with)!.id : null,
      i,
      hash,
    ])
    await putCostRate(tx, id, 0, '41.5')
    people.push({
      id,
      email: p.email,
      name: p.name,
      role: p.role,
      skills: technician ? p.skills : [],
      bookable: technician,
    })
  }
  return people
}

/** What the firm asks every caller, and what it keeps that others do not. */
async function insertSetUp(tx: Tx, random: Chance, at: number): Promise<void> {
  const questions: [string, string, string[]][] = [
    ['Is there water at all?', 'yes_no', []],
    ['How deep is the well?', 'text', []],
    [
      'Where does the water come from?',
      'choice',
      ['own well', 'spring', 'shared well', 'town main'],
    ],
    ['May we park at the house?', 'yes_no', []],
  ]
  for (const [text, kind, choices] of questions)
    await putQuestion(tx, { id: random.uuid(at), text, kind, choices, retired: false })
  const fields: [string, string, string, string[]][] = [
    ['customer', 'Water company number', 'text', []],
    ['site', 'Well depth, feet', 'number', []],
    ['site', 'Well drilled by', 'text', []],
    ['work_order', 'County permit', 'text', []],
    ['work_order', 'Water sampled', 'yes_no', []],
    ['invoice', 'Cost centre', 'text', []],
  ]
  for (const [subject, name, kind, choices] of fields)
    await putField(tx, { id: random.uuid(at), subject, name, kind, choices, retired: false })
}
