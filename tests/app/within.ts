import { config, flushPromises, mount } from '@vue/test-utils'
import { RouterView, type Router } from 'vue-router'
import { defineComponent, h, type Component } from 'vue'

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

/** A part on a page of its own, and how its page is left. */
export async function onPage(part: Component) {
  const way = router()
  way.addRoute({ path: '/here', component: part })
  await way.push('/here')
  const page = mount(RouterView, { attachTo: document.body })
  async function leave() {
    const gone = way.push('/elsewhere')
    await flushPromises()
    return { gone }
  }
  const here = () => way.currentRoute.value.path
  return { page, leave, here }
}
