// What is often written, one press each: nothing that was typed is lost by it.
import { mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import { h, ref } from 'vue'
import { phraseLists, type Phrases as Own } from '~~/core/settings/phrases'
import Phrases from '~/base/Phrases.vue'
import ReasonDialog from '~/base/ReasonDialog.vue'
import { useSession } from '~/stores/session'
import { press } from './hands'
import { settle } from './screen'

const begin = (own: Own) => {
  const session = useSession()
  const company = { phrases: phraseLists(own) }
  session.me = { company, person: { may: [] } } as unknown as NonNullable<typeof session.me>
}
beforeEach(() => begin({ parked: ['Waits for a part', 'In spring'], beyond: [] }))
const shown = (begins = '', several = false) => {
  const text = ref(begins)
  const page = mount(() =>
    h(Phrases, {
      ...{ of: 'parked', several, modelValue: text.value },
      'onUpdate:modelValue': (now: string) => (text.value = now),
    }),
  )
  const press = (phrase: string) =>
    page
      .findAll('button')
      .find((one) => one.text() === phrase)!
      .trigger('click')
  return { text, page, press }
}

describe('what is often written', () => {
  it('is written by a press, and another instead of it', async () => {
    const { text, press } = shown()
    await press('Waits for a part')
    expect(text.value).toBe('Waits for a part')
    await press('In spring')
    expect(text.value).toBe('In spring')
  })
  it('stands behind what was typed', async () => {
    const { text, press } = shown('Ask the son')
    await press('In spring')
    expect(text.value).toBe('Ask the son. In spring')
  })
  it('stands behind another where several may', async () => {
    const { text, press } = shown('', true)
    await press('In spring')
    await press('Waits for a part')
    expect(text.value).toBe('In spring. Waits for a part')
  })
  it('sends no form, and can be reached by Tab', () => {
    const { page } = shown()
    expect(page.findAll('button').map((one) => one.attributes('type'))).toEqual([
      'button',
      'button',
    ])
    expect(page.find('[tabindex="-1"]').exists()).toBe(false)
  })
  it('is nothing at all where the firm wants nothing', () => {
    begin({ parked: [] })
    expect(shown().page.find('[role=group]').exists()).toBe(false)
  })
  it('is sent as the reason of an act', async () => {
    const sent: string[] = []
    const dialog = mount(ReasonDialog, {
      props: {
        ...{ title: 'Park it', label: 'Where', name: 'list', act: 'Park', phrases: 'parked' },
        send: (reason: string) => Promise.resolve(sent.push(reason)),
      },
      attachTo: document.body,
    })
    await settle()
    await press('In spring')
    await press('Park')
    expect(sent).toEqual(['In spring'])
    dialog.unmount()
  })
})
