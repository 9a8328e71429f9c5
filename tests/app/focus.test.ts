// What a dialog is opened with: its first field has the focus, a calendar is not opened by itself, and whoever has it keeps it.
import { mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { h } from 'vue'
import { focusFirst } from '~/base/focusFirst'

const drawn = (...fields: [tag: string, more?: object][]) =>
  mount(
    () =>
      h(
        'form',
        fields.map(([tag, more]) => h(tag, more)),
      ),
    { attachTo: document.body },
  )
const at = () => document.activeElement?.id ?? ''

describe('the first field', () => {
  it('that can be typed into has the focus', () => {
    const page = drawn(
      ['input', { type: 'checkbox', id: 'yes' }],
      ['input', { disabled: true, id: 'off' }],
      ['input', { readonly: true, id: 'fixed' }],
      ['textarea', { id: 'words' }],
      ['input', { id: 'later' }],
    )
    focusFirst(page.element as HTMLElement)
    expect(at()).toBe('words')
  })
  it('leaves the focus where something of it took it by itself', () => {
    const page = drawn(['input', { id: 'first' }], ['input', { id: 'second' }])
    page.get<HTMLInputElement>('#second').element.focus()
    focusFirst(page.element as HTMLElement)
    expect(at()).toBe('second')
  })
  it('is no calendar, which would open over what is asked', () => {
    const page = mount(
      () =>
        h('form', [
          h('div', { class: 'el-date-editor' }, h('input', { id: 'day' })),
          h('input', { id: 'why' }),
        ]),
      { attachTo: document.body },
    )
    focusFirst(page.element as HTMLElement)
    expect(at()).toBe('why')
  })
  it('is left to a finger, and nothing is done where there is none', () => {
    vi.stubGlobal('matchMedia', () => ({ matches: true }))
    const page = drawn(['input', { id: 'first' }])
    focusFirst(page.element as HTMLElement)
    focusFirst(null)
    expect(at()).toBe('')
  })
})
