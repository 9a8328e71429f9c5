// What customers and sites are found by.
import { digits, searchKey } from '../../core/text/searchKey'

export const customerSearch = (c: {
  name: string
  phone: string
  phone2?: string
  email: string
  email2: string
  line1: string
  town: string
  postcode: string
  tags?: string[]
  custom?: Record<string, string>
}) =>
  `${searchKey([c.name, c.email, c.email2, c.line1, c.town, c.postcode, ...(c.tags ?? []), ...Object.values(c.custom ?? {})].join(' '))} ${digits(c.phone)} ${digits(c.phone2 ?? '')}`
export const siteSearch = (s: {
  name: string
  line1: string
  town: string
  postcode: string
  custom?: Record<string, string>
}) => searchKey([s.name, s.line1, s.town, s.postcode, ...Object.values(s.custom ?? {})].join(' '))
