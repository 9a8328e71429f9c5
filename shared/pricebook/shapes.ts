// What several routes of the price book speak of.
import { ENTRY_KINDS } from '../../core/pricebook/kinds'
import {
  date,
  decimal,
  flag,
  id,
  int,
  list,
  money,
  requiredText,
  obj,
  oneOf,
  quantity,
  text,
  definedText,
} from '../schema'

const entryShape = {
  id: id().required(),
  code: definedText(),
  kind: oneOf(ENTRY_KINDS).required(),
  category: definedText(),
  name: definedText(),
  synonyms: definedText(255),
  parts: definedText(2000),
  unit: definedText(),
  price: definedText(),
  furtherPrice: definedText().nullable(),
  cost: definedText().nullable(),
  /** what its hours cost us, besides what is bought for it */ labourCost: definedText().nullable(),
  taxClass: definedText(),
  seconds: int().required(),
  furtherSeconds: int().required(),
  skills: list(definedText()),
  pinned: flag().required(),
  agreementSaving: money().required(),
}
export const entry = obj(entryShape)
/** An entry as the browser searches it: with how often it was sold of late, and its picture. */
export const found = obj({
  ...entryShape,
  pricing: definedText(),
  used: int().required(),
  lastSold: date().nullable().defined(),
  pictureId: id().nullable().defined(),
})
const reason = obj({ code: definedText(), text: definedText(300), amount: definedText() })
export const why = obj({
  price: definedText(),
  reasons: list(reason),
  hour: definedText().nullable(),
})
export const priceSet = obj({
  cost: definedText().nullable(),
  price: definedText(),
  furtherPrice: definedText().nullable(),
  pricing: definedText(),
})
export const facts = {
  code: requiredText('Give it a code of its own.', 24),
  kind: oneOf(ENTRY_KINDS).required(),
  category: requiredText('Say which category it stands in.', 120),
  name: requiredText('Give it a name.', 160),
  description: text(2000).default(''),
  technicianNote: text(2000).default(''),
  synonyms: text(255).default(''),
  unit: text(16).default('each'),
  taxClass: requiredText('Choose how it is taxed.', 20),
  seconds: int(0, 360_000).default(0),
  furtherSeconds: int(0, 360_000).default(0),
  skills: list(text(60).min(1).defined()).max(30).default([]),
  pinned: flag().default(false),
  labourId: id().nullable().default(null),
  sundriesRate: decimal().nullable().default(null),
  supplier: text(80).default(''),
  partNumber: text(60).default(''),
  incomeCode: text(24).default(''),
  activeFrom: date().nullable().default(null),
  activeTo: date().nullable().default(null),
  retired: flag().default(false),
}
export const MONEY = 'Write the amount as a number, for example 100.00.'
export const wanted = {
  pricing: oneOf(['rule', 'fixed'] as const).required(),
  cost: decimal(MONEY).default('0'),
  price: decimal(MONEY).default('0'),
  furtherPrice: decimal(MONEY).nullable().default(null),
}
export const inside = list(obj({ partId: id().required(), quantity: quantity().required() }))
  .max(100)
  .default([])
/** What it costs us: what is bought for it, and its hours. */
export const costs = obj({ material: definedText(), labour: definedText() })
export const actual = obj({
  of: int().required(),
  medianSeconds: int().required(),
  fromSeconds: int().required(),
  toSeconds: int().required(),
  quotedSeconds: int().required(),
  proposedSeconds: int().nullable().defined(),
})
