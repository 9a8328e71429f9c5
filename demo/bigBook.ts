// Further entries, of other trades, that make a price book as large as a wholesaler's list. Made up, the same every time.
import { seeded } from '../core/random/seeded'

export interface BigEntry {
  code: string
  kind: 'task' | 'part'
  category: string
  name: string
  cost: string
  supplier: string
  partNumber: string
  seconds: number
}
const THINGS: Record<string, string[]> = {
  Wiring: [
    'Junction box',
    'Duplex receptacle',
    'Dimmer',
    'Toggle switch',
    'Conduit body',
    'Breaker',
    'Cable gland',
    'Terminal block',
    'Wire connector',
    'Ground rod',
    'Meter socket',
    'Light fixture',
    'Ballast',
    'Photocell',
    'Timer switch',
  ],
  Heating: [
    'Thermocouple',
    'Igniter',
    'Burner tube',
    'Gas regulator',
    'Zone actuator',
    'Circulator',
    'Expansion vessel',
    'Air vent',
    'Radiator key set',
    'Flue section',
    'Heat exchanger',
    'Blower wheel',
    'Limit thermostat',
    'Condensate trap',
    'Boiler gasket',
  ],
  Cooling: [
    'Contactor',
    'Fan blade',
    'Evaporator coil',
    'Filter drier',
    'Sight glass',
    'Expansion device',
    'Line set',
    'Condenser fan',
    'Drain pan',
    'Float switch',
    'Crankcase heater',
    'Service port',
    'Refrigerant hose',
    'Duct collar',
    'Register grille',
  ],
  Roofing: [
    'Flashing',
    'Drip edge',
    'Ridge vent',
    'Gutter hanger',
    'Downspout',
    'Roof boot',
    'Sealant tube',
    'Skylight curb',
    'Snow guard',
    'Soffit panel',
    'Starter strip',
    'Underlay roll',
    'Valley metal',
    'Leaf screen',
    'Fascia board',
  ],
  Doors: [
    'Garage spring',
    'Door roller',
    'Track bracket',
    'Opener belt',
    'Safety eye',
    'Bottom seal',
    'Hinge set',
    'Latch handle',
    'Cable drum',
    'Keypad',
    'Remote control',
    'Strike plate',
    'Door closer',
    'Sliding track',
    'Weather strip',
  ],
}
const MAKES = [
  'grey',
  'white',
  'black',
  'steel',
  'aluminium',
  'heavy',
  'light',
  'long',
  'short',
  'wide',
  'narrow',
  'insulated',
  'plated',
  'coated',
  'sealed',
  'vented',
]
const SIZES = [
  '2 mm',
  '3 mm',
  '6 mm',
  '8 mm',
  '12 mm',
  '16 mm',
  '18 mm',
  '22 mm',
  '25 mm',
  '28 mm',
  '35 mm',
  '42 mm',
  '54 mm',
  '67 mm',
  '76 mm',
  '108 mm',
]
const ACTS = ['Fit', 'Adjust', 'Renew', 'Inspect']
const SUPPLIERS = ['Northmoor Supply', 'Tarnside Trade', '']

export function bigBook(count: number, seed = 5): BigEntry[] {
  const chance = seeded(seed)
  const names = Object.entries(THINGS).flatMap(([category, things]) =>
    things.flatMap((thing) =>
      SIZES.flatMap((size) =>
        MAKES.map((make) => ({ category, name: `${thing} ${size}, ${make}` })),
      ),
    ),
  )
  return Array.from({ length: count }, (_, i) => {
    const { category, name } = names[i % names.length]!
    // Once every name was a part, the same thing is a task that handles it.
    const act = i >= names.length ? ACTS[Math.floor(i / names.length) - 1]! : ''
    const supplier = act ? '' : SUPPLIERS[i % SUPPLIERS.length]!
    return {
      code: `B-${10001 + i}`,
      kind: act ? 'task' : 'part',
      category,
      name: act ? `${act} ${name.charAt(0).toLowerCase()}${name.slice(1)}` : name,
      cost: (1 + chance() * 240).toFixed(2),
      supplier,
      partNumber: supplier && `${supplier.slice(0, 2).toUpperCase()}-${40001 + i}`,
      seconds: act ? 900 + Math.floor(chance() * 20) * 360 : 0,
    }
  })
}
