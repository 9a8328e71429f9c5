// The parts of the kit, each for what it promises: times typed as people write them, tables as data, acts with their reasons.
import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import { h, ref } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import type { Column } from '~/base/columns'
import DataTable from '~/base/DataTable.vue'
import DocumentPage from '~/base/DocumentPage.vue'
import Field from '~/base/Field.vue'
import FigureInput from '~/base/FigureInput.vue'
import Notice from '~/base/Notice.vue'
import PaperSheet from '~/base/PaperSheet.vue'
import Pending from '~/base/Pending.vue'
import StateTag from '~/base/StateTag.vue'
import TextInput from '~/base/TextInput.vue'
import TimeInput from '~/base/TimeInput.vue'
import type { PaperDocument } from '~~/core/documents/paperDocument'
import { useSession } from '~/stores/session'

beforeEach(() => {
  const session = useSession()
  session.me = {
    company: { locale: 'en-US', timeZone: 'America/New_York', currency: 'USD' },
    person: { may: [] },
    today: '2026-11-24',
  } as unknown as NonNullable<typeof session.me>
})

describe('a time', () => {
  const typed = async (text: string, begins = '08:00') => {
    const time = ref<string | null>(begins)
    const page = mount(() =>
      h(TimeInput, {
        modelValue: time.value,
        'onUpdate:modelValue': (now: string | null | undefined) => (time.value = now ?? null),
      }),
    )
    const input = page.get('input')
    await input.setValue(text)
    await input.trigger('change')
    return { time, input }
  }
  it.each([
    ['8', '08:00'],
    ['830', '08:30'],
    ['4pm', '16:00'],
    ['14:45', '14:45'],
  ])('typed as “%s” is %s', async (text, read) => {
    expect((await typed(text)).time.value).toBe(read)
  })
  it('that is none leaves the one that stood there', async () => {
    const { time, input } = await typed('soon', '09:15')
    expect([time.value, input.element.value]).toEqual(['09:15', '09:15'])
  })
  it('that is emptied is none', async () => {
    expect((await typed('', '09:15')).time.value).toBe('')
  })
  it('goes on and back by quarters of an hour, past midnight too', async () => {
    const { time, input } = await typed('23:50')
    await input.trigger('keydown', { key: 'ArrowUp' })
    expect(time.value).toBe('00:05')
    await input.trigger('keydown', { key: 'ArrowDown' })
    await input.trigger('keydown', { key: 'ArrowDown' })
    expect(time.value).toBe('23:35')
  })
})

describe('a text and a figure', () => {
  it('grow with what is typed where there may be several lines', () => {
    expect(
      mount(TextInput, { props: { rows: 3 } })
        .find('textarea')
        .exists(),
    ).toBe(true)
    expect(mount(TextInput).find('input').attributes('type')).toBe('text')
  })
  it('of money stays a text: what was typed is what is sent', async () => {
    const page = mount(FigureInput, { props: { modelValue: '0.10' } })
    await page.get('input').setValue('1200.5')
    expect(page.emitted('update:modelValue')).toEqual([['1200.5']])
    expect(page.get('input').attributes('inputmode')).toBe('decimal')
  })
})

describe('a field', () => {
  it('has its name above its control, and is found by it', async () => {
    const page = mount(Field, {
      props: { label: 'Reason' },
      slots: { default: () => h(TextInput) },
    })
    await flushPromises()
    const label = page.get('label')
    expect(label.text()).toBe('Reason')
    expect(page.get('input').attributes('id')).toBe(label.attributes('for'))
  })
})

describe('a table', () => {
  type Row = { id: string; name: string; owed: number }
  const ROWS: Row[] = [
    { id: 'a', name: 'Vane', owed: 30 },
    { id: 'b', name: 'Okonjo', owed: 20 },
  ]
  const COLUMNS: Column<Row>[] = [
    { key: 'name', label: 'Customer', text: (r) => r.name },
    {
      key: 'owed',
      label: 'Owed',
      figures: true,
      sort: (r) => r.owed,
      tone: (r) => ({ late: r.owed > 25 }),
      text: (r) => r.owed,
    },
  ]
  const drawn = (props: object = {}, slots: object = {}) =>
    mount(DataTable<Row>, {
      props: { rows: ROWS, columns: COLUMNS, rowKey: (r: Row) => r.id, ...props },
      slots,
      attachTo: document.body,
    })
  const texts = (page: ReturnType<typeof drawn>, what: string) =>
    page.findAll(what).map((cell) => cell.text())
  it('says what its columns say of each row, with their tone', async () => {
    const page = drawn({ label: 'What is owed' })
    await flushPromises()
    expect(texts(page, 'thead th')).toEqual(['Customer', 'Owed'])
    expect(texts(page, 'tbody td')).toEqual(['Vane', '30', 'Okonjo', '20'])
    expect(page.findAll('td.late').map((cell) => cell.text())).toEqual(['30'])
    expect(page.find('[aria-label="What is owed"]').exists()).toBe(true)
  })
  it('sums under a double rule what is figures', async () => {
    const page = drawn({ sums: { name: 'Together', owed: '50' } })
    await flushPromises()
    expect(texts(page, 'tfoot td')).toEqual(['Together', '50'])
    expect(page.get('tfoot .double').text()).toBe('50')
  })
  it('hands on the very row that was pressed, by keyboard too', async () => {
    const page = drawn({ picks: true })
    await flushPromises()
    const row = page.findAll('tbody tr')[1]!
    expect(row.attributes('tabindex')).toBe('0')
    await row.trigger('click')
    await row.trigger('keydown', { key: 'Enter' })
    const picked = page.emitted('pick')!
    expect(picked).toHaveLength(2)
    expect(picked[0]![0]).toBe(ROWS[1])
  })
  it('draws a cell by the slot of its column', async () => {
    const page = drawn({}, { name: ({ row }: { row: Row }) => h('b', row.name.toUpperCase()) })
    await flushPromises()
    expect(page.findAll('b').map((b) => b.text())).toEqual(['VANE', 'OKONJO'])
  })
  it('has no head where no column has a name', async () => {
    const page = drawn({ columns: [{ key: 'name', text: (r: Row) => r.name }] })
    await flushPromises()
    expect(page.find('thead').exists()).toBe(false)
  })
})

describe('an act', () => {
  it('that may not be taken says why', () => {
    const page = mount(ActButton, { props: { why: 'Nothing is open here.' } })
    expect(page.attributes('disabled')).toBeDefined()
    expect(page.attributes('title')).toBe('Nothing is open here.')
  })
  it('sends a form only where it says so', () => {
    expect(mount(ActButton).attributes('type')).toBe('button')
    expect(mount(ActButton, { props: { submit: true } }).attributes('type')).toBe('submit')
  })
})

describe('several that may be taken together', () => {
  it('are kept as a list', async () => {
    const taken = ref<string[]>(['a'])
    const page = mount(() =>
      ['a', 'b'].map((value) =>
        h(Check, {
          value,
          label: value,
          modelValue: taken.value,
          'onUpdate:modelValue': (now: unknown) => (taken.value = now as string[]),
        }),
      ),
    )
    await page.findAll('input')[1]!.setValue(true)
    expect(taken.value).toEqual(['a', 'b'])
  })
})

describe('what is said on a page', () => {
  it('is refused aloud, or not there at all', () => {
    expect(
      mount(Notice, { props: { of: null } })
        .find('p')
        .exists(),
    ).toBe(false)
    const page = mount(Notice, { props: { of: { message: 'It is locked.' } } })
    expect(page.get('[role=alert]').text()).toBe('It is locked.')
  })
  it('waits, and says why where it cannot be had', () => {
    expect(mount(Pending, { props: { says: 'Opening…' } }).text()).toContain('Opening…')
    const problem = { message: 'There is no connection.' }
    expect(mount(Pending, { props: { problem } as never }).text()).toContain(problem.message)
  })
  it('of a state is a word; its tone says no more than the word', () => {
    const page = mount(StateTag, { props: { word: 'sent', tone: 'good' } })
    expect([page.text(), page.classes()]).toEqual(['sent', ['chip', 'good']])
  })
})

describe('a document', () => {
  const entry = {
    id: 1,
    at: '2026-11-24T15:21:00.000Z',
    who: 'Olive Brandt',
    text: 'Sent',
    changes: [],
  }
  const drawn = (props: object) =>
    mount(DocumentPage, {
      props: {
        ...{ number: 'I-2207', title: 'Tarn View', history: [entry] },
        ...{ of: 'invoiceEarlier' as const, id: 'I-2207', ...props },
      },
      slots: { acts: () => h('button', 'Send'), default: () => h('p', 'itself') },
    })
  it('has its number, its acts, itself, and what happened in the company’s time', () => {
    const page = drawn({})
    expect(page.get('h1').text()).toContain('I-2207')
    expect(page.get('.acts').text()).toBe('Send')
    expect(page.get('ol').text()).toContain('Tue, Nov 24 10:21 · Olive Brandt')
  })
  it('says why its last act was not done', () => {
    expect(drawn({ problem: 'It was sent already.' }).get('[role=alert]').text()).toBe(
      'It was sent already.',
    )
  })
  it('has no history on a phone', () => {
    expect(drawn({ field: true }).find('ol').exists()).toBe(false)
  })
})

describe('a paper', () => {
  const PAPER: PaperDocument = {
    title: 'Invoice I-2207',
    number: 'I-2207',
    locale: 'en-US',
    ...{ size: 'LETTER', colour: '#1f5c4a', foot: '' },
    seller: { name: 'Stonebeck', address: ['1 Mill Lane'], phone: '1', email: '', taxNumber: 'T7' },
    head: ['1 Mill Lane', 'Tax number T7'],
    facts: [{ text: 'Due Dec 8', strong: true }],
    buyer: { as: 'Bill to', name: 'Ada Greave', address: ['18 Ferry Lane'] },
    place: { as: 'For work at', text: 'House' },
    ...{ subject: 'A new pump', opening: 'Dear Ada,' },
    columns: [
      { key: 'name', label: 'Work' },
      { key: 'amount', label: 'Sum' },
    ],
    lines: [
      { name: 'Pump', beneath: '10 % off', quantity: '2', each: '90.00', amount: '$162.00' },
      { name: 'Pump', beneath: '', quantity: '1', each: '90.00', amount: '$90.00' },
    ],
    remark: '',
    sums: [{ label: 'Total', amount: '$252.00', strong: true }],
    notes: ['Gate code 4411'],
    conditions: 'Thirty days.',
  }
  it('says everything of its document, and works nothing out', () => {
    const page = mount(PaperSheet, { props: { paper: PAPER } })
    const said = page.text()
    for (const text of ['Invoice I-2207', 'Tax number T7', 'Due Dec 8', 'Ada Greave', '10 % off'])
      expect(said).toContain(text)
    for (const text of ['$252.00', 'Gate code 4411', 'Thirty days.', 'A new pump', 'Dear Ada,'])
      expect(said).toContain(text)
    expect(page.findAll('th').map((th) => th.text())).toEqual(['Work', 'Sum'])
    expect(page.get('h1').attributes('style')).toContain('color')
    expect(page.findAll('tbody tr')).toHaveLength(2)
  })
})
