// The small set of Yup building blocks that every subject's schemas are made of, and what a route is.
import * as yup from 'yup'
import { rolesThatMay, type Permission, type Role } from '../core/access/permissions'

// What is said where a schema says nothing of its own: sentences, not the library's phrases.
yup.setLocale({
  mixed: {
    default: 'This cannot be taken as it is.',
    required: 'This is needed.',
    defined: 'This is needed.',
    notNull: 'This is needed.',
    oneOf: ({ values }) => `Choose one of: ${values}.`,
    notType: 'This is not of the right kind.',
  },
  number: {
    min: ({ min }) => `Not less than ${min}.`,
    max: ({ max }) => `Not more than ${max}.`,
    integer: 'Only whole numbers.',
  },
  object: { noUnknown: 'There is a field that is not known here.' },
})

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/

export const id = () =>
  yup.string().matches(UUID, 'This is not an identifier.').meta({ format: 'uuid' })
/** What stands beside a text: whether it may have several lines. */
export interface TextMeta {
  lines?: boolean
}
/** A text of more signs than this may have several lines. */
const ONE_LINE = 300
// Control signs, and marks that turn the direction of what follows: they make a line say what it does not.
const UNKEPT = /[\u0000-\u001f\u007f-\u009f\u202a-\u202e\u2066-\u2069]/
const UNKEPT_IN_LINES =
  /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f-\u009f\u202a-\u202e\u2066-\u2069]/
/** Whether a text holds nothing but signs that are kept; line breaks and tabs only where it may have several lines. */
export const isOneLine = (value: string, meta?: TextMeta): boolean =>
  !(meta?.lines ? UNKEPT_IN_LINES : UNKEPT).test(value.trim())
export const text = (max = 200) =>
  yup
    .string()
    .trim()
    .max(max, `Not more than ${max} signs.`)
    .meta({ lines: max > ONE_LINE } satisfies TextMeta)
export const definedText = (max = 200) => text(max).defined()
export const requiredText = (sentence: string, max = 200) => text(max).required(sentence)
const NO_DAY = 'There is no such day.'
const isReal = (day: string | undefined) =>
  !day ||
  (!Number.isNaN(Date.parse(`${day}T00:00Z`)) &&
    new Date(`${day}T00:00Z`).toISOString().startsWith(day))
export const date = () =>
  yup
    .string()
    .matches(/^\d{4}-\d{2}-\d{2}$/, {
      message: 'Write the date as YYYY-MM-DD.',
      excludeEmptyString: true,
    })
    .test('real', NO_DAY, isReal)
    .meta({ format: 'date' })
export const time = () =>
  yup.string().matches(/^([01]\d|2[0-3]):[0-5]\d$/, 'Write the time as hh:mm.')
/** A time, or an empty text for none. */
export const timeOrNone = () =>
  yup
    .string()
    .matches(/^(([01]\d|2[0-3]):[0-5]\d)?$/, 'Write the time as hh:mm.')
    .default('')
/** A day, or an empty text for none. */
export const dayOrNone = () =>
  yup
    .string()
    .matches(/^(\d{4}-\d{2}-\d{2})?$/, 'Write the date as YYYY-MM-DD.')
    .test('real', NO_DAY, isReal)
    .default('')
export const instant = () =>
  yup
    .string()
    .matches(
      /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(:\d{2}(\.\d{1,3})?)?Z$/,
      'Write the instant in UTC, ending in Z.',
    )
    .test('real', 'There is no such instant.', (v) => !v || !Number.isNaN(Date.parse(v)))
export const int = (min = -1e15, max = 1e15) => yup.number().integer().min(min).max(max)
export const version = () => int(1).required('Say which version you changed.')
export const decimal = (sentence = 'Write a number, for example 1.5.', max = 9) =>
  yup
    .string()
    .trim()
    .matches(new RegExp(`^\\d{1,${max}}(\\.\\d{1,4})?$`), sentence)
/** A quantity: three decimals are kept, a fourth is refused. */
export const quantity = (max = 9) =>
  yup
    .string()
    .trim()
    .matches(
      new RegExp(`^\\d{1,${max}}(\\.\\d{1,3})?$`),
      'Write the quantity as a number with three decimals at most, for example 2 or 1.5.',
    )
export const amount = () =>
  yup
    .string()
    .trim()
    .matches(/^\d{1,12}(\.\d{1,3})?$/, {
      message: 'Write the amount as a number, for example 100.00.',
      excludeEmptyString: true,
    })
export const mail = () => text(160).email('This is not a mail address.')
export const flag = () => yup.boolean()
export const oneOf = <const T extends readonly string[]>(list: T) =>
  yup.string().oneOf(list as unknown as T[number][])
export const money = () =>
  yup.object({ amount: yup.string().required(), currency: yup.string().required() })
export const list = <T extends yup.AnySchema>(of: T) =>
  yup
    .array<yup.AnyObject, yup.InferType<T>>(of as unknown as yup.ISchema<yup.InferType<T>>)
    .defined()
/** What may be left out of a shape: what has a default, and what may be undefined. */
type LeftOut<F> =
  F extends yup.Schema<infer T, any, any, infer Flags> // eslint-disable-line @typescript-eslint/no-explicit-any
    ? 'd' extends Flags
      ? true
      : undefined extends T
        ? true
        : false
    : true
type GivenField<F> = F extends { given?: infer G }
  ? G
  : F extends yup.AnySchema
    ? yup.InferType<F>
    : never
/** What whoever asks must send for a shape: each required field, and any of the others. */
type GivenShape<S> = {
  [K in keyof S as LeftOut<S[K]> extends true ? never : K]: GivenField<S[K]>
} & { [K in keyof S as LeftOut<S[K]> extends true ? K : never]?: GivenField<S[K]> }

export const obj = <S extends yup.ObjectShape>(shape: S) =>
  yup.object(shape).noUnknown('This field is not known.') as ReturnType<
    typeof yup.object<object, S>
  > & { given?: GivenShape<S> }
export const listQuery = { q: text(100), sort: text(40), limit: int(1, 200), after: text(200) }
export const page = <T extends yup.AnySchema>(of: T) =>
  obj({ items: list(of), next: yup.string().nullable().defined(), total: int().required() })
export const ok = obj({ ok: flag().required() })

/** Entries of a history at once. */
export const HISTORY_PAGE = 60
/** What happened, as the page of a document shows it: the last first. */
export const history = () =>
  list(
    obj({
      id: int().required(),
      at: instant().required(),
      who: definedText(),
      text: definedText(400),
      /** what it was and became */
      changes: list(obj({ what: definedText(), from: definedText(400), to: definedText(400) })),
    }),
  )
/** What was before an entry of a history. */
export const earlier = {
  query: obj({ before: int(1) }),
  answer: obj({ items: history() }),
}

export interface Route {
  method: 'GET' | 'POST' | 'PATCH' | 'DELETE'
  /** below /api/v1, with {names} */
  path: string
  /** what somebody who is signed in must be permitted */
  may?: Permission
  /** 'public' for everyone; 'signature' for machines that sign what they send; else `may` says it */
  who?: 'public' | 'signature'
  /** whose secret signs, where machines sign: CARD_SECRET when not said */
  signedBy?: 'card' | 'positions' | 'text'
  summary: string
  query?: yup.AnySchema
  body?: yup.AnySchema
  answer?: yup.AnySchema
  /** what is answered when it is not JSON */
  mime?: string
  /** the answer is the same for everybody who may ask: screens that ask at the same moment share it */
  shared?: true
  /** largest body in bytes; 100 kB when not said */
  maxBytes?: number
  /** what is sent is a file of any length up to that: it is read once it is clear that it may be */
  takesFile?: true
  /** the answer holds a secret that is shown once: it is not kept for a repeated request */
  secret?: true
  /** the browser keeps the session that the answer opens, or loses the one it had */
  session?: 'opens' | 'ends'
}
/** A route, with its types kept. */
export const route = <const R extends Route>(r: R): R => r
/** Who may call a route: everyone, whoever signs, or the roles that are permitted what it asks for. */
export const callersOf = (r: Route): readonly Role[] | 'public' | 'signature' =>
  r.who ?? rolesThatMay(r.may!)
