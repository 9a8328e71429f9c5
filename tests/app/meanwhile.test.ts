// Two windows, and a live change under one's hands: what nobody typed over follows, what was typed stays, and both values are shown.
import { flushPromises, mount } from '@vue/test-utils'
import fc from 'fast-check'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { h, nextTick, ref, shallowRef } from 'vue'
import Check from '~/base/Check.vue'
import Dialog from '~/base/Dialog.vue'
import { draftsOf, dropDrafts } from '~/base/drafts'
import Field from '~/base/Field.vue'
import Form from '~/base/Form.vue'
import FormFields from '~/base/FormFields.vue'
import InPlace from '~/base/InPlace.vue'
import { asked } from '~/base/leaving'
import { field } from '~/base/fields'
import { changesIn, setAt, threeWay, valueAt } from '~/base/threeWay'
import { useForm, useFormAbout } from '~/base/useForm'
import { Problem } from '~/lib/api'
import { later } from './server'
import { onPage, within } from './within'

const stale = () => new Problem('Someone changed it.', { status: 409, code: 'stale' })
const site = { version: 3, name: 'Hallam Farm', note: 'Ring first.', custom: { gate: '4711' } }
type Site = typeof site
/** A site that others change, and what a form about it sends. */
function shared(start: Site = site) {
  const server = ref({ ...start })
  const shown = shallowRef({ ...start })
  const sent: object[] = []
  const refresh = vi.fn(async () => {
    shown.value = { ...server.value }
    await nextTick()
  })
  const form = within(() =>
    useFormAbout(
      () => shown.value,
      ({ name, note, custom }) => ({ name, note, custom }),
      refresh,
    ),
  )
  /** Somebody else changes it; whoever shows it hears of that, or not yet. */
  const elsewhere = async (change: Partial<Site>, isHeard = true) => {
    server.value = { ...server.value, ...change, version: server.value.version + 1 }
    if (isHeard) await refresh()
  }
  const keep = () =>
    form.keep((version) => {
      const body = { version, ...form.changes() }
      sent.push(body)
      if (version !== server.value.version) return Promise.reject(stale())
      server.value = { ...server.value, ...form.changes(), version: version + 1 }
      return Promise.resolve('kept')
    })
  return { form, elsewhere, keep, sent, server, shown, refresh }
}

describe('three ways', () => {
  it('follow where nobody typed, and keep what was typed', () =>
    expect(threeWay({ a: 1, b: 1 }, { a: 2, b: 1 }, { a: 1, b: 3 })).toEqual({
      values: { a: 2, b: 3 },
      theirs: new Map(),
    }))
  it('tell what both changed to something else, and nothing of what both made alike', () => {
    const { values, theirs } = threeWay({ a: 1, b: 1 }, { a: 2, b: 5 }, { a: 3, b: 5 })
    expect([values, [...theirs]]).toEqual([{ a: 2, b: 5 }, [['a', 3]]])
  })
  it('go into parts, but take a list as a whole', () => {
    const before = { own: { x: '1', y: '1' }, tags: ['a'] }
    const typed = { own: { x: '2', y: '1' }, tags: ['a', 'b'] }
    const now = { own: { x: '3', y: '9' }, tags: ['c'] }
    const { values, theirs } = threeWay(before, typed, now)
    expect(values).toEqual({ own: { x: '2', y: '9' }, tags: ['a', 'b'] })
    expect([...theirs.keys()]).toEqual(['own.x', 'tags'])
  })
  it('see no change where parts are named in another order', () => {
    const lines = (...parts: object[]) => ({ lines: parts })
    const { values, theirs } = threeWay(
      lines({ id: 1, of: 2 }),
      lines({ of: 2, id: 1 }),
      lines({ id: 1, of: 3 }),
    )
    expect([values, theirs.size]).toEqual([lines({ id: 1, of: 3 }), 0])
  })
  it('lose nothing that was typed, and nothing that somebody else wrote', () => {
    const values = fc.record({ a: fc.nat(3), b: fc.nat(3), c: fc.record({ d: fc.nat(3) }) })
    fc.assert(
      fc.property(values, values, values, (before, typed, now) => {
        const merged = threeWay(before, typed, now)
        for (const path of ['a', 'b', 'c.d']) {
          const [was, mine, theirs, got] = [before, typed, now, merged.values].map((of) =>
            valueAt(of, path),
          )
          expect(got).toBe(mine === was ? theirs : mine)
          const isLost = mine !== was && theirs !== was && mine !== theirs
          expect(merged.theirs.get(path)).toBe(isLost ? theirs : undefined)
        }
      }),
    )
  })
  it('say what changed, and reach into parts', () => {
    expect(changesIn({ a: 1, b: [1] }, { a: 1, b: [2] })).toEqual({ b: [2] })
    const values = { own: { x: '1' } }
    setAt(values, 'own.x', '2')
    setAt(values, 'nowhere.x', '2')
    expect([values, valueAt(values, 'own.x')]).toEqual([{ own: { x: '2' } }, '2'])
  })
})

describe('a form about what others change', () => {
  it('sends what was typed alone, with the version that it shows', async () => {
    const { form, elsewhere, keep, sent, server } = shared()
    form.values.note = 'Beware of the geese.'
    await elsewhere({ name: 'Hallam Grange' })
    expect(form.values.name).toBe('Hallam Grange')
    expect(await keep()).toBe('kept')
    expect(sent).toEqual([{ version: 4, note: 'Beware of the geese.' }])
    expect(server.value).toMatchObject({ name: 'Hallam Grange', note: 'Beware of the geese.' })
  })
  it('that had not heard of it keeps both, where they changed different things', async () => {
    const { form, elsewhere, keep, sent, server } = shared()
    form.values.note = 'Beware of the geese.'
    await elsewhere({ name: 'Hallam Grange' }, false)
    expect(await keep()).toBe('kept')
    expect(sent).toHaveLength(2)
    expect(server.value).toMatchObject({ name: 'Hallam Grange', note: 'Beware of the geese.' })
    expect(form.problem).toBeNull()
  })
  it('where both changed the same, sends nothing over it until both were shown', async () => {
    const { form, elsewhere, keep, server } = shared()
    form.values.note = 'Beware of the geese.'
    await elsewhere({ note: 'The gate is open.' }, false)
    expect(await keep()).toBeUndefined()
    expect(form.problem?.code).toBe('stale')
    expect([...form.meanwhile]).toEqual([['note', 'The gate is open.']])
    expect(server.value.note).toBe('The gate is open.')
    expect(await keep()).toBe('kept')
    expect(server.value.note).toBe('Beware of the geese.')
  })
  it('takes theirs where somebody says so', async () => {
    const { form, elsewhere } = shared()
    form.values.note = 'Beware of the geese.'
    await elsewhere({ note: 'The gate is open.' })
    form.takeTheirs('note')
    expect([form.values.note, form.changed, form.meanwhile.size]).toEqual([
      'The gate is open.',
      false,
      0,
    ])
  })
  it('takes its own answer for its own, also where the server wrote it otherwise', async () => {
    const { form, shown } = shared()
    form.values.name = 'hallam'
    const { promise, settle } = later<void>()
    const done = form.keep(async () => {
      shown.value = { ...site, name: 'Hallam', version: 4 }
      await promise
    })
    await flushPromises()
    settle()
    await done
    await nextTick()
    expect([form.values.name, form.meanwhile.size, form.changed]).toEqual(['Hallam', 0, false])
  })
  it('says that it was taken out meanwhile, and keeps what was typed', async () => {
    const thing = shallowRef<Site | undefined>({ ...site })
    const form = within(() =>
      useFormAbout(
        () => thing.value,
        ({ note }) => ({ note }),
        () => Promise.resolve((thing.value = undefined)),
      ),
    )
    form.values.note = 'Beware of the geese.'
    await form.keep(() => Promise.reject(stale()))
    expect(form.problem?.message).toContain('taken out meanwhile')
    expect(form.values.note).toBe('Beware of the geese.')
  })
  it('is blank until the thing is there', async () => {
    const thing = shallowRef<Site | null>(null)
    const form = within(() =>
      useFormAbout(
        () => thing.value,
        ({ note }) => ({ note }),
        () => Promise.resolve(),
        { blank: { note: '' } },
      ),
    )
    expect([form.values.note, form.version()]).toEqual(['', 0])
    thing.value = site
    await nextTick()
    expect([form.values.note, form.version(), form.changed]).toEqual(['Ring first.', 3, false])
  })
})

describe('beneath a field', () => {
  const drawn = () => {
    const form = useForm({ note: 'a', level: 'l1', exempt: false })
    const options = [
      { value: 'l1', label: 'standard' },
      { value: 'l2', label: 'trade' },
    ]
    const page = mount(
      () =>
        h(Form, { of: form }, () => [
          h(Field, { name: 'note', label: 'Note' }, () => h('input')),
          h(FormFields, { fields: [field('level', 'Level', { options })] }),
          h(
            Check,
            {
              modelValue: form.values.exempt,
              'onUpdate:modelValue': (is: boolean | unknown[] | undefined) =>
                (form.values.exempt = Boolean(is)),
              name: 'exempt',
            },
            () => 'Exempt',
          ),
        ]),
      { attachTo: document.body },
    )
    return { form, page }
  }
  it('stands what somebody else wrote, in the words of the field, until one is kept', async () => {
    const { form, page } = drawn()
    Object.assign(form.values, { note: 'b', level: 'l1', exempt: true })
    form.values.level = 'l3'
    form.follow({ note: 'c', level: 'l2', exempt: false })
    await nextTick()
    const said = page.findAll('.meanwhile').map((one) => one.get('b').text())
    expect(said).toEqual(['c', 'trade'])
    await page.findAll('.meanwhile button')[0]!.trigger('click')
    expect(form.values.note).toBe('c')
    expect(page.findAll('.meanwhile')).toHaveLength(1)
  })
})

describe('a value that is changed where it stands', () => {
  const drawn = (value = '1', keep = vi.fn((_: string) => Promise.resolve<unknown>(true))) => {
    const now = ref(value)
    const page = mount(
      () => h(InPlace, { value: now.value, keep, label: 'Quantity', bare: true }),
      {
        attachTo: document.body,
      },
    )
    const input = () => page.get('input')
    const leave = () => input().trigger('focusout')
    /** What stands in the field, which is not left yet. */
    const type = (text: string) => {
      input().element.value = text
      return input().trigger('input')
    }
    return { now, page, input, type, leave, keep }
  }
  it('is kept once when its field is left', async () => {
    const { type, leave, keep } = drawn()
    await type('7')
    await leave()
    await leave()
    expect(keep.mock.calls).toEqual([['7']])
  })
  it('is not kept where nothing was typed', async () => {
    const { leave, keep } = drawn()
    await leave()
    expect(keep).not.toHaveBeenCalled()
  })
  it('that is half typed is not written over, and both stand there to choose from', async () => {
    const { now, input, type, leave, keep, page } = drawn()
    await type('7')
    now.value = '3'
    await nextTick()
    expect(input().element.value).toBe('7')
    await leave()
    expect(keep).not.toHaveBeenCalled()
    expect(page.get('.meanwhile b').text()).toBe('3')
    await page.findAll('.meanwhile button')[1]!.trigger('click')
    expect(keep.mock.calls).toEqual([['7']])
  })
  it('follows where nobody types', async () => {
    const { now, input } = drawn()
    now.value = '3'
    await nextTick()
    expect(input().element.value).toBe('3')
  })
  it('stays as it was typed where it could not be kept', async () => {
    const { input, type, leave, keep } = drawn(
      '1',
      vi.fn(() => Promise.resolve(undefined)),
    )
    await type('x')
    await leave()
    await flushPromises()
    expect(input().element.value).toBe('x')
    await leave()
    expect(keep).toHaveBeenCalledTimes(2)
  })
  it('that is on its way is waited for by whoever leaves, and kept once', async () => {
    const sent = later<boolean>()
    const keep = vi.fn((_: string) => sent.promise)
    const { page, leave, here } = await onPage({
      render: () => h(InPlace, { value: '1', keep, label: 'Quantity' }),
    })
    await page.get('input').setValue('7')
    await page.get('input').trigger('focusout')
    const { gone } = await leave()
    expect([keep.mock.calls, here()]).toEqual([[['7']], '/here'])
    sent.settle(true)
    await gone
    expect([here(), asked.value]).toEqual(['/elsewhere', null])
    expect(keep).toHaveBeenCalledOnce()
  })
  it('is kept when its page is left by a key', async () => {
    const { type, page, keep } = drawn()
    await type('7')
    page.unmount()
    expect(keep.mock.calls).toEqual([['7']])
  })
})

describe('what was typed and not sent', () => {
  beforeEach(() => draftsOf('p1'))
  const note = () =>
    within(() => useForm({ note: '', to: 'a@b.example' }, { draft: 'reminder c1' }))
  it('stands there again after the window is gone, and is said', () => {
    note().values.note = 'Please pay.'
    const again = note()
    expect([again.values.note, again.unkept, again.takenUp !== null]).toEqual([
      'Please pay.',
      true,
      true,
    ])
  })
  it('is gone once it was sent, also where its dialog is gone by then', async () => {
    const form = useForm({ note: '' }, { draft: 'reminder c1' })
    const page = mount(() => h(Form, { of: form }))
    form.values.note = 'Please pay.'
    await form.send(() => Promise.resolve(page.unmount()))
    expect(note().values.note).toBe('')
  })
  it('stays where sending failed', async () => {
    const form = note()
    form.values.note = 'Please pay.'
    await form.send(() => Promise.reject(new Problem('away', { status: 0, code: 'offline' })))
    expect(note().values.note).toBe('Please pay.')
  })
  it('is gone where it was thrown away on purpose', () => {
    const form = note()
    form.values.note = 'Please pay.'
    form.discard()
    expect([form.values.note, note().values.note]).toEqual(['', ''])
  })
  it('is of one thing and one person', () => {
    note().values.note = 'Please pay.'
    expect(within(() => useForm({ note: '' }, { draft: 'reminder c2' })).values.note).toBe('')
    draftsOf('p2')
    expect(note().values.note).toBe('')
  })
  it('leaves with whoever signs out', () => {
    note().values.note = 'Please pay.'
    dropDrafts()
    expect(note().values.note).toBe('')
  })
  it('follows what the thing became meanwhile', () => {
    const about = (values: { name: string; note: string }) =>
      within(() => useForm(values, { draft: 'site s1' }))
    about({ name: 'Farm', note: '' }).values.note = 'Geese.'
    const again = about({ name: 'Grange', note: 'The gate is open.' })
    expect(again.values).toEqual({ name: 'Grange', note: 'Geese.' })
    expect([...again.meanwhile]).toEqual([['note', 'The gate is open.']])
  })
  it('is no draft where nobody is signed in, or the browser keeps none', () => {
    draftsOf('')
    note().values.note = 'Please pay.'
    expect(note().values.note).toBe('')
    draftsOf('p1')
    vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
      throw new Error('full')
    })
    const form = note()
    form.values.note = 'Please pay.'
    expect(form.values.note).toBe('Please pay.')
  })
  it('is forgotten after two weeks, whoever typed it', () => {
    const DAY = 86_400_000
    const typed = (days: number) =>
      JSON.stringify({ before: {}, typed: {}, at: Date.now() - days * DAY })
    localStorage.setItem('draft p2 reminder c1', typed(15))
    localStorage.setItem('draft p2 reminder c2', typed(13))
    draftsOf('p1')
    const kept = Object.keys(localStorage).filter((key) => key.startsWith('draft p2'))
    expect(kept).toEqual(['draft p2 reminder c2'])
  })
  it('that is spoilt is none', () => {
    localStorage.setItem('draft p1 reminder c1', '{')
    expect(note().values.note).toBe('')
  })
  it('is thrown away by its form’s own button, and by a dialog that is left', async () => {
    const form = note()
    form.values.note = 'Please pay.'
    const again = note()
    const page = mount(() => h(Form, { of: again }), { attachTo: document.body })
    await page.get('button').trigger('click')
    expect([again.values.note, note().values.note]).toEqual(['', ''])
    const third = note()
    mount(
      () =>
        h(Dialog, { title: 'Reminder', modelValue: true }, () => h(Form, { of: third }, () => 'x')),
      { attachTo: document.body },
    )
    await nextTick()
    third.values.note = 'Please.'
    document.querySelector<HTMLElement>('.el-dialog__headerbtn')!.click()
    await nextTick()
    asked.value!.answer(true)
    await flushPromises()
    expect(note().values.note).toBe('')
  })
})
