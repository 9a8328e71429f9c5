// Tasks of whoever is signed in: what is late says so, a tick is sent with the version that it was seen with.
import { describe, expect, it, vi } from 'vitest'
import { routeOf, type Answer } from '~~/shared/api'
import { homeOf } from '~/lib/homeOf'
import MyTasks from '~/tasks/MyTasks.vue'
import { sampleOf } from './sample'
import { open, settle } from './screen'

const made = sampleOf(routeOf('myTasks').answer!, {
  fields: { doneAt: null },
}) as Answer<'myTasks'>
const items = made.items.map((task, i) => ({
  ...{ ...task, what: `Task ${i}`, on: '2026-11-20', late: i === 2 },
}))
/** The phone's first page, with these to do. */
const begun = async (mine: typeof items) => {
  const screen = await open('/field', {
    role: 'technician',
    server: { says: { myTasks: { items: mine } } },
  })
  // It comes once the day has been painted.
  await vi.waitFor(() => expect(screen.page.findComponent(MyTasks).exists()).toBe(true))
  await settle()
  return screen
}

describe('what I am to do', () => {
  it('stands on my first page, whatever that is', () =>
    expect((['owner', 'office', 'dispatch', 'books', 'technician'] as const).map(homeOf)).toEqual([
      '/schedule',
      '/calls',
      '/schedule',
      '/unpaid',
      '/field',
    ]))
  it('says by when, and what is late; it leads nowhere for whoever may not open it', async () => {
    const mine = (await begun(items)).page.findComponent(MyTasks)
    expect(mine.text()).toContain('Task 2')
    expect(mine.findAll('b').map((day) => day.classes())).toEqual([[], [], ['late']])
    expect(mine.find('a').exists()).toBe(false)
  })
  it('is ticked off with what was seen of it, each its own', async () => {
    const screen = await begun(items)
    await screen.page.findComponent(MyTasks).findAll('li')[2]!.get('input').setValue(true)
    await settle()
    expect(screen.acts().map(({ name, url, body }) => [name, url.split('/').at(-1), body])).toEqual(
      [['changeTask', items[2]!.id, { version: items[2]!.version, done: true }]],
    )
  })
  it('is nothing at all where there is nothing', async () =>
    expect((await begun([])).page.text()).not.toContain('For me to do'))
})
