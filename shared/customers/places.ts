// Sites, contacts, equipment and files of a customer.
import * as yup from 'yup'
import {
  date,
  flag,
  id,
  int,
  list,
  listQuery,
  mail,
  requiredText,
  obj,
  page,
  route,
  text,
  version,
  definedText,
} from '../schema'
import { customValues } from './shapes'
import { customerDetail } from './customers'

const siteRow = obj({
  id: id().required(),
  customerId: id().required(),
  customer: definedText(),
  name: definedText(),
  line1: definedText(),
  town: definedText(),
  postcode: definedText(),
  territory: definedText(),
  equipment: int().required(),
  accessNote: definedText(400),
})
const siteFields = {
  name: text(120),
  line1: text(160),
  town: text(80),
  postcode: text(16),
  accessNote: text(400),
  /** latitude and longitude; without them it is put in the middle of its postcode or town */
  place: text(80),
  custom: customValues(),
}
const equipmentFields = {
  category: text(60).min(1, 'Write what it is.'),
  make: text(60),
  serial: text(60),
  installedOn: date().nullable(),
  warrantyUntil: date().nullable(),
  nextServiceOn: date().nullable(),
  note: text(200),
}
const contactFields = {
  siteId: id().nullable(),
  name: text(120).min(1, 'Write the name.'),
  role: text(40),
  phone: text(32),
  phone2: text(32),
  email: mail(),
}

const postcodes = obj({
  /** in the table */
  count: int().required(),
  /** sites that stand nowhere, and what is known of where some of them are */
  sitesWithout: int().required(),
  missing: list(definedText()),
})
export const placeRoutes = {
  postcodes: route({
    method: 'GET',
    path: '/postcodes',
    may: 'dispatch.plan',
    summary: 'How many postcodes have a place, and how many sites stand nowhere',
    answer: postcodes,
  }),
  keepPostcodes: route({
    method: 'POST',
    path: '/postcodes',
    may: 'dispatch.setUp',
    summary:
      'A piece of a table of postcodes with their places; a dry run says how many sites it would place',
    maxBytes: 2_000_000,
    body: obj({
      places: list(
        obj({
          postcode: text(16).required('Write the postcode.'),
          town: text(80).default(''),
          lat: yup.number().min(-90).max(90).required(),
          lon: yup.number().min(-180).max(180).required(),
        }),
      ).max(5000),
      dryRun: flag().default(true),
      /** the history says it once for a table, with its last piece */
      last: flag().default(true),
    }),
    answer: obj({ sites: int().required() }),
  }),
  forgetPostcodes: route({
    method: 'POST',
    path: '/postcodes/forget',
    may: 'dispatch.setUp',
    summary: 'Take the table of postcodes away; sites keep their places',
    answer: postcodes,
  }),

  sites: route({
    method: 'GET',
    path: '/sites',
    may: 'customers.see',
    summary: 'Sites, by address',
    query: obj({ ...listQuery, territory: text(80) }),
    answer: page(siteRow),
  }),
  newSite: route({
    method: 'POST',
    path: '/sites',
    may: 'customers.make',
    summary: 'A further site of a customer',
    body: obj({
      id: id().required(),
      customerId: id().required(),
      ...siteFields,
      line1: text(160).default(''),
    }),
    answer: customerDetail,
  }),
  changeSite: route({
    method: 'PATCH',
    path: '/sites/{id}',
    may: 'customers.make',
    summary: 'Change a site',
    body: obj({ version: version(), ...siteFields }),
    answer: customerDetail,
  }),
  newContact: route({
    method: 'POST',
    path: '/contacts',
    may: 'customers.make',
    summary: 'A contact of a customer or of one of its sites',
    body: obj({
      id: id().required(),
      customerId: id().required(),
      ...contactFields,
      name: requiredText('Write the name.', 120),
    }),
    answer: customerDetail,
  }),
  changeContact: route({
    method: 'PATCH',
    path: '/contacts/{id}',
    may: 'customers.make',
    summary: 'Change or take out a contact',
    body: obj({ version: version(), ...contactFields, removed: flag() }),
    answer: customerDetail,
  }),
  newEquipment: route({
    method: 'POST',
    path: '/equipment',
    may: 'customers.make',
    summary: 'Equipment at a site',
    body: obj({
      id: id().required(),
      siteId: id().required(),
      ...equipmentFields,
      category: requiredText('Write what it is.', 60),
    }),
    answer: customerDetail,
  }),
  changeEquipment: route({
    method: 'PATCH',
    path: '/equipment/{id}',
    may: 'customers.make',
    summary: 'Change or take out equipment',
    body: obj({ version: version(), ...equipmentFields, removed: flag() }),
    answer: customerDetail,
  }),
  addFile: route({
    method: 'POST',
    path: '/files',
    may: 'customers.make',
    summary:
      'Keep a picture or document of a customer or a call (JPEG, PNG, WebP or PDF, 5 MB at most)',
    maxBytes: 7_000_000,
    body: obj({
      id: id().required(),
      customerId: id().nullable().default(null),
      callId: id().nullable().default(null),
      name: requiredText('Give it a name.', 160),
      data: requiredText('Choose a file.', 6_900_000),
    }),
    answer: obj({ id: id().required() }),
  }),
  file: route({
    method: 'GET',
    path: '/files/{id}',
    may: 'customers.see',
    summary: 'A picture or document',
    mime: 'application/octet-stream',
  }),
}
