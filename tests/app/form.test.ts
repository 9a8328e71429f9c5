// Forms as they are drawn: fields know their form, its button waits, and nothing typed is lost without a word.
import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { defineComponent, h, nextTick } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Ask from '~/base/Ask.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import Form from '~/base/Form.vue'
import FormFields from '~/base/FormFields.vue'
import Notice from '~/base/Notice.vue'
import OneField from '~/base/OneField.vue'
import ReasonDialog from '~/base/ReasonDialog.vue'
import { field, namesOf, optionsOf } from '~/base/fields'
import { asked, warnWindow } from '~/base/leaving'
import { useForm } from '~/base/useForm'
import { Problem } from '~/lib/api'

const refusal = (path: string) =>
  new Problem('The whole of it.', {
    status: 422,
    code: 'invalid',
    errors: [{ path, message: 'Not like this.' }],
  })

describe('a form', () => {
  const drawn = (form: ReturnType<typeof useForm<{ name: string }>>, send: () => unknown) =>
    mount(
      () =>
        h(Form, { of: form, onSubmit: send }, () => [
          h(Field, { name: 'name', label: 'Name' }, () => h('input')),
          h(Notice),
          h(ActButton, { submit: true }, () => 'Keep'),
        ]),
      { attachTo: document.body },
    )
  it('is sent by its button, which waits while it is on its way', async () => {
    const form = useForm({ name: '' })
    let finish = () => {}
    const page = drawn(form, () => form.send(() => new Promise<void>((done) => (finish = done))))
    await page.get('form').trigger('submit')
    expect(page.get('button').attributes('disabled')).toBeDefined()
    finish()
    await flushPromises()
    expect(page.get('button').attributes('disabled')).toBeUndefined()
  })
  it('leads whoever was refused to the field that is wrong', async () => {
    const form = useForm({ name: '' })
    const page = drawn(form, () => form.send(() => Promise.reject(refusal('name'))))
    await page.get('form').trigger('submit')
    await vi.waitFor(() => expect(document.activeElement).toBe(page.get('input').element))
  })
  it('is not sent again while it is on its way', async () => {
    const form = useForm({ name: '' })
    const work = vi.fn(() => new Promise<void>(() => {}))
    const page = drawn(form, () => form.send(work))
    await page.get('form').trigger('submit')
    await page.get('form').trigger('submit')
    expect(work).toHaveBeenCalledOnce()
  })
  it('says what is wrong at its field, and the rest beneath', async () => {
    const form = useForm({ name: '' })
    let path = 'name'
    const page = drawn(form, () => form.send(() => Promise.reject(refusal(path))))
    await page.get('form').trigger('submit')
    await vi.waitFor(() => expect(page.get('.wrong').text()).toBe('Not like this.'))
    expect(page.find('[role=alert].note').exists()).toBe(false)
    path = 'version'
    await page.get('form').trigger('submit')
    await flushPromises()
    expect(page.get('.note').text()).toBe('The whole of it.')
  })
})

describe('fields as data', () => {
  const FIELDS = [
    field('name', 'Name'),
    [field('on', 'Day', { kind: 'date' }), field('at', 'Time', { kind: 'time', narrow: true })],
    field('note', 'Note', { kind: 'area', rows: 3 }),
    field('price', 'Price', { kind: 'figures' }),
    field('who', 'Who', { options: namesOf([{ id: 'p1', name: 'Ines' }]) }),
  ]
  it('are bound to the values of their names', async () => {
    const form = useForm({ name: 'Vane', on: '', at: '', note: '', price: '', who: 'p1' })
    const page = mount(() => h(Form, { of: form }, () => h(FormFields, { fields: FIELDS })))
    const inputs = page.findAll('input')
    await inputs[0]!.setValue('Vance')
    await page.get('textarea').setValue('two lines')
    expect(form.values).toMatchObject({ name: 'Vance', note: 'two lines' })
    expect(page.findAll('label').map((label) => label.text())).toEqual([
      'Name',
      'Day',
      'Time',
      'Note',
      'Price',
      'Who',
    ])
    expect(page.findAll('.row')).toHaveLength(1)
    expect(page.findAll('.row .grow')).toHaveLength(1)
  })
  it('choose among texts that stand for themselves', () => {
    expect(optionsOf(['yes', 'no'])).toEqual([
      { value: 'yes', label: 'yes' },
      { value: 'no', label: 'no' },
    ])
    expect(namesOf(undefined)).toEqual([])
  })
})

describe('one field and its act', () => {
  const drawn = (props: object) =>
    mount(OneField, {
      props: { label: 'Why', act: 'Cancel it', send: () => Promise.resolve(), ...props },
    })
  it('wants something, unless nothing is an answer', async () => {
    expect(drawn({}).get('button').attributes('disabled')).toBeDefined()
    expect(drawn({ optional: true }).get('button').attributes('disabled')).toBeUndefined()
    const page = drawn({})
    await page.get('input').setValue('   ')
    expect(page.get('button').attributes('disabled')).toBeDefined()
  })
  it('gives what was typed without the spaces around it, and is empty then', async () => {
    const send = vi.fn(() => Promise.resolve())
    const page = drawn({ send })
    await page.get('input').setValue('  they moved ')
    await page.get('form').trigger('submit')
    await flushPromises()
    expect(send).toHaveBeenCalledWith('they moved')
    expect(page.get('input').element.value).toBe('')
  })
  it('keeps what was typed, and says why, when it was refused', async () => {
    const page = drawn({
      send: () => Promise.reject(new Problem('It is locked.', { status: 409, code: 'locked' })),
    })
    await page.get('input').setValue('they moved')
    await page.get('form').trigger('submit')
    await flushPromises()
    expect(page.get('input').element.value).toBe('they moved')
    expect(page.get('[role=alert]').text()).toBe('It is locked.')
  })
  it('begins with what was there', () => {
    expect(drawn({ begins: 'as agreed' }).get('input').element.value).toBe('as agreed')
  })
})

describe('a dialog', () => {
  const Host = defineComponent({
    props: { form: { type: Object, required: true } },
    emits: ['close'],
    setup: (props, { emit }) => {
      return () => [
        h(
          Dialog,
          { title: 'Change it', onClose: () => emit('close') },
          {
            default: () =>
              h(Form, { of: props.form as ReturnType<typeof useForm> }, () => h('input')),
          },
        ),
        asked.value && h(Ask),
      ]
    },
  })
  const cross = () => document.querySelector<HTMLElement>('.el-dialog__headerbtn')!.click()
  const press = (name: string) =>
    [...document.querySelectorAll<HTMLElement>('button')]
      .find((button) => button.textContent.trim() === name)!
      .click()
  async function opened() {
    const form = useForm({ name: 'Vane' })
    const page = mount(Host, { props: { form }, attachTo: document.body })
    await flushPromises()
    return { form, page }
  }
  it('closes at once where nothing was typed', async () => {
    const { page } = await opened()
    cross()
    await vi.waitFor(() => expect(page.emitted('close')).toHaveLength(1))
    expect(asked.value).toBeNull()
  })
  it('asks where something was; staying keeps it', async () => {
    const { form, page } = await opened()
    form.values.name = 'Vance'
    cross()
    await flushPromises()
    expect(document.body.textContent).toContain('What you typed here is not kept.')
    press('Stay here')
    await flushPromises()
    expect(page.emitted('close')).toBeUndefined()
    expect(form.values.name).toBe('Vance')
    cross()
    await flushPromises()
    press('Leave it')
    await vi.waitFor(() => expect(page.emitted('close')).toHaveLength(1))
  })
  it('is asked about by the window, too, for as long as it is there', async () => {
    const { form, page } = await opened()
    const leave = () => {
      const event = new Event('beforeunload', { cancelable: true })
      warnWindow(event)
      return event.defaultPrevented
    }
    expect(leave()).toBe(false)
    form.values.name = 'Vance'
    expect(leave()).toBe(true)
    page.unmount()
    expect(leave()).toBe(false)
  })
})

describe('a reason', () => {
  const drawn = (send: (reason: string) => Promise<unknown>) =>
    mount(ReasonDialog, {
      props: { title: 'Close it', label: 'Why', name: 'reason', act: 'Close it', send },
      attachTo: document.body,
    })
  it('is given, and the dialog closes', async () => {
    const send = vi.fn(() => Promise.resolve())
    const page = drawn(send)
    await nextTick()
    await page.getComponent(Form).get('input').setValue('no longer wanted')
    await page.getComponent(Form).trigger('submit')
    await flushPromises()
    expect(send).toHaveBeenCalledWith('no longer wanted')
    expect(page.emitted('close')).toHaveLength(1)
  })
  it('that is refused stays, with the sentence at its field', async () => {
    const page = drawn(() => Promise.reject(refusal('reason')))
    await nextTick()
    await page.getComponent(Form).trigger('submit')
    const wrong = () => page.getComponent(Form).get('.wrong').text()
    await vi.waitFor(() => expect(wrong()).toBe('Not like this.'))
    expect(page.emitted('close')).toBeUndefined()
  })
})
