// The sender: takes waiting messages one by one, hands mails to the mail server and texts to the text service, backs off when they refuse.
import nodemailer, { type Transporter } from 'nodemailer'
import { toMoney } from '../../core/money/formatMinor'
import { inContext, type Ctx } from '../http/context'
import { log } from '../http/log'
import { record } from '../http/queries'
import { readFont } from '../documents/fonts'
import { invoicePdf } from '../invoices/pdf'
import { invoiceById } from '../invoices/queries'
import { quotePdf, type QuoteDrawing } from '../quotes/pdf'
import { quoteById } from '../quotes/queries'
import { linkToken } from '../access/session'
import { writeInvitation } from '../dispatch/calendar'
import { markDelivered, markTried, nextMessage, type MessageRow } from './queries'

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
    const what = mail.channel === 'text' ? 'Text' : `Mail “${mail.subject}”`
    const to = mail.channel === 'text' ? 'text service' : 'mail server'
    try {
      if (mail.channel === 'text') await sendText(mail)
      else await sendMail(ctx, transport, mail)
      await markDelivered(ctx.tx, mail.id, ctx.now)
      await record(ctx, { subject: 'message', id: mail.id, customerId: mail.customerId, text: `${what} delivered to the ${to}` })
    }
    catch (error) {
      const attempts = mail.attempts + 1
      const code = (error as { responseCode?: number }).responseCode ?? 0
      await markTried(ctx.tx, mail.id, ctx.now + 30_000 * 2 ** attempts, (error as Error).message, attempts >= MOST || code >= 550)
      await record(ctx, { subject: 'message', id: mail.id, customerId: mail.customerId, text: `${what} was not taken by the ${to}` })
    }
    return true
  })
}
async function sendMail(ctx: Ctx, transport: Transporter, mail: MessageRow): Promise<void> {
  const invoice = mail.invoiceId ? await invoiceById(ctx.tx, mail.invoiceId) : null
  const link = invoice ? `${process.env.PUBLIC_URL ?? ''}/i/${linkToken('invoice', invoice.id)}` : ''
  const quote = mail.quoteId ? await quoteById(ctx.tx, mail.quoteId) : null
  const papers = mail.attach === 'invoice' && invoice ? [{ filename: `${invoice.number}.pdf`, content: await invoicePdf(invoice.paper, toMoney(invoice.paid, invoice.currency), toMoney(invoice.open, invoice.currency), readFont) }]
    : mail.attach === 'quote' && quote?.frozen ? [{ filename: `${quote.number}.pdf`, content: await quotePdf(quote.frozen as QuoteDrawing, readFont) }] : []
  await transport.sendMail({
    // The identifier makes a second delivery after a crash recognisable as the same mail.
    messageId: `<${mail.id}@open-ledger>`, from: { name: ctx.company.name, address: ctx.company.email || 'office@localhost' }, to: mail.recipients, subject: mail.subject, text: mail.body.replaceAll('{link}', link),
    attachments: papers, ...(mail.attach === 'invitation' && mail.visitId ? { icalEvent: { filename: 'visit.ics', ...await writeInvitation(ctx, mail.visitId, mail.recipients) } } : {}),
  })
}
/** The identifier makes a second delivery recognisable; a number that cannot be reached is not tried again. */
async function sendText(text: MessageRow): Promise<void> {
  if (!process.env.TEXT_URL) throw Object.assign(new Error('no text service is set up (TEXT_URL)'), { responseCode: 550 })
  const response = await fetch(`${process.env.TEXT_URL}/texts`, { method: 'POST', signal: AbortSignal.timeout(10_000), headers: { 'Content-Type': 'application/json', 'Authorization': `Bearer ${process.env.TEXT_SECRET ?? ''}`, 'Idempotency-Key': text.id }, body: JSON.stringify({ id: text.id, to: text.recipients[0], text: text.body }) })
  if (!response.ok) throw Object.assign(new Error(`the text service answered ${response.status}: ${(await response.text()).slice(0, 120)}`), { responseCode: response.status === 422 ? 550 : 0 })
}
