// The outside services in words: what each is for, how it is named, and what works without it.
import type { Answer } from '~~/shared/api'

export type Connection = Answer<'connections'>['items'][number]
interface Service {
  name: string
  does: string
  without: string
  /** what its address looks like; none has positions: devices come to us */
  example?: string
  /** by which setting the server’s surroundings name it */
  setting: string
  /** it knows us by a user beside the secret */
  user?: boolean
}
export const SERVICES: Readonly<Record<Connection['kind'], Service>> = {
  mail: {
    name: 'Mail',
    does: 'Quotes, invoices, reminders, invitations and new passwords go out by it.',
    without:
      'papers are printed or handed over; nobody can be invited or get a new password by mail',
    example: 'smtps://mail.example.com:465',
    setting: 'SMTP_URL',
    user: true,
  },
  text: {
    name: 'Texts',
    does: 'Customers who agreed to texts hear of their visits by it, and answer.',
    without: 'they hear by mail, or are shown to be rung',
    example: 'https://texts.example.com',
    setting: 'TEXT_URL, TEXT_SECRET',
  },
  card: {
    name: 'Cards',
    does: 'Customers pay an invoice by card on the page of a payment firm, through a small adapter.',
    without: 'invoices are paid by transfer, cheque or cash',
    example: 'https://cards.example.com',
    setting: 'CARD_URL, CARD_SECRET',
  },
  supplier: {
    name: 'Suppliers',
    does: 'What wholesalers sell, at today’s price, is looked up and put on a quote or a work order.',
    without: 'their price lists are taken in as files, and lines are written by hand',
    example: 'https://wholesale.example.com',
    setting: 'SUPPLIER_URL, SUPPLIER_SECRET',
  },
  positions: {
    name: 'Positions of vans',
    does: 'Devices in the vans say where they are; the map and who is nearest go by it.',
    without: 'the plan of the day and the clock say where somebody is',
    setting: 'POSITIONS_SECRET',
  },
}
export const FROM: Readonly<Record<Connection['from'], string>> = {
  here: 'named here',
  surroundings: 'named where the server was set up',
  none: 'not connected',
}
