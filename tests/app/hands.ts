// What a person does at a screen: reads its dialog, fills in its fields, presses its buttons; all found by what they are called.
import { DOMWrapper, type VueWrapper } from '@vue/test-utils'
import { settle } from './screen'

const all = () => new DOMWrapper(document.body)
type Wrapped = DOMWrapper<Element>
const said = (element: Wrapped) =>
  (element.attributes('aria-label') ?? element.text()).replace(/\s+/g, ' ').trim()
const is = (text: string, name: string | RegExp) =>
  typeof name === 'string' ? text === name : name.test(text)

/** The dialog that lies on top, or nothing. */
export const dialog = (): Wrapped | undefined =>
  all()
    .findAll('.el-overlay [role="dialog"]')
    .filter((box) => !(box.element.closest('.el-overlay') as HTMLElement).style.display)
    .at(-1)
/** The form that a button sends, where there is no dialog. */
let form: Wrapped | null = null
/** Hands go to the form of an act, until they are at another screen. */
export function goTo(act: string | RegExp | null) {
  form = null
  const around = act !== null && !dialog() && buttons(act, all())[0]?.element.closest('form')
  if (around) form = new DOMWrapper(around)
}
/** Where hands are: in the dialog that lies on top, at the form that they went to, or at the page. */
const here = () => dialog() ?? form ?? all()
export const buttons = (name: string | RegExp, within: Wrapped = here()): Wrapped[] =>
  within
    .findAll('button, a.btn, summary, [role="tab"], [role="radio"]')
    .filter((one) => is(said(one), name))
export function button(name: string | RegExp, within: Wrapped = here()): Wrapped {
  const [first] = buttons(name, within)
  if (first) return first
  const there = within.findAll('button, a.btn').map(said)
  throw new Error(`There is no button ${String(name)} among: ${there.join(' | ')}`)
}
export async function press(name: string | RegExp, within?: Wrapped) {
  const found = button(name, within)
  const form = found.attributes('type') === 'submit' && found.element.closest('form')
  // What sends a form is pressed through the form, which the simulated window does not do by itself.
  await (form ? new DOMWrapper(form).trigger('submit') : found.trigger('click'))
  await settle()
}
/** The control that a label names. */
export function field(label: string | RegExp, within: Wrapped = here()): Wrapped {
  const labelled = within.findAll('label').find((one) => is(one.text().trim(), label))
  const id = labelled?.attributes('for')
  const control =
    (id && within.find(`[id="${id}"]`)) ||
    labelled?.find('input, textarea, select') ||
    within
      .findAll('input, textarea, select')
      .find((one) => is(one.attributes('aria-label') ?? '', label))
  if (control?.exists()) return control as Wrapped
  const there = within.findAll('label').map((one) => one.text())
  throw new Error(`There is no field ${String(label)} among: ${there.join(' | ')}`)
}
export async function fill(label: string | RegExp, text: string, within?: Wrapped) {
  const control = field(label, within)
  await control.setValue(text)
  await control.trigger('change')
  await settle()
}
export const typed = (label: string | RegExp) =>
  (field(label).element as HTMLInputElement | HTMLTextAreaElement).value
/** Chooses in a list of choices, which is drawn elsewhere and as far as it is seen. */
export async function choose(page: VueWrapper, label: string, value: unknown) {
  const around = page
    .findAllComponents({ name: 'Field' })
    .find((one) => one.props('label') === label && here().element.contains(one.element as Node))
  const list = around?.findComponent({ name: 'Choice' })
  if (!list?.exists()) throw new Error(`There is no choice ${label}`)
  list.vm.$emit('update:modelValue', value)
  await settle()
}
/** What is said to whoever cannot see it: refusals and results. */
export const alerts = (within: Wrapped = here()): string[] =>
  within
    .findAll('[role="alert"], .wrong')
    .map((one) => one.text().trim())
    .filter(Boolean)
export const rows = (label?: string): Wrapped[] =>
  (label ? all().get(`table[aria-label="${label}"]`) : all()).findAll('tbody tr')
