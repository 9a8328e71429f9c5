import { mount } from '@vue/test-utils'
import { defineComponent, h } from 'vue'

/** What a composable answers, within a component that is there. */
export function within<T>(use: () => T): T {
  let got!: T
  mount(defineComponent(() => ((got = use()), () => h('p'))))
  return got
}
