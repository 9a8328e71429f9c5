/**
 * Hours of an assembly: its tasks, in the order of their codes, the first as a first one and the others as further ones; and all of them as
 * further ones, where another task came before. Whole seconds.
 * @example insideHours([{ code: 'T-1', kind: 'task', quantity: '1', seconds: 7200, furtherSeconds: 5400 }, { code: 'T-2', kind: 'task', quantity: '1', seconds: 3600, furtherSeconds: 2700 }]) // { seconds: 9900, furtherSeconds: 8100 }
 * Source: common practice of the trade: setting up is done once.
 */
export function insideHours(
  inside: readonly {
    code: string
    kind: string
    quantity: string
    seconds: number
    furtherSeconds: number
  }[],
): { seconds: number; furtherSeconds: number } {
  const tasks = inside.filter((e) => e.kind === 'task').sort((a, b) => a.code.localeCompare(b.code))
  const times = (seconds: number, quantity: string) => Math.round(seconds * Number(quantity))
  const furtherSeconds = tasks.reduce((n, t) => n + times(t.furtherSeconds, t.quantity), 0)
  const first = tasks[0]
  return {
    seconds: first
      ? furtherSeconds -
        times(first.furtherSeconds, first.quantity) +
        times(first.seconds, first.quantity)
      : 0,
    furtherSeconds,
  }
}
