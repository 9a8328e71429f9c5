// The shortest ways from one node of a network to others.
import type { Edges } from './network'

/** A heap of nodes by their cost; a node may stand in it more than once, the cheapest counts. */
class Heap {
  private cost: number[] = []
  private item: number[] = []
  get size(): number {
    return this.cost.length
  }
  push(cost: number, item: number): void {
    let i = this.cost.length
    while (i > 0) {
      const up = (i - 1) >> 1
      if (this.cost[up]! <= cost) break
      this.cost[i] = this.cost[up]!
      this.item[i] = this.item[up]!
      i = up
    }
    this.cost[i] = cost
    this.item[i] = item
  }

  pop(): { cost: number; item: number } {
    const top = { cost: this.cost[0]!, item: this.item[0]! }
    const cost = this.cost.pop()!
    const item = this.item.pop()!
    const n = this.cost.length
    if (n > 0) {
      let i = 0
      for (;;) {
        let child = 2 * i + 1
        if (child >= n) break
        if (child + 1 < n && this.cost[child + 1]! < this.cost[child]!) child++
        if (this.cost[child]! >= cost) break
        this.cost[i] = this.cost[child]!
        this.item[i] = this.item[child]!
        i = child
      }
      this.cost[i] = cost
      this.item[i] = item
    }
    return top
  }
}
interface Search {
  /** the least that is left from a node to the only target, when there is one (A*: Hart, Nilsson & Raphael 1968) */
  guess?: (node: number) => number
  /** filled with the node before each one on its shortest way */
  trace?: Int32Array
}
/**
 * Seconds from one node to others along the shortest ways; Infinity where none leads. It ends once all that were asked for are reached.
 * Source: E. W. Dijkstra, Numerische Mathematik 1 (1959).
 */
export function drivesFrom(
  roads: Edges,
  from: number,
  targets: readonly number[],
  { guess = () => 0, trace }: Search = {},
): number[] {
  const n = roads.first.length - 1
  const known = new Float64Array(n).fill(Infinity)
  const settled = new Uint8Array(n)
  const wanted = new Uint8Array(n)
  let left = 0
  for (const t of targets) {
    if (t < 0 || wanted[t]) continue
    wanted[t] = 1
    left++
  }
  const { first, to, seconds } = roads
  const heap = new Heap()
  known[from] = 0
  heap.push(guess(from), from)
  while (heap.size && left > 0) {
    const { item: u } = heap.pop()
    if (settled[u]) continue
    settled[u] = 1
    left -= wanted[u]!
    const base = known[u]!
    for (let e = first[u]!; e < first[u + 1]!; e++) {
      const v = to[e]!
      const cost = base + seconds[e]!
      if (cost < known[v]!) {
        known[v] = cost
        if (trace) trace[v] = u
        heap.push(cost + guess(v), v)
      }
    }
  }
  return targets.map((t) => (t >= 0 && settled[t] ? known[t]! : Infinity))
}
