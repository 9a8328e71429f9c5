// The demo's customers: a dozen with a story, the rest invented by chance; about 140 with 190 sites.
import type { Terms } from '../core/documents/dueDate'
import { customerSearch, siteSearch } from '../server/customers/search'
import { insertContact, insertSite } from '../server/customers/places.queries'
import { insertCustomer } from '../server/customers/queries'
import { localDate, plusDays, plusMonths } from '../core/time/zone'
import { searchKey } from '../core/text/searchKey'
import { HOUR } from '../core/time/units'
import { putPlan } from '../server/agreements/queries'
import type { Tx } from '../server/db/pool'
import { TOWNS } from './towns'
import type { Chance } from './random'
import { insertDemoAgreements, insertDemoEquipment, insertLevels } from './queries'

export interface DemoCustomer {
  id: string
  name: string
  siteIds: string[]
  levelId: string | null
  exempt: boolean
  email: string
  phone: string
  lateness: number
  farm: boolean
  prospect: boolean
}
const FIRST = [
  'Ada',
  'Bram',
  'Celia',
  'Dorn',
  'Edda',
  'Fenna',
  'Garrick',
  'Hollis',
  'Isolde',
  'Jory',
  'Keir',
  'Linnet',
  'Merrin',
  'Nell',
  'Osric',
  'Petra',
  'Quill',
  'Rowan',
  'Sabra',
  'Tamsin',
  'Una',
  'Vesper',
  'Wynn',
  'Yarrow',
]
const LAST = [
  'Alder',
  'Birchall',
  'Castell',
  'Dunmore',
  'Eskdale',
  'Farrow',
  'Greave',
  'Hallam',
  'Illing',
  'Jessop',
  'Kestrel',
  'Lorne',
  'Marrow',
  'Nettle',
  'Oduya',
  'Pruett',
  'Quarry',
  'Rusk',
  'Sorley',
  'Tolland',
  'Umber',
  'Vail',
  'Wexcombe',
  'Yarrowby',
  'Zelland',
]
const STREETS = [
  'Beck Road',
  'Ferry Lane',
  'Chapel Rise',
  'Heron Way',
  'Sluice Street',
  'Orchard Bank',
  'Tarn View',
  'Mill Row',
  'Osier Lane',
  'Quarry Hill',
  'Lapwing Drive',
  'Ford End',
  'Weir Cottages',
  'Sedge Avenue',
]
const NAMED: {
  name: string
  phone: string
  sites: string[]
  town: number
  note?: string
  exempt?: boolean
  terms?: Terms
  level?: boolean
  late?: number
  email?: string
  stop?: string
  tag?: string
  contact?: [string, string]
  prospect?: boolean
}[] = [
  {
    name: 'Hallam Dairy',
    phone: '0142',
    sites: ['Upper parlour', 'Calf barn'],
    town: 2,
    note: 'Dog loose; ask for the yard gate',
    level: true,
    late: 14,
    contact: ['Edda Hallam', 'farm office'],
    tag: 'milk twice a day',
  },
  {
    name: 'Broadmere Hospitality',
    phone: '0131',
    sites: ['Broadmere Inn'],
    town: 1,
    terms: { kind: 'days', days: 15 },
    late: 6,
    email: 'accounts@broadmere.test',
    note: 'Gate code 2218',
  },
  {
    name: 'Crossways Estate',
    phone: '0163',
    sites: ['Home farm', 'Gatehouse', 'Stables'],
    town: 3,
    terms: { kind: 'days', days: 15 },
    late: 35,
    contact: ['Mr Penhallow', 'accounts'],
    note: 'Speak to Mr Penhallow about money',
  },
  {
    name: 'Peregrine Cottages',
    phone: '0150',
    sites: ['Cottage 1', 'Cottage 2', 'Cottage 3', 'Cottage 4', 'Cottage 5', 'Laundry'],
    town: 5,
    level: true,
    email: 'owners@peregrine.test',
    contact: ['J. Hallam', 'caretaker'],
    note: 'The owners live elsewhere; the caretaker has all the keys',
    terms: { kind: 'month_end', days: 0 },
  },
  {
    name: 'Tarn View School',
    phone: '0127',
    sites: ['School', 'Sports field'],
    town: 5,
    exempt: true,
    terms: { kind: 'days', days: 30 },
    email: 'bursar@tarnview.test',
    note: 'Sign in at reception',
  },
  {
    name: 'Mill Row flats',
    phone: '0155',
    sites: ['Block A', 'Block B'],
    town: 0,
    late: 50,
    contact: ['K. Sorrel', 'manager'],
    stop: '',
  },
  { name: 'T. Oduya', phone: '0119', sites: [''], town: 4, late: 2 },
  { name: 'Lowfold Farm', phone: '0146', sites: ['Dairy', 'House'], town: 3, level: true },
  {
    name: 'Peel & Daughters',
    phone: '0133',
    sites: ['Laundry works'],
    town: 0,
    terms: { kind: 'days', days: 30 },
  },
  { name: 'Wren Cottages', phone: '0171', sites: ['Wren 1', 'Wren 2'], town: 4 },
  { name: 'Fenn Orchard', phone: '0158', sites: ['Packhouse'], town: 4, level: true },
  {
    name: 'Marrow & Son, joiners',
    phone: '0161',
    sites: ['Workshop'],
    town: 0,
    late: 75,
    stop: 'Unpaid for over 60 days: ask the owner first',
  },
  { name: 'E. Marrow', phone: '0161', sites: [''], town: 0 },
  // Rang twice and was entered twice.
  { name: 'Tunde Oduya', phone: '0119', sites: [''], town: 4 },
  { name: 'Fenn Orchards', phone: '0158', sites: [''], town: 4, email: 'packhouse@fenn.test' },
  // Asked for a price, nothing billed yet.
  { name: 'Saltmarsh Nursery', phone: '0184', sites: ['Glasshouses'], town: 4, prospect: true },
  { name: 'P. Wexcombe', phone: '0186', sites: [''], town: 5, prospect: true },
]
export const townPhone = (last4: string) => `(607) 555-${last4}`

export async function insertCustomers(
  tx: Tx,
  random: Chance,
  at: number,
  count: number,
): Promise<{ customers: DemoCustomer[]; agreementId: string }> {
  const agreementId = random.uuid(at)
  const tradeId = random.uuid(at)
  await insertLevels(tx, [
    [
      agreementId,
      'Care agreement',
      'agreement',
      JSON.stringify({ task: '0.15', labour: '0.15', charge: '0.15', part: '0.05' }),
    ],
    [tradeId, 'Trade', 'trade', JSON.stringify({ part: '0.1', task: '0.05' })],
  ])
  const customers: DemoCustomer[] = []
  const agreements: (string | null)[][] = []
  const equipment: (string | null)[][] = []
  const day = (days: number) => plusDays(localDate(at, 'UTC'), days)
  const plans = [random.uuid(at), random.uuid(at)]
  const HOURLY = { visitSeconds: HOUR / 1000, retired: false }
  await putPlan(tx, {
    ...HOURLY,
    id: plans[0]!,
    name: 'Home, one visit',
    visitsAYear: 1,
    price: '180',
    levelId: agreementId,
    work: 'Yearly service: pump, tank, water test',
  })
  await putPlan(tx, {
    ...HOURLY,
    id: plans[1]!,
    name: 'Farm, two visits',
    visitsAYear: 2,
    price: '420',
    levelId: agreementId,
    work: 'Half-yearly service: pumps, filters, sample',
  })
  const otherLevel = () => (random.maybe(0.04) ? tradeId : null)
  const tagsOf = (farm: boolean) => (farm && random.maybe(0.3) ? ['farm'] : [])
  const sitesOf = (farm: boolean) => {
    if (farm && random.maybe(0.7))
      return ['House', 'Barn', ...(random.maybe(0.3) ? ['Lower well'] : [])]
    return random.maybe(0.22) ? ['House', 'Let cottage'] : ['']
  }
  for (let n = 0; n < count; n++) {
    const named = NAMED[n]
    const id = random.uuid(at + n)
    const person = `${random.pick(FIRST)} ${random.pick(LAST)}`
    const farm = !named && random.maybe(0.18)
    const company = () => (random.maybe(0.1) ? `${random.pick(LAST)} & Co` : person)
    const name = named?.name ?? (farm ? `${random.pick(LAST)} Farm` : company())
    const town = TOWNS[named?.town ?? random.between(0, TOWNS.length - 1)]!
    const line1 = `${random.between(1, 98)} ${random.pick(STREETS)}`
    const phone = townPhone(named?.phone ?? `01${String(random.between(10, 99)).padStart(2, '0')}`)
    const handle = searchKey(name).replaceAll(' ', '.').slice(0, 40)
    const email = named?.email ?? (random.maybe(0.85) ? `${handle}${n}@example.com` : '')
    const level = named ? named.level : random.maybe(0.22)
    const c = {
      name,
      phone,
      email,
      email2: named?.name === 'Broadmere Hospitality' ? 'inn@broadmere.test' : '',
      line1,
      town: town.name,
      postcode: town.postcode,
    }
    await insertCustomer(tx, {
      ...c,
      id,
      terms: named?.terms ?? null,
      levelId: level ? agreementId : otherLevel(),
      exempt: named?.exempt,
      certificate: named?.exempt ? 'EX-30418' : '',
      note: named?.note ?? '',
      prospect: named?.prospect,
      tags: named?.tag ? [named.tag] : tagsOf(farm),
      stopWork: named?.stop ?? '',
      source: random.pick(['neighbour', 'van', 'web page', 'returning']),
      search: customerSearch(c),
      now: at - n * HOUR,
    })
    const siteNames = named?.sites ?? sitesOf(farm)
    const siteIds: string[] = []
    let firstSite: string | null = null
    for (const [i, siteName] of siteNames.entries()) {
      const siteId = random.uuid(at + n)
      const s = {
        name: siteName,
        line1: i === 0 ? line1 : `${random.between(1, 98)} ${random.pick(STREETS)}`,
        town: town.name,
        postcode: town.postcode,
      }
      await insertSite(tx, {
        ...s,
        id: siteId,
        customerId: id,
        lat: town.lat + (random.next() - 0.5) * 0.05,
        lon: town.lon + (random.next() - 0.5) * 0.06,
        accessNote: random.maybe(0.2)
          ? random.pick([
              'Key under the blue pot',
              'Ring from the road',
              'Well is behind the shed',
              'Gate code 2218',
              'Beware of the geese',
            ])
          : '',
        search: siteSearch(s),
      })
      siteIds.push(siteId)
      firstSite ??= siteId
      equipment.push([
        random.uuid(at),
        siteId,
        random.pick(['submersible pump', 'softener', 'UV unit', 'pressure tank', 'iron filter']),
        random.pick(['Varn', 'Ostra', 'Kelda', 'Brunnen']),
        `${random.pick(['VX', 'OS', 'KD', 'BN'])}-${random.between(10000, 99999)}`,
        `${random.between(2009, 2025)}-0${random.between(1, 9)}-1${random.between(0, 9)}`,
        `20${random.between(24, 29)}-06-30`,
        random.maybe(0.3) ? day(140 + random.between(-20, 200)) : null,
      ])
    }
    const contact = named?.contact
    if (contact)
      await insertContact(tx, {
        id: random.uuid(at),
        customerId: id,
        siteId: null,
        name: contact[0],
        role: contact[1],
        phone: townPhone(named!.phone),
        phone2: '',
        email: '',
      })
    if (level) {
      const plan = farm || named?.name.includes('Farm') || named?.name.includes('Dairy') ? 1 : 0
      // Started over the last year, so that visits fall due and agreements end in every month.
      const ago = random.between(20, 330)
      const startsOn = day(140 - ago)
      const endsOn = plusDays(plusMonths(startsOn, 12), -1)
      const dueOn = plusDays(startsOn, plan ? 182 : 300)
      agreements.push([
        random.uuid(at),
        id,
        firstSite,
        plans[plan]!,
        plan ? 'Farm, two visits' : 'Home, one visit',
        startsOn,
        endsOn,
        dueOn < day(100) ? day(140 + random.between(5, 60)) : dueOn,
      ])
    }
    customers.push({
      id,
      name,
      siteIds,
      levelId: level ? agreementId : null,
      exempt: Boolean(named?.exempt),
      email,
      phone,
      lateness: named?.late ?? (random.maybe(0.2) ? random.between(10, 40) : random.between(-6, 6)),
      farm,
      prospect: Boolean(named?.prospect),
    })
  }
  await insertDemoAgreements(tx, agreements)
  await insertDemoEquipment(tx, equipment)
  return { customers, agreementId }
}
