// Finds the route of a method and path. Paths with more fixed text win, so /invoices/{id}.pdf is tried before /invoices/{id}.
import { routes, type RouteName } from '../../shared/api'
import type { Route } from '../../shared/schema'

const table = (Object.entries(routes) as [RouteName, Route][])
  .map(([name, route]) => ({
    name,
    route,
    pattern: new RegExp(
      `^${route.path.replaceAll('.', '\\.').replace(/\{(\w+)\}/g, '(?<$1>[^/]+?)')}$`,
    ),
    weight: route.path.replace(/\{\w+\}/g, '').length * 10 - (route.path.match(/\{/g)?.length ?? 0),
  }))
  .sort((a, b) => b.weight - a.weight)

export function matchRoute(
  method: string,
  path: string,
):
  { name: RouteName; route: Route; params: Record<string, string> } | { allowed: string[] } | null {
  const allowed: string[] = []
  for (const { name, route, pattern } of table) {
    const found = pattern.exec(path)
    if (!found) continue
    if (route.method === method) return { name, route, params: { ...found.groups } }
    allowed.push(route.method)
  }
  return allowed.length ? { allowed } : null
}
