// One customer of two, and what is forgotten when somebody asks for it.
import * as yup from 'yup'
import {
  id,
  int,
  list,
  money,
  requiredText,
  obj,
  ok,
  route,
  text,
  version,
  definedText,
} from '../schema'
import { customerDetail } from './customers'

const side = obj({
  id: id().required(),
  name: definedText(),
  phone: definedText(),
  email: definedText(),
  place: definedText(400),
  sites: int().required(),
  work: int().required(),
  owed: money().required(),
})

export const mergeRoutes = {
  duplicates: route({
    method: 'GET',
    path: '/duplicates',
    may: 'customers.see',
    summary: 'Pairs of customers that are perhaps one',
    answer: obj({
      items: list(
        obj({
          first: side,
          second: side,
          score: yup.number().required(),
          reasons: list(definedText()),
        }),
      ),
    }),
  }),
  notDuplicates: route({
    method: 'POST',
    path: '/customers/{id}/apart',
    may: 'customers.merge',
    summary: 'Say that two customers are not the same',
    body: obj({ otherId: id().required() }),
    answer: ok,
  }),
  mergePreview: route({
    method: 'GET',
    path: '/customers/{id}/merge',
    may: 'customers.merge',
    summary: 'What merging another customer into this one would move',
    query: obj({ other: id().required('Choose the other customer.') }),
    answer: obj({
      kept: side,
      merged: side,
      fields: list(
        obj({ name: definedText(), kept: definedText(2000), merged: definedText(2000) }),
      ),
      moves: list(obj({ what: definedText(), count: int().required() })),
    }),
  }),
  merge: route({
    method: 'POST',
    path: '/customers/{id}/merge',
    may: 'customers.merge',
    summary: 'Merge another customer into this one; everything moves along',
    body: obj({
      id: id().required(),
      otherId: id().required('Choose the other customer.'),
      take: list(text(40).defined()).default([]),
    }),
    answer: customerDetail,
  }),
  undoMerge: route({
    method: 'POST',
    path: '/merges/{id}/undo',
    may: 'customers.merge',
    summary: 'Take a merge apart again',
    answer: customerDetail,
  }),
  personData: route({
    method: 'GET',
    path: '/customers/{id}/data.json',
    may: 'customers.erase',
    summary: 'Everything that is kept about a customer, for the person it is about',
    mime: 'application/json',
  }),
  erase: route({
    method: 'POST',
    path: '/customers/{id}/erase',
    may: 'customers.erase',
    summary: 'Take a person’s data out; papers that must stay are made anonymous',
    body: obj({
      version: version(),
      name: requiredText('Write the customer’s name to say that you mean it.', 160),
    }),
    answer: ok,
  }),
}
