export type DurationPolicy =
  { kind: 'exact' } | { kind: 'nearest' | 'up'; stepSeconds: number; minimumSeconds?: number }

/**
 * A duration rounded by policy, in seconds; `nearest` takes a half step up.
 * @example roundDuration(8 * 60, { kind: 'nearest', stepSeconds: 900 }) // 900
 * Source: 29 CFR 785.48(b): nearest 5 minutes, tenth or quarter of an hour, if over time it does not underpay.
 */
export function roundDuration(seconds: number, policy: DurationPolicy): number {
  if (policy.kind === 'exact') return seconds
  const steps = seconds / policy.stepSeconds
  const whole = policy.kind === 'up' ? Math.ceil(steps) : Math.floor(steps + 0.5)
  return Math.max(whole * policy.stepSeconds, seconds > 0 ? (policy.minimumSeconds ?? 0) : 0)
}
