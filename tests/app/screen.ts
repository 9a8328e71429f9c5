// A page of the app as a person opens it: at its address, signed in, with a server behind it that answers from the catalogue.
import { phraseLists } from '~~/core/settings/phrases'
import { USUAL_KINDS } from '~~/core/visits/workKinds'
import { config, flushPromises, mount, type VueWrapper } from '@vue/test-utils'
import { vi } from 'vitest'
import * as vue from 'vue'
import { PiniaColada } from '@pinia/colada'
import ElementPlus from 'element-plus'
import { createPinia, setActivePinia } from 'pinia'
import { createMemoryHistory, createRouter, RouterLink, RouterView, useRoute } from 'vue-router'
import { permissionsOf, type Role } from '~~/core/access/permissions'
import { routes, type RouteName } from '~~/shared/api'
import type { Route } from '~~/shared/schema'
import UnansweredStrip from '~/base/UnansweredStrip.vue'
import { useSession } from '~/stores/session'
import '~/workers/book.worker'
import { sampleOf, type Wanted } from './sample'

const FILES = import.meta.glob<{ default: vue.Component }>('../../app/pages/**/*.vue')
/** Each page's address, with the names of what stands in it. */
export const PAGES = Object.keys(FILES)
  .map((file) => ({
    file,
    path:
      file
        .replace('../../app/pages', '')
        .replace(/\.vue$/, '')
        .replace(/\/index$/, '')
        .replace(/\[(\w+)\]/g, ':$1') || '/',
  }))
  .sort((a, b) => a.path.localeCompare(b.path))

/** What a route is called, by what was asked. */
function routeFor(method: string, url: string): [RouteName, Route] | null {
  const path = url.replace('/api/v1', '').replace(/\?.*/, '')
  const found = Object.entries(routes as Record<string, Route>).find(([, route]) => {
    const pattern = route.path.replace(/\{\w+\}/g, '[^/]+').replaceAll('.', '\\.')
    return route.method === method && new RegExp(`^${pattern}$`).test(path)
  })
  return found ? [found[0] as RouteName, found[1]] : null
}
export interface Sent {
  name: RouteName | null
  method: string
  url: string
  body: unknown
  key: string | null
}
export type Says = (url: string) => unknown
export interface Server {
  /** how the answers of a route are made up, and of all routes by `*` */
  wanted?: Partial<Record<RouteName | '*', Wanted>>
  /** what a route answers instead, by its address where it is a function; a sentence is a refusal */
  says?: Partial<Record<RouteName | '*', unknown>>
}
const refusal = (detail: string) =>
  new Response(JSON.stringify({ status: 503, code: 'busy', detail }), { status: 503 })
/** A conflict, with its code and what it knows besides. */
const isRefused = (said: unknown): said is { refused: object } =>
  typeof said === 'object' && said !== null && 'refused' in said
/** A firm is here already, wherever a test says nothing else. */
const BEGUN: Server['says'] = { beginning: { waits: false, countries: [] } }
/** A server that knows the catalogue, and notes what it was asked. */
function serve({ wanted = {}, says: told = {} }: Server) {
  const says = { ...BEGUN, ...told }
  const sent: Sent[] = []
  vi.stubGlobal('fetch', async (url: string, init: RequestInit = {}) => {
    const method = init.method ?? 'GET'
    const [name, route] = routeFor(method, url) ?? [null, null]
    sent.push({
      name,
      method,
      url,
      body: init.body ? (JSON.parse(String(init.body)) as unknown) : undefined,
      key: new Headers(init.headers).get('Idempotency-Key'),
    })
    const known = (name && says[name]) ?? says['*']
    const said = await (typeof known === 'function' ? (known as Says)(url) : known)
    if (typeof said === 'string') return refusal(said)
    if (isRefused(said)) return new Response(JSON.stringify(said.refused), { status: 409 })
    const body =
      said ?? (route?.answer ? sampleOf(route.answer, (name && wanted[name]) ?? wanted['*']) : {})
    return new Response(JSON.stringify(body), { status: 200 })
  })
  return sent
}
/** What Nuxt brings into pages by itself. */
function bringIn(go: (to: unknown) => void) {
  for (const name of ['computed', 'ref', 'watch', 'onMounted', 'reactive', 'shallowRef'] as const)
    vi.stubGlobal(name, vue[name])
  vi.stubGlobal('useRoute', useRoute)
  vi.stubGlobal('definePageMeta', () => {})
  vi.stubGlobal('useHead', () => {})
  vi.stubGlobal('navigateTo', go)
  vi.stubGlobal(
    'EventSource',
    class extends EventTarget {
      readyState = 1
      close() {}
    },
  )
}
export interface Screen {
  page: VueWrapper
  /** what was asked of the server */
  sent: Sent[]
  /** what it was asked to do: the writes alone */
  acts: () => Sent[]
  /** where a press led */
  went: unknown[]
  /** what Vue, or the page, complained about */
  complaints: string[]
}
export interface Person {
  role?: Role
  server?: Server
}
/** For a part that stands alone: a server behind it, and where presses lead. */
export function bring(server: Server = {}): unknown[] {
  const went: unknown[] = []
  bringIn((to) => void went.push(to))
  const sent = serve(server)
  bring.sent = () => sent
  return went
}
bring.sent = (): Sent[] => []
/** Opens the page at an address, as somebody, and waits until it stands. */
export async function open(address: string, { role = 'owner', server = {} }: Person = {}) {
  const complaints: string[] = []
  const went: unknown[] = []
  const go = (to: unknown) => void went.push(to)
  bringIn(go)
  localStorage.clear()
  const sent = serve(server)
  const pinia = createPinia()
  setActivePinia(pinia)
  useSession().me = {
    ...(sampleOf(routes.session.answer, { seed: 3 }) as NonNullable<
      ReturnType<typeof useSession>['me']
    >),
    today: '2026-11-24',
    now: '2026-11-24T15:21:00Z',
    clockFixed: true,
  }
  Object.assign(useSession().me!.person, {
    role,
    may: permissionsOf(role),
    seesCost: role !== 'technician',
  })
  Object.assign(useSession().me!.company, {
    currency: 'USD',
    locale: 'en-US',
    timeZone: 'America/New_York',
    stateLabels: {},
    workKinds: USUAL_KINDS,
    phrases: phraseLists({}),
    ownRoles: [],
  })
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [
      ...PAGES.map(({ file, path }) => ({ path, component: FILES[file]! })),
      { path: '/:rest(.*)*', component: { render: () => null } },
    ],
  })
  await router.push(address)
  // Not those of single parts, which every test begins with.
  config.global.plugins = []
  const page = mount(
    {
      render: () => [
        vue.h(UnansweredStrip),
        vue.h(vue.Suspense, null, { default: () => vue.h(RouterView) }),
      ],
    },
    {
      attachTo: document.body,
      global: {
        plugins: [pinia, PiniaColada, router, ElementPlus],
        // Templates find what Nuxt brings in at the page itself.
        mocks: { navigateTo: go },
        components: {
          NuxtLink: RouterLink,
          NuxtLayout: (_: unknown, { slots }: { slots: vue.Slots }) => slots.default?.(),
        },
        config: {
          warnHandler: (text, _, trace) => void complaints.push(`${text} ${trace.slice(0, 300)}`),
          errorHandler: (error) => void complaints.push(String((error as Error).stack)),
        },
      },
    },
  )
  await settle()
  const acts = () => sent.filter(({ method }) => method !== 'GET')
  return { page, sent, acts, went, complaints } satisfies Screen
}
/** Until what was asked is answered and drawn, and what that asked in turn. */
export async function settle() {
  for (let i = 0; i < 6; i++) await flushPromises()
}
