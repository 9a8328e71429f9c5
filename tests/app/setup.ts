// Every part of the app is mounted as it is in the app: with the library, a router and the stores.
import { config, enableAutoUnmount } from '@vue/test-utils'
import { PiniaColada } from '@pinia/colada'
import ElementPlus from 'element-plus'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, vi } from 'vitest'
import { h } from 'vue'
import { createMemoryHistory, createRouter } from 'vue-router'

enableAutoUnmount(afterEach)
beforeEach(() => {
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
