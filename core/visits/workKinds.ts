/** What a call may be about. */
export const CALL_KINDS = [
  'repair',
  'no_water',
  'service',
  'installation',
  'water_test',
  'quote_visit',
] as const
/** Why somebody comes a second time without charge. */
export const FREE_KINDS = ['call_back', 'warranty'] as const
export type CallKind = (typeof CALL_KINDS)[number]
export type FreeKind = (typeof FREE_KINDS)[number]
/** What a work order may be. */
export type WorkKind = CallKind | FreeKind

const SAID: Record<WorkKind, string> = {
  repair: 'repair',
  no_water: 'no water',
  service: 'service',
  installation: 'installation',
  water_test: 'water test',
  quote_visit: 'quote visit',
  call_back: 'call-back',
  warranty: 'warranty',
}
/**
 * A kind of work in words; one that is not known is said as it is.
 * @example sayWorkKind('quote_visit') // 'quote visit'
 */
export const sayWorkKind = (kind: string): string => SAID[kind as WorkKind] ?? kind
