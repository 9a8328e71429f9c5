// What a dialog is opened with: its first field has the focus, a calendar is not opened by itself, and whoever has it keeps it; and where the focus
// is once it is closed.
import { mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { defineComponent, h, nextTick, ref } from 'vue'
import { useFocusBack, watchFocus } from '~/base/focusBack'
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
  /** What is asked comes with an answer, a moment after its frame. */
  async function later(meanwhile: () => void) {
    const isThere = ref(false)
    const page = mount(() => h('form', isThere.value ? [h('input', { id: 'late' })] : []), {
      attachTo: document.body,
    })
    focusFirst(page.element as HTMLElement)
    meanwhile()
    isThere.value = true
    await nextTick()
    await Promise.resolve()
  }
  it('has it once it comes', async () => {
    await later(() => {})
    expect(at()).toBe('late')
  })
  it('that comes late takes it from nobody who went on meanwhile', async () => {
    const elsewhere = drawn(['input', { id: 'elsewhere' }])
    await later(() => elsewhere.get<HTMLInputElement>('#elsewhere').element.focus())
    expect(at()).toBe('elsewhere')
  })
  it('that comes late takes it from no act of its own frame', async () => {
    const isThere = ref(false)
    const page = mount(
      () =>
        h('div', { role: 'dialog', tabindex: -1, id: 'frame' }, [
          h('form', isThere.value ? [h('input', { id: 'late' })] : []),
          h('button', { id: 'close' }),
        ]),
      { attachTo: document.body },
    )
    page.get<HTMLElement>('#frame').element.focus()
    focusFirst(page.get<HTMLElement>('form').element)
    page.get<HTMLElement>('#close').element.focus()
    isThere.value = true
    await nextTick()
    await Promise.resolve()
    expect(at()).toBe('close')
  })
  it('is left to a finger, and nothing is done where there is none', () => {
    vi.stubGlobal('matchMedia', () => ({ matches: true }))
    const page = drawn(['input', { id: 'first' }])
    focusFirst(page.element as HTMLElement)
    focusFirst(null)
    expect(at()).toBe('')
  })
})

describe('the focus afterwards', () => {
  /** A page with two buttons, of which the second opened what stands over it. */
  const drawn = async () => {
    watchFocus()
    const open = ref(true)
    const over = defineComponent(() => (useFocusBack(() => open.value), () => h('p')))
    const page = mount(
      () => [
        h('button', { id: 'else' }),
        h('button', { id: 'opener' }),
        h('div', { role: 'dialog' }, h('input', { id: 'asked' })),
        open.value ? h(over) : null,
      ],
      { attachTo: document.body },
    )
    const find = (id: string) => document.getElementById(id)!
    find('opener').focus()
    find('asked').focus()
    const close = async () => {
      open.value = false
      await nextTick()
      await new Promise((resolve) => requestAnimationFrame(resolve))
    }
    return { page, find, close }
  }
  it.each([
    ['that lost it meanwhile', () => {}],
    [
      'the library has focused the page itself',
      () => document.body.dispatchEvent(new FocusEvent('focusin', { bubbles: true })),
    ],
  ])('is where it was before, also where %s', async (_, meanwhile) => {
    const { find, close } = await drawn()
    find('asked').blur()
    meanwhile()
    await close()
    expect(at()).toBe('opener')
  })
  it('stays where somebody has put it since', async () => {
    const { find, close } = await drawn()
    find('else').focus()
    await close()
    expect(at()).toBe('else')
  })
  it('is nowhere where what it was opened from is gone', async () => {
    const { find, close } = await drawn()
    find('asked').blur()
    find('opener').remove()
    await close()
    expect(at()).toBe('')
  })
})
