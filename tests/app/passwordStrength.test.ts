// How soon a password would be guessed, said beside it while it is chosen; an answer that comes late says nothing of another.
import { mount } from '@vue/test-utils'
import { expect, it, vi } from 'vitest'
import PasswordStrength from '~/base/PasswordStrength.vue'

const says = async (of: string, known: string[] = []) => {
  const meter = mount(PasswordStrength, { props: { of, known } })
  await vi.waitFor(() => expect(meter.text()).not.toBe(''))
  return meter
}
it.each([
  ['aaaaaaaaaaaaaaaa', 'Guessed at once'],
  ['password1234', 'Guessed soon'],
  ['x7Kq-pump-Wz3-yard', 'Very hard to guess'],
])('%s: %s', async (word, words) => expect((await says(word)).text()).toBe(words))
it('what others know of somebody makes it weaker', async () => {
  const soonest = ['at once', 'soon', 'a while', 'Hard', 'Very hard']
  const soon = async (known: string[]) => {
    const text = (await says('marigoldlowfold', known)).text()
    return soonest.findIndex((word) => text.includes(word))
  }
  expect(await soon(['Marigold Lowfold'])).toBeLessThan(await soon([]))
})
it('says nothing of what is not there any more', async () => {
  const meter = await says('password1234')
  await meter.setProps({ of: '' })
  await vi.waitFor(() => expect(meter.text()).toBe(''))
})
