// How papers look and what they say.
import { MAIL_KINDS } from '../core/text/mailWords'
import { PAPER_KINDS } from '../core/documents/paperWords'
import { SIGN_PURPOSE_NAMES } from '../core/visits/signedPaper'
import { layout, layoutShape, letterhead, paperLine, quotePaper } from './documents'
import { paper } from './invoices'
import {
  date,
  definedText,
  flag,
  id,
  int,
  list,
  money,
  obj,
  ok,
  oneOf,
  requiredText,
  route,
  text,
} from './schema'

const layouts = obj({
  items: list(
    obj({
      id: id().required(),
      kind: oneOf(PAPER_KINDS).required(),
      name: definedText(),
      /** what papers of its kind have where nobody says otherwise */
      usual: flag().required(),
      retired: flag().required(),
      version: int().required(),
      layout: layout().required(),
    }),
  ),
})
/** What somebody signed, as it is kept. */
const signed = obj({
  number: definedText(),
  purpose: oneOf(SIGN_PURPOSE_NAMES).required(),
  locale: definedText(),
  currency: definedText(),
  seller: letterhead(),
  buyer: obj({ name: definedText(), address: list(definedText()) }),
  site: definedText(400),
  title: definedText(),
  scope: definedText(4000),
  orderNumber: definedText(),
  lines: list(paperLine().shape({ id: id().required() })),
  net: money().required(),
  taxes: list(obj({ name: definedText(), rate: definedText(), tax: money().required() })),
  total: money().required(),
  exempt: definedText(),
  words: definedText(400),
  signer: obj({ name: definedText(), company: definedText(), role: definedText() }),
  signedOn: date().required(),
  signedAt: definedText(),
  takenBy: definedText(),
})
const mailWords = obj({
  items: list(
    obj({
      kind: oneOf(MAIL_KINDS).required(),
      text: definedText(4000),
      /** as it is where the firm has no words of its own */
      usual: definedText(4000),
      fields: list(definedText()),
    }),
  ),
})
export const layoutRoutes = {
  mailWords: route({
    method: 'GET',
    path: '/set-up/mails',
    may: 'settings.see',
    summary: 'What is written with papers, and in reminders',
    answer: mailWords,
  }),
  keepMailWords: route({
    method: 'POST',
    path: '/set-up/mails',
    may: 'settings.change',
    summary: 'What is written with papers, and in reminders, from now on; nothing for as usual',
    body: obj({
      kind: oneOf(MAIL_KINDS).required('Say which mail it is.'),
      text: text(4000).default(''),
      /** what stood there when it was changed */
      shown: definedText(4000),
    }),
    answer: mailWords,
  }),
  tryMailWords: route({
    method: 'POST',
    path: '/set-up/mails/try',
    may: 'settings.change',
    summary: 'A mail in these words, filled with what is made up, to whoever asks',
    body: obj({
      kind: oneOf(MAIL_KINDS).required('Say which mail it is.'),
      text: requiredText('Write the mail.', 4000),
    }),
    answer: ok,
  }),
  layouts: route({
    method: 'GET',
    path: '/set-up/layouts',
    may: 'settings.see',
    summary: 'How papers look and what they say',
    answer: layouts,
  }),
  layoutNames: route({
    method: 'GET',
    path: '/layouts',
    may: 'visits.see',
    summary: 'The layouts that a paper may be made with',
    answer: obj({
      items: list(
        obj({
          id: id().required(),
          kind: oneOf(PAPER_KINDS).required(),
          name: definedText(),
          usual: flag().required(),
        }),
      ),
    }),
  }),
  keepLayout: route({
    method: 'POST',
    path: '/set-up/layouts',
    may: 'settings.change',
    summary: 'Make a layout, or change one, for papers that are made from then on',
    body: obj({
      id: id().required(),
      /** as it was read; 0 for a new one */
      version: int(0).required(),
      kind: oneOf(PAPER_KINDS).required('Say of which paper it is.'),
      name: requiredText('Name the layout.', 60),
      usual: flag().default(false),
      retired: flag().default(false),
      ...layoutShape(),
    }),
    answer: layouts,
  }),
  layoutExamples: route({
    method: 'GET',
    path: '/set-up/layouts/examples',
    may: 'settings.change',
    summary: 'The last paper of each kind, to see a layout on; none where none was made yet',
    answer: obj({
      quote: quotePaper.nullable().defined(),
      invoice: paper.nullable().defined(),
      signed: signed.nullable().defined(),
    }),
  }),
  layoutPdf: route({
    method: 'GET',
    path: '/set-up/layouts/{id}/example.pdf',
    may: 'settings.change',
    summary: 'A kept layout on the last paper of its kind, as PDF',
    mime: 'application/pdf',
  }),
}
