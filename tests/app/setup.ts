// Every part of the app is mounted as it is in the app: with the library, a router and the stores.
import { config, enableAutoUnmount } from '@vue/test-utils'
import { PiniaColada } from '@pinia/colada'
import ElementPlus from 'element-plus'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, vi } from 'vitest'
import { h } from 'vue'
import { createMemoryHistory, createRouter, useRoute } from 'vue-router'

// The price book of the browser, which is searched in a worker of its own, in the test's own thread.
const worker = vi.hoisted(() => ({
  service: {} as Record<string, (...asked: unknown[]) => unknown>,
}))
vi.mock('comlink', () => ({
  expose: (service: typeof worker.service) => (worker.service = service),
  wrap: () =>
    new Proxy(
      {},
      {
        get: (_, name: string) =>
          name === 'then'
            ? undefined
            : async (...asked: unknown[]) => {
                await import('~/workers/book.worker')
                return worker.service[name]!(...asked)
              },
      },
    ),
}))
const kept = vi.hoisted(() => new Map<string, unknown>())
vi.mock('idb-keyval', () => ({
  get: (key: string) => Promise.resolve(kept.get(key)),
  set: (key: string, value: unknown) => Promise.resolve(void kept.set(key, value)),
  del: (key: string) => Promise.resolve(void kept.delete(key)),
  clear: () => Promise.resolve(kept.clear()),
}))

// What floats over the page asks each element whether it is a window by its text, which the simulated window writes out in full.
Element.prototype.toString = () => '[object Element]'

enableAutoUnmount(afterEach)
beforeEach(() => {
  kept.clear()
  localStorage.clear()
  sessionStorage.clear()
  vi.stubGlobal(
    'Worker',
    class {
      terminate() {}
      addEventListener() {}
    },
  )
  vi.stubGlobal('useRoute', useRoute)
  const pinia = createPinia()
  setActivePinia(pinia)
  const page = { render: () => h('p') }
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [{ path: '/:rest(.*)*', component: page }],
  })
  config.global.plugins = [pinia, PiniaColada, router, ElementPlus]
  // The library's dialogs end with their transition.
  config.global.stubs = { transition: false, 'transition-group': false }
})
afterEach(() => {
  vi.restoreAllMocks()
  vi.unstubAllGlobals()
  document.body.innerHTML = ''
})
