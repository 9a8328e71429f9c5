/** Decimal arithmetic for everything that is not yet whole minor units. 34 digits, ties away from zero. */
import { Decimal as Base } from 'decimal.js'

export const Decimal = Base.clone({ precision: 34, rounding: Base.ROUND_HALF_UP })
export type Decimal = InstanceType<typeof Decimal>
/** What may be given where a decimal is meant. Never a fraction as a JavaScript number: quantities arrive as strings. */
export type DecimalInput = string | Decimal | number
