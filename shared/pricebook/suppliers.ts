// Buying from suppliers' catalogues into a work order or a quote.
import { quoteDetail } from '../quotes'
import { workOrder } from '../visits'
import {
  id,
  int,
  list,
  requiredText,
  obj,
  page,
  quantity,
  route,
  text,
  version,
  definedText,
} from '../schema'

export const source = { supplier: text(80).default(''), head: list(text(200).defined()).max(60) }
const product = obj({
  supplierId: definedText(),
  supplier: definedText(),
  partNumber: definedText(),
  name: definedText(),
  category: definedText(),
  unit: definedText(),
  stock: int().required(),
  deliveryDays: int().required(),
  makerNumber: definedText(),
  cost: definedText().nullable(),
  price: definedText(),
  entry: obj({ id: id().required(), code: definedText(), cost: definedText().nullable() })
    .nullable()
    .default(undefined),
})
const basket = list(
  obj({
    id: id().required(),
    supplierId: requiredText('Say which supplier.', 40),
    partNumber: requiredText('Say which part.', 60),
    quantity: quantity(6).required('Write how many.'),
  }),
)
  .min(1, 'Choose something first.')
  .max(50)

export const supplierRoutes = {
  suppliers: route({
    method: 'GET',
    path: '/suppliers',
    may: 'pricebook.search',
    summary: 'Wholesalers that are connected',
    answer: obj({
      items: list(obj({ id: definedText(), name: definedText(), categories: list(definedText()) })),
    }),
  }),
  supplierProducts: route({
    method: 'GET',
    path: '/suppliers/{key}/products',
    may: 'pricebook.search',
    summary: 'A wholesaler’s catalogue, with what we would sell it for',
    query: obj({ q: text(100), category: text(80), limit: int(1, 100), after: text(40) }),
    answer: page(product),
  }),
  compareSuppliers: route({
    method: 'GET',
    path: '/suppliers/compare/{key}',
    may: 'pricebook.search',
    summary: 'The same thing at every wholesaler, the cheapest that has it first',
    answer: obj({ items: list(product) }),
  }),
  addBasket: route({
    method: 'POST',
    path: '/work-orders/{id}/basket',
    may: 'pricebook.buy',
    summary: 'A wholesaler’s basket as lines of a work order, at cost times our markup',
    body: obj({ visitId: id().nullable().default(null), items: basket }),
    answer: workOrder,
  }),
  addQuoteBasket: route({
    method: 'POST',
    path: '/quotes/{id}/basket',
    may: 'pricebook.buy',
    summary: 'A wholesaler’s basket as lines of a draft quote',
    body: obj({ version: version(), items: basket }),
    answer: quoteDetail,
  }),
}
