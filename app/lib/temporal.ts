// What browsers do not have yet of dates and zones is fetched by those alone; nuxt.config.ts puts this in the package's place.
import type { Temporal as Package } from 'temporal-polyfill'

const own = (globalThis as { Temporal?: typeof Package }).Temporal
export const Temporal = own ?? (await import('temporal-polyfill/implementation')).Temporal
