// The fields of a form as data: what each is called in what is sent, and by what it is typed.
export type FieldKind = 'text' | 'area' | 'email' | 'date' | 'time' | 'figures'
export type Option = { value: string | number | null; label: string; disabled?: boolean }
export interface FormField {
  readonly name: string
  readonly label: string
  readonly kind?: FieldKind
  /** one of these: a choice */
  readonly options?: readonly Option[]
  readonly placeholder?: string
  /** lines of an area at first */
  readonly rows?: number
  /** takes what it needs beside others, instead of the room that is left */
  readonly narrow?: boolean
}
/** Fields beneath each other; those of one list stand beside each other. */
export type FormRows = readonly (FormField | readonly FormField[])[]

type More = Omit<FormField, 'name' | 'label'>
export const field = (name: string, label: string, more: More = {}): FormField => ({
  name,
  label,
  ...more,
})
/** Texts to choose from that stand for themselves. */
export const optionsOf = (texts: readonly string[]): Option[] =>
  texts.map((value) => ({ value, label: value }))
/** Things to choose from by their name. */
export const namesOf = (things: readonly { id: string; name: string }[] | undefined): Option[] =>
  (things ?? []).map(({ id, name }) => ({ value: id, label: name }))
