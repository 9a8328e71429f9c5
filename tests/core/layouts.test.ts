// How papers look and what they say, in the firm's own words.
import { describe, expect, it } from 'vitest'
import { contrastOnWhite, isColour } from '../../core/documents/contrast'
import { examplePapers } from '../../core/documents/examplePapers'
import { LAYOUT_FIELDS, layoutProblem, USUAL_LAYOUT } from '../../core/documents/paperLayout'
import { fieldsOfWord, PAPER_KINDS, PAPER_WORDS, saysOn } from '../../core/documents/paperWords'
import { invoiceDocument } from '../../core/invoices/invoiceDocument'
import { quoteDocument } from '../../core/quotes/quoteDocument'
import { fieldsOf, fillFields, strangeField } from '../../core/text/fillFields'
import { MAIL_KINDS, mailFields, mailText, usualMail } from '../../core/text/mailWords'
import { signedDocument } from '../../core/visits/signedPaper'

const firm = {
  ...{ name: 'Tarn Water', legalName: '', registration: '', logoId: null, taxNumber: 'T7' },
  ...{ line1: '1 Mill Lane', town: 'Otterfall', postcode: '04107', phone: '1', email: '' },
  ...{
    payTo: '',
    payee: '',
    bank: '',
    iban: 'DE89370400440532013000',
    bic: '',
    chequeName: 'Tarn',
  },
  ...{ currency: 'EUR', locale: 'de-DE', taxMode: 'added', conditions: 'As ever.', quoteDays: 14 },
  terms: { kind: 'receipt' } as const,
}
const papers = examplePapers(firm, '2026-11-28')
const invoiced = (layout = USUAL_LAYOUT) => {
  const { invoice } = papers
  return invoiceDocument(
    { ...invoice, layout },
    { paid: { amount: '0.00', currency: 'EUR' }, open: invoice.total },
  )
}
const documents = {
  quote: (layout = USUAL_LAYOUT) => quoteDocument({ ...papers.quote, layout }),
  invoice: invoiced,
  signed: (layout = USUAL_LAYOUT) => signedDocument({ ...papers.signed, layout }, 'ab12'),
}

describe('a text with fields', () => {
  it('is filled, and keeps what is not known', () =>
    expect(fillFields('{a} {b} {a}', { a: 'x' })).toBe('x {b} x'))
  it('is not filled with what stands in the facts', () =>
    expect(fillFields('{a}', { a: '{b}', b: 'no' })).toBe('{b}'))
  it('names the field that is not known', () => {
    expect(strangeField('{a} {z}', ['a'])).toBe('z')
    expect(strangeField('{a} { b } {}', ['a'])).toBeNull()
    expect(fieldsOf('{a} and {b}')).toEqual(['a', 'b'])
  })
})

describe('a colour', () => {
  // WCAG 2.1: #767676 on white has 4.54 : 1, #777777 has 4.48 : 1 (the published example of the limit).
  it('is as readable on white as WCAG 2.1 says', () => {
    expect(contrastOnWhite('#767676')).toBeCloseTo(4.54, 2)
    expect(contrastOnWhite('#777777')).toBeCloseTo(4.48, 2)
    expect(contrastOnWhite('#000000')).toBeCloseTo(21, 5)
    expect(contrastOnWhite('#ffffff')).toBeCloseTo(1, 5)
  })
  it('is written as people write it on the web', () => {
    expect(['#1f5c4a', '#1F5C4A'].every(isColour)).toBe(true)
    expect(['1f5c4a', '#1f5', 'green', '#1f5c4g'].some(isColour)).toBe(false)
  })
})

describe('a layout', () => {
  it('has nothing wrong where nothing is said otherwise', () => {
    for (const kind of PAPER_KINDS) expect(layoutProblem(kind, USUAL_LAYOUT)).toBeNull()
  })
  it.each([
    [{ opening: 'Dear {nmae}' }, 'opening'],
    [{ conditions: '{work}' }, 'conditions'],
    [{ words: { title: 'Estimate {nummer}' } }, 'words.title'],
    [{ words: { buyer: 'For {name}' } }, 'words.buyer'],
    [{ words: { payable: 'Zahlbar' } }, 'words.payable'],
    [{ colour: 'green' }, 'colour'],
    [{ colour: '#aaccbb' }, 'colour'],
  ])('of quotes is refused at its place: %j', (said, field) => {
    const problem = layoutProblem('quote', { ...USUAL_LAYOUT, ...said })
    expect(problem?.field).toBe(field)
    expect(problem?.message).toMatch(/\.$/)
  })
  it('takes every field that it names, and every word that there is', () => {
    for (const kind of PAPER_KINDS) {
      const opening = LAYOUT_FIELDS[kind].map((name) => `{${name}}`).join(' ')
      const words = Object.fromEntries(
        Object.keys(PAPER_WORDS[kind]).map((word) => [
          word,
          `w ${fieldsOfWord(kind, word)
            .map((name) => `{${name}}`)
            .join(' ')}`,
        ]),
      )
      expect(layoutProblem(kind, { ...USUAL_LAYOUT, opening, words, colour: '#1f5c4a' })).toBeNull()
      const read = documents[kind]({ ...USUAL_LAYOUT, opening, words })
      // Everything that it may name is known of such a paper.
      expect(read.opening).not.toMatch(/[{}]/)
    }
  })
})

describe('a paper in the firm’s own words', () => {
  it('says them, and the usual ones where it has none', () => {
    const says = saysOn('quote', { title: 'Estimate {number}', total: '' })
    expect(says('title', { number: 'Q-7' })).toBe('Estimate Q-7')
    expect(says('total')).toBe('Total')
  })
  it('has no English left where all of it is said otherwise', () => {
    const words = Object.fromEntries(
      Object.entries(PAPER_WORDS.invoice).map(([word, usual]) => [
        word,
        `§${fieldsOf(usual)
          .map((name) => `{${name}}`)
          .join('')}`,
      ]),
    )
    const layout = { ...USUAL_LAYOUT, words }
    const { title, facts, buyer, place, columns, sums, head, foot } = invoiced(layout)
    const said = [title, ...facts.map(({ text }) => text), buyer.as, place.as, foot]
    said.push(...columns.map(({ label }) => label), ...sums.map(({ label }) => label), head.at(-1)!)
    expect(said.filter((text) => !text.startsWith('§'))).toEqual([])
  })
  it('opens with its words, filled', () => {
    const opening = 'Dear {name},\nfor {title}: {total}.'
    expect(invoiced({ ...USUAL_LAYOUT, opening }).opening.replace(/\s/g, ' ')).toBe(
      'Dear A customer, for A new pump: 705,00 €.',
    )
  })
  it('ends with the firm’s conditions, unless it has its own', () => {
    expect(invoiced().conditions).toBe('As ever.')
    expect(invoiced({ ...USUAL_LAYOUT, conditions: 'Due {due}.' }).conditions).toMatch(/^Due 28\./)
  })
  it('shows the columns that it is to show, in their order', () => {
    const shown = (layout: Partial<typeof USUAL_LAYOUT>) =>
      documents.quote({ ...USUAL_LAYOUT, ...layout }).columns.map(({ key }) => key)
    expect(shown({})).toEqual(['name', 'quantity', 'each', 'amount'])
    expect(shown({ columns: ['amount'] })).toEqual(['name', 'amount'])
    expect(shown({ itemised: false })).toEqual(['name'])
  })
  it('that itemises nothing has one line, and the same sums', () => {
    const summed = documents.quote({ ...USUAL_LAYOUT, itemised: false })
    expect(summed.lines).toHaveLength(1)
    expect(summed.sums).toEqual(documents.quote().sums)
  })
  it('is on the paper that it names, else on that of its locale', () => {
    expect(documents.signed().size).toBe('A4')
    expect(documents.signed({ ...USUAL_LAYOUT, size: 'LETTER' }).size).toBe('LETTER')
  })
  it('keeps the fingerprint of what was signed beside conditions of its own', () =>
    expect(documents.signed({ ...USUAL_LAYOUT, conditions: 'For {name}.' }).conditions).toBe(
      'For A customer.\nKept as it was signed: SHA-256 ab12',
    ))
})

describe('the words of a mail', () => {
  it('name only what they may', () => {
    for (const kind of MAIL_KINDS)
      expect(strangeField(usualMail(kind), mailFields(kind))).toBeNull()
  })
  it('are the firm’s own where it has some; the link stays until the mail leaves', () => {
    const facts = { name: 'Ida', title: 'Pump', company: 'Tarn' }
    expect(mailText('bill', { bill: '{name}: {title}, {link}' }, facts)).toBe('Ida: Pump, {link}')
    expect(mailText('bill', { bill: '' }, facts)).toContain('“Pump”')
  })
})
