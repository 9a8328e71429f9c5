// What the browser needs of the catalogue of routes before anybody writes: method and address of each.
// Their schemas, with the library that checks them, are fetched beside the first screen (`catalogueOfRoutes`).
import { addTemplate, defineNuxtModule } from 'nuxt/kit'
import { routes } from '../shared/api'
import type { Route } from '../shared/schema'

function contents(): string {
  const rows = Object.entries(routes as Record<string, Route>).map(
    ([name, { method, path, body }]) => `  ${name}: ['${method}', '${path}', ${Boolean(body)}],`,
  )
  return [
    '/** Of each route: its method, its path below /api/v1, whether it takes a body. */',
    'export const addresses: Record<string, [method: string, path: string, takes: boolean]> = {',
    ...rows,
    '}',
    '',
  ].join('\n')
}
export default defineNuxtModule({
  meta: { name: 'addresses' },
  setup(_options, nuxt) {
    addTemplate({ filename: 'addresses.ts', getContents: contents, write: true })
    // Read once at the start: whoever changes a route while the app runs has it started anew.
    nuxt.options.watch.push('shared/')
  },
})
