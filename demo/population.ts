// A large invented population for the benchmarks, and the questions that people would ask to find somebody in it. Seeded.
import { chance, type Chance } from './random'

export interface Inhabitant {
  name: string
  first: string
  last: string
  phone: string
  email: string
  line1: string
  town: string
  postcode: string
  contact: string
  serial: string
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
  'Alba',
  'Corin',
  'Dara',
  'Elke',
  'Fitch',
  'Greta',
  'Hettie',
  'Ivor',
  'Juno',
  'Kit',
  'Lorna',
  'Maud',
  'Nico',
  'Odile',
  'Piers',
  'Rhea',
  'Silas',
  'Thea',
  'Ulric',
  'Vera',
  'Wilf',
  'Zelda',
]
const HEADS = [
  'Al',
  'Bir',
  'Cas',
  'Dun',
  'Esk',
  'Far',
  'Grea',
  'Hal',
  'Il',
  'Jes',
  'Kes',
  'Lor',
  'Mar',
  'Net',
  'Odu',
  'Pru',
  'Quar',
  'Rus',
  'Sor',
  'Tol',
  'Um',
  'Vail',
  'Wex',
  'Yar',
  'Zel',
  'Bram',
  'Crow',
  'Dray',
  'Ever',
  'Fel',
  'Gor',
  'Hen',
  'Ing',
  'Kirk',
  'Lang',
  'Mor',
  'Nor',
  'Oak',
  'Pen',
  'Ross',
  'Stan',
  'Thorn',
  'Under',
  'Vin',
  'Whit',
]
const TAILS = [
  'der',
  'chall',
  'tell',
  'more',
  'dale',
  'row',
  've',
  'lam',
  'ling',
  'sop',
  'trel',
  'ne',
  'by',
  'ton',
  'field',
  'wood',
  'combe',
  'ley',
  'ford',
  'gate',
  'worth',
  'stead',
  'burn',
  'well',
  'mere',
  'shaw',
  'croft',
  'bridge',
  'hurst',
  'den',
  'low',
  'thorpe',
  'wick',
  'holt',
  'brook',
  'ridge',
  'stone',
  'water',
  'bank',
  'land',
]
const ROADS = ['Road', 'Lane', 'Way', 'Street', 'Rise', 'Bank', 'Drive', 'Hill', 'End', 'Row']
const TOWNS = [
  ['Larkmoor', '04101'],
  ['Otterfall', '04103'],
  ['Stonebeck', '04107'],
  ['Withy Cross', '04110'],
  ['Fenny Marsh', '04115'],
  ['High Tarn', '04118'],
] as const

/** Numbers are of the range kept for fiction (555-0100 to 0199) in every area, so that each can be given once. */
const phoneOf = (n: number) => `${200 + (Math.floor(n / 100) % 800)}5550${100 + (n % 100)}`
export function population(count: number, seed = 11): Inhabitant[] {
  const random = chance(seed)
  return Array.from({ length: count }, (_, n) => {
    const first = random.pick(FIRST)
    const last = random.pick(HEADS) + random.pick(TAILS)
    const [town, postcode] = random.pick(TOWNS)
    const firm = random.maybe(0.2)
    return {
      first,
      last,
      name: firm
        ? `${last} ${random.pick(['Farm', 'Dairy', '& Co', 'Nursery', 'Inn', 'Mill'])}`
        : `${first} ${last}`,
      phone: phoneOf(n),
      email: `${first}.${last}${n}@example.com`.toLowerCase(),
      line1: `${random.between(1, 180)} ${random.pick(HEADS)}${random.pick(TAILS)} ${random.pick(ROADS)}`,
      town,
      postcode,
      contact: `${random.pick(FIRST)} ${random.pick(HEADS)}${random.pick(TAILS)}`,
      serial: `${random.pick(['VX', 'OS', 'KD', 'BN'])}-${100_000 + n}`,
    }
  })
}

const SPOKEN = ['oh', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine']
/** A number as it is read out: digit by digit, with "double" for two that are the same. */
function spoken(digits: string): string {
  const words: string[] = []
  for (let i = 0; i < digits.length; i++) {
    if (digits[i] === digits[i + 1]) words.push('double', SPOKEN[Number(digits[i++])]!)
    else words.push(SPOKEN[Number(digits[i])]!)
  }
  return words.join(' ')
}
/** A slip of the finger behind the first letter: two letters exchanged, one left out, doubled, or another in its place. */
function slip(word: string, random: Chance): string {
  const at = random.between(1, word.length - 2)
  const kind = random.between(0, 3)
  if (kind === 0) return word.slice(0, at) + word[at + 1] + word[at] + word.slice(at + 2)
  if (kind === 1) return word.slice(0, at) + word.slice(at + 1)
  if (kind === 2) return word.slice(0, at) + word[at] + word.slice(at)
  return word.slice(0, at) + random.pick(['a', 'e', 'i', 'o', 'n', 's']) + word.slice(at + 1)
}
/** Questions as they are typed while somebody speaks, each with the one who is meant: parts, slips, spoken numbers. */
export function questions(
  people: readonly Inhabitant[],
  count: number,
  seed = 12,
): { q: string; meant: number }[] {
  const random = chance(seed)
  return Array.from({ length: count }, (_, i) => {
    const meant = random.between(0, people.length - 1)
    const p = people[meant]!
    const street = p.line1.replace(/^\d+ /, '')
    const forms = [
      () => `${p.name} ${p.town}`,
      () => `${p.last} ${street.split(' ')[0]}`,
      () => `${slip(p.last, random)} ${p.line1}`,
      () => `${p.last.slice(0, 5)} ${p.line1}`,
      () => `${p.line1} ${p.town}`.toLowerCase(),
      () =>
        p.phone.replace(
          /(\d{3})(\d{3})(\d{4})/,
          random.pick(['($1) $2-$3', '$1 $2 $3', '$1.$2.$3', '+1 $1 $2 $3']),
        ),
      () => spoken(p.phone),
      () => p.email.slice(0, p.email.indexOf('@') + 3),
      () => (random.maybe(0.5) ? p.serial : p.serial.toLowerCase().replace('-', ' ')),
      () => `${p.contact} ${p.last}`,
    ]
    return { q: forms[i % forms.length]!(), meant }
  })
}
