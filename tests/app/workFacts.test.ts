// What a work order's page says before anything is done: whom to speak to, what to mind, what it comes back to.
import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import WorkFacts from '~/visits/work/WorkFacts.vue'
import { routeOf, type Answer } from '~~/shared/api'
import { sampleOf } from './sample'

const work = sampleOf(routeOf('workOrder').answer!) as Answer<'workOrder'>
const drawn = (more: Partial<Answer<'workOrder'>>) =>
  mount(WorkFacts, {
    props: { work: { ...work, ...more } },
    global: { stubs: { NuxtLink: { template: '<a><slot /></a>' } } },
  })

describe('what to know of a work order', () => {
  it('says whom to speak to and as what, and who else there is', () => {
    const text = drawn({
      contact: { name: 'Ray', role: 'tenant', phone: '1' },
      otherContacts: [{ name: 'Ada', role: 'caretaker', phone: '2' }],
    }).text()
    expect(text).toContain('speak to Ray (tenant), 1')
    expect(text).toContain('also Ada (caretaker), 2')
  })
  it('says what to mind of the customer: tags, the office’s note, a stop on work', () => {
    const customer = {
      ...work.customer,
      ...{ tags: ['dog'], officeNote: 'Shoes off.', stopWork: 'Owes since May.' },
    }
    const text = drawn({ customer }).text()
    for (const said of ['dog', 'Shoes off.', 'Stop work.', 'Owes since May.'])
      expect(text).toContain(said)
  })
  it('says to what it comes back, and what came back to it', () => {
    const text = drawn({ callbackOf: { id: '1', number: 'W-7' } }).text()
    expect(text).toContain('comes back to W-7')
    expect(text).toContain('Had to be looked at again')
  })
})
