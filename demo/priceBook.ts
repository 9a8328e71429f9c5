// The demo's price book: 400 tasks and 900 parts, priced by the same core functions that price a real one.
import parts from './parts.json'
import { minorToDecimal } from '../core/money/formatMinor'
import { insideHours } from '../core/pricebook/insideHours'
import { partPrice } from '../core/pricebook/partPrice'
import { ruled } from '../core/pricebook/reprice'
import type { PricingRules } from '../core/pricebook/explainPrice'
import { putPricing } from '../server/pricebook/pricing.queries'
import type { Tx } from '../server/db/pool'
import { pictureFor } from './pictures'
import { chance, type Chance } from './random'
import {
  insertEntries,
  insertMarkup,
  insertParts,
  insertPictures,
  insertTaxClasses,
} from './queries'

const TIERS = [
  { fromCost: '0', multiplier: '2.2' },
  { fromCost: '20', multiplier: '1.8' },
  { fromCost: '100', multiplier: '1.5' },
  { fromCost: '500', multiplier: '1.35' },
]
const PARTS = parts as [
  category: string,
  name: string,
  sizes: string[],
  makes: string[],
  cost: number,
][]
const TASKS: [string, string, string[], string[], number, string, string][] = [
  [
    'Pump',
    'Replace submersible pump',
    ['½ hp', '¾ hp', '1 hp', '1½ hp', '2 hp', '3 hp', '5 hp'],
    ['to 100 ft', 'to 200 ft', 'to 300 ft', 'to 400 ft'],
    5.5,
    'Submersible pump',
    'pumps',
  ],
  [
    'Pump',
    'Pull and reset pump',
    ['to 100 ft', 'to 200 ft', 'to 300 ft', 'to 400 ft'],
    ['1 in drop', '1¼ in drop', '1½ in drop'],
    3.6,
    'Drop cable',
    'pumps',
  ],
  [
    'Pump',
    'Replace pump motor',
    ['½ hp', '¾ hp', '1 hp', '1½ hp', '2 hp', '3 hp'],
    ['2-wire', '3-wire', '3-phase'],
    4,
    'Pump motor',
    'pumps',
  ],
  [
    'Tank',
    'Replace pressure tank',
    ['14 gal', '20 gal', '32 gal', '44 gal', '62 gal', '86 gal', '119 gal'],
    ['steel', 'composite', 'epoxy lined'],
    2.2,
    'Pressure tank',
    'pumps',
  ],
  [
    'Tank',
    'Recharge tank and set switch',
    ['14–32 gal', '44–62 gal', '86–119 gal'],
    ['house', 'farm', 'shop'],
    0.7,
    '',
    'pumps',
  ],
  [
    'Control',
    'Replace pressure switch',
    ['20/40', '30/50', '40/60', '50/70'],
    ['standard', 'low cut-off', 'heavy duty', 'with gauge'],
    0.9,
    'Pressure switch',
    'pumps',
  ],
  [
    'Control',
    'Replace control box',
    ['½ hp', '¾ hp', '1 hp', '1½ hp', '2 hp', '3 hp', '5 hp'],
    ['standard', 'deluxe', 'with relay'],
    1.2,
    'Control box',
    'electric',
  ],
  [
    'Control',
    'Fit constant-pressure drive',
    ['1 hp', '2 hp', '3 hp', '5 hp'],
    ['indoor', 'outdoor'],
    3.2,
    'Constant-pressure drive',
    'electric',
  ],
  [
    'Control',
    'Find electrical fault',
    ['at control box', 'in drop cable', 'at breaker', 'in motor'],
    ['house', 'farm'],
    1.4,
    '',
    'electric',
  ],
  [
    'Valve',
    'Replace check valve',
    ['½ in', '¾ in', '1 in', '1¼ in', '1½ in', '2 in'],
    ['brass', 'stainless', 'PVC', 'bronze'],
    1.1,
    'Check valve',
    'pumps',
  ],
  [
    'Valve',
    'Replace relief valve',
    ['½ in', '¾ in', '1 in'],
    ['75 psi', '100 psi', '150 psi'],
    0.5,
    'Relief valve',
    'pumps',
  ],
  [
    'Valve',
    'Replace foot valve',
    ['1 in', '1¼ in', '1½ in', '2 in'],
    ['brass', 'PVC', 'stainless'],
    1.8,
    'Foot valve',
    'pumps',
  ],
  [
    'Pipe',
    'Replace supply line',
    ['¾ in', '1 in', '1¼ in', '1½ in'],
    ['to 20 ft', 'to 50 ft', 'to 100 ft', 'to 200 ft'],
    3,
    'Poly pipe',
    'wells',
  ],
  [
    'Well',
    'Replace well cap',
    ['4 in', '5 in', '6 in', '8 in'],
    ['vented', 'sealed', 'watertight'],
    0.6,
    'Well cap',
    'wells',
  ],
  [
    'Well',
    'Shock-chlorinate well',
    ['to 100 ft', 'to 200 ft', 'to 300 ft', 'to 400 ft'],
    ['single', 'with flush', 'with retest'],
    1.6,
    '',
    'wells',
  ],
  [
    'Well',
    'Flow and recovery test',
    ['1 h', '2 h', '4 h'],
    ['house', 'farm', 'sale'],
    2,
    '',
    'wells',
  ],
  [
    'Treatment',
    'Rebed softener',
    ['1 cu ft', '1½ cu ft', '2 cu ft', '2½ cu ft', '3 cu ft'],
    ['8 %', '10 %', 'fine mesh'],
    1.9,
    'Softener resin',
    'treatment',
  ],
  [
    'Treatment',
    'Service softener',
    ['house', 'farm', 'shop'],
    ['single', 'twin', 'with salt', 'with injector'],
    1,
    '',
    'treatment',
  ],
  [
    'Treatment',
    'Change UV lamp',
    ['15 W', '25 W', '40 W', '55 W', '80 W'],
    ['lamp', 'lamp + sleeve', 'lamp + ballast'],
    0.7,
    'UV lamp',
    'treatment',
  ],
  [
    'Treatment',
    'Change RO membrane',
    ['50 gpd', '75 gpd', '100 gpd', '150 gpd'],
    ['membrane', 'with filters', 'with tank'],
    0.8,
    'RO membrane',
    'treatment',
  ],
  [
    'Treatment',
    'Rebed iron filter',
    ['1 cu ft', '1½ cu ft', '2 cu ft'],
    ['manganese', 'catalytic', 'air'],
    2.4,
    'Iron filter media',
    'treatment',
  ],
  [
    'Treatment',
    'Change filter cartridges',
    ['10 in', '20 in', '10 in big', '20 in big'],
    ['sediment', 'carbon', 'both', 'three-stage'],
    0.5,
    'Sediment cartridge',
    'treatment',
  ],
  [
    'Lab',
    'Water test',
    ['2-panel', '3-panel', '7-panel', '14-panel', 'VOC'],
    ['drive-in', 'courier', 'with report'],
    0.4,
    'Test bottle set',
    'lab',
  ],
  [
    'Electric',
    'Fit surge protector',
    ['120 V', '230 V', '460 V'],
    ['standard', 'heavy duty'],
    0.6,
    'Surge protector',
    'electric',
  ],
  [
    'Electric',
    'Replace pump disconnect',
    ['30 A', '60 A', '100 A'],
    ['indoor', 'outdoor', 'fused'],
    1,
    'Pump disconnect',
    'electric',
  ],
  [
    'Electric',
    'Replace capacitor',
    ['15–25 µF', '30–45 µF', '50–60 µF'],
    ['run', 'start', 'both'],
    0.6,
    'Capacitor',
    'electric',
  ],
  [
    'Electric',
    'Remake cable splice',
    ['14–12', '12–10', '10–8'],
    ['heat shrink', 'resin', 'gel'],
    1.3,
    'Splice kit',
    'electric',
  ],
]
/** Words that callers use, and what customers are told. */
const WORDS: Record<string, [synonyms: string, description?: string]> = {
  'Replace pressure tank': [
    'bladder tank waterlogged short cycling',
    'We take the old tank away, fit and charge the new one and set the switch to it.',
  ],
  'Replace submersible pump': [
    'well pump no water',
    'We pull the pump, fit the new one with a new splice, disinfect the well and test the flow.',
  ],
  'Replace pressure switch': [
    'cut-in cut-out clicking',
    'Switch, fitting and setting; the tank’s charge is checked.',
  ],
  'Service softener': [
    'hard water salt resin clean',
    'Valve, brine tank and injector cleaned, settings checked against a hardness test.',
  ],
  'Change UV lamp': [
    'ultraviolet light bulb steriliser',
    'New lamp, sleeve cleaned, counter set back.',
  ],
  'Change filter cartridges': ['sediment carbon element'],
  'Water test': [
    'analysis sample bacteria nitrate',
    'We take the samples and bring them to the laboratory; the report comes to you in a week.',
  ],
  'Replace check valve': ['loses prime runs back'],
  'Change RO membrane': ['reverse osmosis drinking water tap'],
}
const ORDER = ['task', 'part', 'labour', 'charge']
const hoursInside = (inside: Parameters<typeof insideHours>[0]) => {
  const h = insideHours(inside)
  return { seconds: h.seconds, further_s: h.furtherSeconds }
}
const RULES: PricingRules = {
  markups: [{ scope: 'all', name: '', tiers: TIERS }],
  sundriesRate: '0.03',
  minimum: '95',
  rounding: { kind: 'whole' },
}
export interface DemoEntry {
  id: string
  code: string
  kind: string
  category: string
  name: string
  price: string
  seconds: number
}

export async function insertPriceBook(tx: Tx, random: Chance, at: number): Promise<DemoEntry[]> {
  const rate = '128.0000'
  await insertTaxClasses(tx, [
    [
      'goods',
      'Parts and materials',
      'goods',
      JSON.stringify([
        { code: 'state', name: 'State tax', rate: '0.04' },
        { code: 'county', name: 'County tax', rate: '0.025' },
      ]),
    ],
    [
      'work',
      'Flat-rate work and labour',
      'work',
      JSON.stringify([{ code: 'state', name: 'State tax', rate: '0.04' }]),
    ],
    ['none', 'Not taxed', null, '[]'],
  ])
  await insertMarkup(tx, random.uuid(at), TIERS)
  await putPricing(tx, {
    sundriesRate: RULES.sundriesRate,
    minimum: RULES.minimum,
    rounding: { kind: 'whole' },
    times: [
      { name: 'Evening', days: [1, 2, 3, 4, 5], from: '18:00', to: '06:00', factor: '1.25' },
      { name: 'Weekend', days: [6, 7], from: '00:00', to: '24:00', factor: '1.5' },
      { name: 'Holiday', days: [8], from: '00:00', to: '24:00', factor: '2' },
    ],
    year: {
      wages: '412000',
      burden: '82400',
      overhead: '236000',
      paidHours: '12480',
      billedShare: '0.58',
      targetMargin: '0.2',
    },
  })
  const rows: (string | number | boolean | null)[][] = []
  const made: DemoEntry[] = []
  const links: [string, string, number][] = []
  const add = (e: {
    code: string
    kind: string
    category: string
    name: string
    synonyms?: string
    unit?: string
    cost: string
    price: string
    further?: string | null
    seconds?: number
    further_s?: number
    skills?: string[]
    tax: string
    pinned?: boolean
    rule?: boolean
    labour?: string
    description?: string
    supplier?: string
    partNumber?: string
    id?: string
  }) => {
    const id = e.id ?? random.uuid(at)
    rows.push([
      id,
      e.code,
      e.kind,
      e.category,
      e.name,
      e.description ?? '',
      e.synonyms ?? '',
      e.unit ?? 'each',
      e.cost,
      e.price,
      e.further ?? null,
      e.seconds ?? 0,
      e.further_s ?? 0,
      JSON.stringify(e.skills ?? []),
      e.tax,
      e.pinned ?? false,
      e.rule ? 'rule' : 'fixed',
      e.labour ?? null,
      e.supplier ?? '',
      e.partNumber ?? '',
    ])
    const entry = {
      id,
      code: e.code,
      kind: e.kind,
      category: e.category,
      name: e.name,
      price: e.price,
      seconds: e.seconds ?? 0,
    }
    made.push(entry)
    return entry
  }
  const standard = add({
    code: 'L-STD',
    kind: 'labour',
    category: 'Labour',
    name: 'Labour, standard',
    unit: 'hour',
    cost: '41.5',
    price: rate,
    seconds: 3600,
    tax: 'work',
    pinned: true,
  })
  add({
    code: 'L-HLP',
    kind: 'labour',
    category: 'Labour',
    name: 'Labour, helper',
    unit: 'hour',
    cost: '24',
    price: '72',
    seconds: 3600,
    tax: 'work',
  })
  add({
    code: 'C-DIA',
    kind: 'charge',
    category: 'Charges',
    name: 'Diagnostic visit',
    synonyms: 'call-out trip service',
    cost: '0',
    price: '95',
    seconds: 1800,
    tax: 'work',
    pinned: true,
  })
  add({
    code: 'C-EVE',
    kind: 'charge',
    category: 'Charges',
    name: 'Evening or weekend call',
    cost: '0',
    price: '145',
    tax: 'work',
    pinned: true,
  })
  add({
    code: 'C-HST',
    kind: 'charge',
    category: 'Charges',
    name: 'Hoist truck',
    cost: '60',
    price: '185',
    tax: 'work',
    pinned: true,
  })
  add({
    code: 'C-DSP',
    kind: 'charge',
    category: 'Charges',
    name: 'Disposal of old parts',
    cost: '8',
    price: '22',
    tax: 'none',
  })
  const parts: (DemoEntry & { group: string; minor: number })[] = []
  for (const [category, name, sizes, makes, base] of PARTS) {
    for (const [i, size] of sizes.entries()) {
      for (const [j, make] of makes.entries()) {
        if (parts.length >= 900) continue
        const cost = (base * (1 + i * 0.22) * (1 + j * 0.13) + random.next()).toFixed(2)
        const minor = partPrice(cost, TIERS, 'USD')
        // Bought from the one or the other wholesaler, by the numbers that their catalogues have.
        const [supplier, prefix] =
          parts.length % 2 ? ['Tarnside Trade', 'TT'] : ['Northmoor Supply', 'NM']
        const entry = add({
          code: `P-${1001 + parts.length}`,
          kind: 'part',
          category:
            PARTS.filter((p) => p[0] === category).length > 2 ? `${category} / ${name}` : category,
          supplier,
          partNumber: `${prefix}-${10001 + parts.length}`,
          name: `${name} ${size}, ${make}`,
          cost,
          price: minorToDecimal(minor, 'USD'),
          tax: 'goods',
          rule: true,
        })
        parts.push({ ...entry, group: name, minor })
      }
    }
  }
  // Small stock that every van carries fills the book up to 900.
  for (let n = 1; parts.length < 900; n++) {
    const kind = [
      'Screw set',
      'Gasket',
      'O-ring',
      'Hose clip',
      'Thread tape',
      'Cable tie pack',
      'Pipe strap',
      'Anchor kit',
    ][n % 8]!
    const cost = (0.6 + (n % 23) * 0.35).toFixed(2)
    const minor = partPrice(cost, TIERS, 'USD')
    parts.push({
      ...add({
        code: `P-${1001 + parts.length}`,
        kind: 'part',
        category: 'Sundries',
        name: n === 1 ? 'Relief valve 100 psi, ¾ in' : `${kind} no. ${n}`,
        cost,
        price: minorToDecimal(minor, 'USD'),
        tax: 'goods',
        rule: true,
      }),
      group: kind,
      minor,
    })
  }
  let tasks = 0
  const pinned = new Set([
    'Replace pressure switch 40/60, standard',
    'Change UV lamp 25 W, lamp + sleeve',
    'Replace pressure tank 44 gal, steel',
    'Water test 3-panel, drive-in',
    'Service softener house, single',
    'Replace relief valve ¾ in, 75 psi',
  ])
  for (const [category, name, sizes, kinds, hours, part, skill] of TASKS) {
    for (const [i, size] of sizes.entries()) {
      for (const [j, kind] of kinds.entries()) {
        if (tasks >= 400) continue
        const group = parts.filter((p) => part && p.group.startsWith(part))
        const used = group.length ? group[(i * kinds.length + j) % group.length]! : null
        const seconds = Math.round((hours * (1 + i * 0.12) + j * 0.15) * 10) * 360
        const full = `${name} ${size}, ${kind}`
        const further = Math.round(seconds * 0.75)
        const cost = used ? Number(rows.find((r) => r[0] === used.id)![8]).toFixed(2) : '6'
        const prices = ruled(
          {
            kind: 'task',
            category,
            supplier: '',
            pricing: 'rule',
            cost,
            price: '0',
            furtherPrice: null,
            seconds,
            furtherSeconds: further,
            labour: { name: standard.name, price: rate },
            parts: used
              ? [
                  {
                    name: used.name,
                    quantity: '1',
                    price: used.price,
                    cost,
                    kind: 'part',
                    furtherPrice: null,
                  },
                ]
              : [],
            sundriesRate: null,
          },
          RULES,
          'USD',
        )
        const entry = add({
          code: `T-${101 + tasks}`,
          kind: 'task',
          category,
          name: full,
          cost,
          price: prices.price,
          further: prices.furtherPrice,
          seconds,
          further_s: further,
          skills: [skill],
          tax: 'work',
          pinned: pinned.has(full),
          rule: true,
          labour: standard.id,
          synonyms: WORDS[name]?.[0],
          description: WORDS[name]?.[1],
        })
        if (used) links.push([entry.id, used.id, 1])
        tasks++
      }
    }
  }
  // The typed list above gives fewer than 400; the same jobs done as a planned visit make up the rest.
  const base = made.filter((e) => e.kind === 'task')
  for (let n = 0; tasks < 400; n++, tasks++) {
    const e = base[n % base.length]!
    add({
      code: `T-${101 + tasks}`,
      kind: 'task',
      category: e.category,
      name: `${e.name}, planned`,
      cost: '12',
      price: (Number(e.price) - 20).toFixed(2),
      further: null,
      seconds: e.seconds,
      further_s: e.seconds,
      skills: [],
      tax: 'work',
    })
  }
  // Several that are sold together become lines by one choice.
  const own = chance(77)
  const named = (name: string) => made.find((e) => e.name === name)!
  const sets: [code: string, name: string, inside: [string, number][]][] = [
    [
      'A-1',
      'New pressure tank, complete',
      [
        ['Replace pressure tank 44 gal, steel', 1],
        ['Replace pressure switch 40/60, standard', 1],
        ['Pressure gauge 100 psi, dry', 1],
        ['Disposal of old parts', 1],
      ],
    ],
    [
      'A-2',
      'Spring check of a well',
      [
        ['Flow and recovery test 1 h, house', 1],
        ['Water test 3-panel, drive-in', 1],
        ['Recharge tank and set switch 14–32 gal, house', 1],
      ],
    ],
    [
      'A-3',
      'Softener brought back to life',
      [
        ['Service softener house, single', 1],
        ['Rebed softener 1½ cu ft, 10 %', 1],
        ['Sediment cartridge 10 in, 5 micron', 2],
      ],
    ],
  ]
  for (const [code, name, inside] of sets) {
    const whole = inside
      .map(([n, quantity]) => ({
        ...named(n),
        quantity,
        row: rows.find((r) => r[0] === named(n).id)!,
      }))
      .sort((a, b) => ORDER.indexOf(a.kind) - ORDER.indexOf(b.kind) || a.code.localeCompare(b.code))
    const parts = whole.map((w) => ({
      name: w.name,
      kind: w.kind as 'task',
      quantity: String(w.quantity),
      price: String(w.row[9]),
      cost: String(w.row[8]),
      furtherPrice: w.row[10] as string | null,
    }))
    const set = ruled(
      {
        kind: 'assembly',
        category: 'Assemblies',
        supplier: '',
        pricing: 'rule',
        cost: '0',
        price: '0',
        furtherPrice: null,
        seconds: 0,
        furtherSeconds: 0,
        labour: null,
        parts,
        sundriesRate: null,
      },
      RULES,
      'USD',
    )
    const entry = add({
      id: own.uuid(at),
      code,
      kind: 'assembly',
      category: 'Assemblies',
      name,
      cost: set.cost,
      price: set.price,
      rule: true,
      tax: 'work',
      ...hoursInside(
        whole.map((w) => ({
          code: w.code,
          kind: w.kind,
          quantity: String(w.quantity),
          seconds: Number(w.row[11]),
          furtherSeconds: Number(w.row[12]),
        })),
      ),
    })
    links.push(...whole.map((w): [string, string, number] => [entry.id, w.id, w.quantity]))
  }
  await insertEntries(tx, rows)
  await insertParts(tx, links)
  const drawn = made.flatMap((e) => {
    const bytes =
      e.kind === 'task' || e.kind === 'part' || e.kind === 'assembly' ? pictureFor(e.name) : null
    return bytes ? [[own.uuid(at), e.id, 'image/png', bytes]] : []
  })
  await insertPictures(tx, drawn)
  return made
}
