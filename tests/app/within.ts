import { config, mount } from '@vue/test-utils'
import type { Router } from 'vue-router'
import { defineComponent, h } from 'vue'

/** What a composable answers, within a component that is there. */
export function within<T>(use: () => T): T {
  let got!: T
  mount(defineComponent(() => ((got = use()), () => h('p'))))
  return got
}

/** The router that parts are mounted with. */
export const router = (): Router =>
  config.global.plugins!.find(
    (plugin): plugin is Router & never => typeof plugin === 'object' && 'currentRoute' in plugin,
  )!
