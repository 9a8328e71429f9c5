// What the firm writes beside its papers, as it usually is; a firm says any of it in its own words, or its own language.
import { fillFields } from './fillFields'

const USUAL = {
  bill: {
    text: 'Thank you for having us. Your invoice for “{title}” is attached; you can also read it and pay here:\n\n{link}\n\n{company}',
    fields: ['name', 'title', 'link', 'company'],
  },
  invoice: {
    text: 'Your invoice {number} is attached; you can also read it and pay here:\n\n{link}\n\n{company}',
    fields: ['name', 'number', 'sum', 'due', 'link', 'company'],
  },
  quote: {
    text: 'Here is our quote for “{title}”. The price is held until {until}.\n\nYou can read and answer it here; we begin once you have agreed:\n\n{link}\n\n{company}',
    fields: ['name', 'number', 'title', 'until', 'link', 'company'],
  },
  reminder1: {
    text: 'Dear {name},\n\nperhaps this slipped through: {sum} is open.\n\n{list}\n\nIf it is already on its way, thank you.\n\n{company}',
    fields: ['name', 'sum', 'list', 'company'],
  },
  reminder2: {
    text: 'Dear {name},\n\n{sum} is still open after our reminder. Please pay it this week, or ring us if something is not right.\n\n{list}\n\n{company}',
    fields: ['name', 'sum', 'list', 'company'],
  },
} as const satisfies Record<string, { text: string; fields: readonly string[] }>
export type MailKind = keyof typeof USUAL
export const MAIL_KINDS = Object.keys(USUAL) as readonly MailKind[]
/** What a mail of a kind may name. */
export type MailField<K extends MailKind> = (typeof USUAL)[K]['fields'][number]
/** What it names that is filled when it is written; a link is filled when the mail leaves. */
export type MailFacts<K extends MailKind> = Readonly<Record<Exclude<MailField<K>, 'link'>, string>>

/** How a mail is usually written. @example usualMail('quote').startsWith('Here is our quote') // true */
export const usualMail = (kind: MailKind): string => USUAL[kind].text
/** The fields that a mail of a kind may have. @example mailFields('reminder1') // ['name', 'sum', 'list', 'company'] */
export const mailFields = (kind: MailKind): readonly string[] => USUAL[kind].fields
/**
 * A mail in the firm's words, its fields filled; `{link}` stays until it leaves.
 * @param wording the firm's own, by kind
 * @example mailText('invoice', {}, facts) // 'Your invoice I-7 is attached; …'
 */
export const mailText = <K extends MailKind>(
  kind: K,
  wording: Readonly<Record<string, string>>,
  facts: MailFacts<K>,
): string => fillFields(wording[kind] || usualMail(kind), facts)
