// Shortcuts are said once: they work while their screen is there, and the help prints the same ones.
import { mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { defineComponent, h, ref } from 'vue'
import { useLayer } from '~/lib/layers'
import { shortcutsNow, useShortcuts, type Shortcut } from '~/lib/shortcuts'
import { dayKeys } from '~/dispatch/day/boardShortcuts'

const screen = (shortcuts: readonly Shortcut[], reach: 'here' | 'everywhere' = 'here') =>
  mount(
    defineComponent(() => {
      useShortcuts(shortcuts, reach)
      return () => h('div', [h('input'), h('textarea'), h('button')])
    }),
    { attachTo: document.body },
  )
function press(key: string, more: KeyboardEventInit = {}, on: Element = document.body) {
  const init = { key, code: `Key${key}`, bubbles: true, cancelable: true, ...more }
  const event = new KeyboardEvent('keydown', init)
  const held = { Control: event.ctrlKey, Meta: event.metaKey, Shift: event.shiftKey }
  // What a browser knows and this one does not.
  event.getModifierState = (name) => held[name as keyof typeof held] ?? false
  on.dispatchEvent(event)
  return event
}

describe('a shortcut', () => {
  it('is answered while its screen is there, and no longer', () => {
    const run = vi.fn()
    const page = screen([{ keys: 'N', press: 'n', does: 'take a call', run }])
    expect(press('n').defaultPrevented).toBe(true)
    page.unmount()
    expect(press('n').defaultPrevented).toBe(false)
    expect(run).toHaveBeenCalledOnce()
  })
  it('is pressed once, however long its key is held', () => {
    const run = vi.fn()
    screen([{ keys: 'C', press: 'c', does: 'a further visit', run }])
    press('c')
    expect(press('c', { repeat: true }).defaultPrevented).toBe(true)
    expect(run).toHaveBeenCalledOnce()
  })
  it('of the page does nothing while something stands over it, and not with the key that closes that', async () => {
    vi.useFakeTimers()
    const [beneath, within] = [vi.fn(), vi.fn()]
    const open = ref(true)
    const key = (run: () => void): Shortcut => ({ keys: 'Esc', press: 'Escape', does: 'go', run })
    screen([key(beneath)])
    const Inside = defineComponent(() => (useShortcuts([key(within)]), () => h('p')))
    const close = () => void (open.value = false)
    const Over = defineComponent(() => (useLayer(() => open.value, close), () => h(Inside)))
    const over = mount(Over)
    press('Escape')
    expect([beneath.mock.calls.length, within.mock.calls.length]).toEqual([0, 1])
    open.value = false
    press('Escape')
    expect(beneath).not.toHaveBeenCalled()
    vi.runAllTimers()
    press('Escape')
    expect(beneath).toHaveBeenCalledOnce()
    open.value = true
    press('Escape')
    over.unmount()
    vi.runAllTimers()
    press('Escape')
    expect(beneath).toHaveBeenCalledTimes(2)
    vi.useRealTimers()
  })
  it('wants its modifiers, and no others', () => {
    const run = vi.fn()
    screen([{ keys: 'Ctrl Z', press: ['Control+z', 'Meta+z'], does: 'undo', run }])
    press('z')
    press('z', { ctrlKey: true, shiftKey: true })
    expect(run).not.toHaveBeenCalled()
    press('z', { ctrlKey: true })
    press('z', { metaKey: true })
    expect(run).toHaveBeenCalledTimes(2)
  })
  it('leaves whoever types alone, unless it is meant for them', () => {
    const [letter, send] = [vi.fn(), vi.fn()]
    const page = screen([
      { keys: 'N', press: 'n', does: 'take a call', run: letter },
      { keys: 'Ctrl Enter', press: 'Control+Enter', does: 'book', typing: true, run: send },
    ])
    for (const field of ['input', 'textarea']) {
      press('n', {}, page.get(field).element)
      press('Enter', { ctrlKey: true }, page.get(field).element)
    }
    expect(letter).not.toHaveBeenCalled()
    expect(send).toHaveBeenCalledTimes(2)
    press('n', {}, page.get('button').element)
    expect(letter).toHaveBeenCalledOnce()
  })
  it('is not there while it may not be, and then the key is free', () => {
    const run = vi.fn()
    let may = false
    screen([{ keys: 'N', press: 'n', does: 'take a call', when: () => may, run }])
    expect(press('n').defaultPrevented).toBe(false)
    expect(shortcutsNow()).toEqual([])
    may = true
    press('n')
    expect(run).toHaveBeenCalledOnce()
    expect(shortcutsNow().map(({ keys }) => keys)).toEqual(['N'])
  })
  it('does not answer what somebody nearer has answered', () => {
    const run = vi.fn()
    const page = screen([{ keys: 'Esc', press: 'Escape', does: 'back', typing: true, run }])
    page.get('input').element.addEventListener('keydown', (event) => event.preventDefault())
    press('Escape', {}, page.get('input').element)
    expect(run).not.toHaveBeenCalled()
  })
})
describe('the help', () => {
  it('prints those of the screen before those of every screen, done by the board or not', () => {
    screen([{ keys: '?', press: '?', does: 'this page', run: () => {} }], 'everywhere')
    screen([{ keys: 'Tab', does: 'go to the next visit' }])
    expect(shortcutsNow().map(({ keys }) => keys)).toEqual(['Tab', '?'])
  })
})
describe('days', () => {
  it('go back and on, by whatever step the view has', () => {
    const go = vi.fn()
    screen(dayKeys(go, 'week'))
    press('[')
    press(']')
    expect(go.mock.calls).toEqual([[-1], [1]])
    expect(shortcutsNow().map(({ does }) => does)).toEqual(['week before', 'week after'])
  })
})
