// The sender: takes waiting mails one by one, hands them to the mail server as to any server, backs off when it refuses.
import nodemailer, { type Transporter } from 'nodemailer'
import { toMoney } from '../../core/money/formatMinor'
import { inContext } from '../http/context'
import { log } from '../http/log'
import { record } from '../http/queries'
import { readFont } from '../documents/fonts'
import { invoicePdf } from '../invoices/pdf'
import { invoiceById } from '../invoices/queries'
import { quotePdf, type QuoteDrawing } from '../quotes/pdf'
import { quoteById } from '../quotes/queries'
import { linkToken } from '../access/session'
import { markDelivered, markTried, nextMessage } from './queries'

const MOST = 6
let running = false
let again = false

/** Says that something may be waiting. */
export function poke(): void {
  if (!process.env.SMTP_URL) return
  if (running) {
    again = true
    return
  }
  running = true
  void drain().catch(error => log.error({ err: (error as Error).message }, 'sender')).finally(() => {
    running = false
    if (again) {
      again = false
      poke()
    }
  })
}
async function drain(): Promise<void> {
  const transport = nodemailer.createTransport(process.env.SMTP_URL!)
  try {
    while (await sendOne(transport)) { /* until nothing waits */ }
  }
  finally {
    transport.close()
  }
}
async function sendOne(transport: Transporter): Promise<boolean> {
  return inContext({ actor: null, ip: '' }, async (ctx) => {
    const mail = await nextMessage(ctx.tx, ctx.now)
    if (!mail) return false
    try {
      const invoice = mail.invoiceId ? await invoiceById(ctx.tx, mail.invoiceId) : null
      const link = invoice ? `${process.env.PUBLIC_URL ?? ''}/i/${linkToken('invoice', invoice.id)}` : ''
      const quote = mail.quoteId ? await quoteById(ctx.tx, mail.quoteId) : null
      const papers = mail.attach === 'invoice' && invoice ? [{ filename: `${invoice.number}.pdf`, content: await invoicePdf(invoice.paper, toMoney(invoice.paid, invoice.currency), toMoney(invoice.open, invoice.currency), readFont) }]
        : mail.attach === 'quote' && quote?.frozen ? [{ filename: `${quote.number}.pdf`, content: await quotePdf(quote.frozen as QuoteDrawing, readFont) }] : []
      await transport.sendMail({
        // The identifier makes a second delivery after a crash recognisable as the same mail.
        messageId: `<${mail.id}@open-ledger>`, from: { name: ctx.company.name, address: ctx.company.email || 'office@localhost' }, to: mail.recipients, subject: mail.subject, text: mail.body.replaceAll('{link}', link),
        attachments: papers,
      })
      await markDelivered(ctx.tx, mail.id, ctx.now)
      await record(ctx, { subject: 'message', id: mail.id, customerId: mail.customerId, text: `Mail “${mail.subject}” delivered to the mail server` })
    }
    catch (error) {
      const attempts = mail.attempts + 1
      const code = (error as { responseCode?: number }).responseCode ?? 0
      await markTried(ctx.tx, mail.id, ctx.now + 30_000 * 2 ** attempts, (error as Error).message, attempts >= MOST || code >= 550)
      await record(ctx, { subject: 'message', id: mail.id, customerId: mail.customerId, text: `Mail “${mail.subject}” was not taken by the mail server` })
    }
    return true
  })
}
