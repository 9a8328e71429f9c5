import { spawnSync } from 'node:child_process'
import { createHmac } from 'node:crypto'
import { beforeAll, describe, expect, it } from 'vitest'
import { invoiceDocument } from '../../core/invoices/invoiceDocument'
import type { InvoicePaper } from '../../core/invoices/invoicePaper'
import { checkBooks } from '../../server/ledger/checkBooks'
import { transaction } from '../../server/db/pool'
import { startServer } from '../../scripts/lib/rig.mjs'
import { freePort } from '../../scripts/lib/database.mjs'
import {
  base,
  callerNamed,
  Client,
  database,
  id,
  signedIn,
  somethingToBill,
  textOfPdf,
  until,
} from './client'
import { hledgerBalances } from './hledger'

let office: Client
let books: Client
beforeAll(async () => {
  office = await signedIn('office')
  books = await signedIn('books')
})
const clean = async () => (await transaction(checkBooks)).filter((r) => r.wrong.length)

describe('invoices', () => {
  it('gives 20 parallel invoicings 20 consecutive numbers', async () => {
    const work = []
    for (let i = 0; i < 20; i++) work.push(await somethingToBill(office))
    const made = await Promise.all(
      work.map((w) =>
        office.ok('makeInvoice', { params: { id: w.workOrderId }, body: { id: id() } }),
      ),
    )
    const numbers = made.map((m) => Number(m.paper.number.slice(2))).sort((a, b) => a - b)
    expect(numbers).toEqual(Array.from({ length: 20 }, (_, i) => numbers[0]! + i))
    expect(await clean()).toEqual([])
  })
  it('bills a line once: the second attempt finds nothing, added work goes on the next one', async () => {
    const { workOrderId } = await somethingToBill(office)
    const first = await office.ok('makeInvoice', {
      params: { id: workOrderId },
      body: { id: id() },
    })
    expect(
      (await office.send('makeInvoice', { params: { id: workOrderId }, body: { id: id() } })).body
        .code,
    ).toBe('nothing_to_bill')
    await office.ok('addLines', {
      params: { id: workOrderId },
      body: {
        lines: [{ id: id(), name: 'More', kind: 'other', quantity: '2', unitPrice: '5.50' }],
      },
    })
    const second = await office.ok('makeInvoice', {
      params: { id: workOrderId },
      body: { id: id() },
    })
    expect([first.paper.net.amount, second.paper.net.amount]).toEqual(['100.00', '11.00'])
    expect((await office.ok('workOrder', { params: { id: workOrderId } })).totals).toMatchObject({
      done: { amount: '111.00' },
      billed: { amount: '111.00' },
      toBill: { amount: '0.00' },
    })
  })
  it('refuses when the lines changed since they were looked at', async () => {
    const { workOrderId } = await somethingToBill(office)
    expect(
      (
        await office.send('makeInvoice', {
          params: { id: workOrderId },
          body: { id: id(), shownTotal: '1.00' },
        })
      ).body.code,
    ).toBe('price_changed')
  })
  it('is frozen: neither the API nor SQL changes it', async () => {
    const { workOrderId } = await somethingToBill(office)
    const invoice = await office.ok('makeInvoice', {
      params: { id: workOrderId },
      body: { id: id() },
    })
    const line = (await office.ok('workOrder', { params: { id: workOrderId } })).lines[0]!
    expect(
      (
        await office.send('changeLine', {
          params: { id: line.id },
          body: { version: line.version, unitPrice: '1' },
        })
      ).body.code,
    ).toBe('billed')
    const db = await database()
    await expect(
      db.execute('UPDATE invoices SET total_minor = 1 WHERE id = ?', [invoice.id]),
    ).rejects.toThrow(/frozen/)
    await expect(db.query('UPDATE ledger_postings SET amount_minor = 1 LIMIT 1')).rejects.toThrow(
      /append-only/,
    )
    await expect(db.query('DELETE FROM trail LIMIT 1')).rejects.toThrow(/append-only/)
    await db.end()
  })
  it('charges no tax to the exempt school, and tax by class to others', async () => {
    const school = await callerNamed(office, 'tarn view school')
    const workOrderId = id()
    await office.ok('bookCall', {
      params: { id: id() },
      body: {
        workOrderId,
        visitId: id(),
        customerId: school.customerId,
        siteId: school.sites[0]!.id,
        problem: 'x',
      },
    })
    await office.ok('addLines', {
      params: { id: workOrderId },
      body: { lines: [{ id: id(), name: 'Part', kind: 'other', quantity: '1', unitPrice: '200' }] },
    })
    expect((await office.ok('workOrder', { params: { id: workOrderId } })).price).toMatchObject({
      tax: { amount: '0.00' },
      total: { amount: '200.00' },
    })
    const other = await somethingToBill(office, '200')
    expect(
      (await office.ok('workOrder', { params: { id: other.workOrderId } })).price.taxes.map(
        (t) => t.tax.amount,
      ),
    ).toEqual(['8.00', '5.00'])
  })
  it('leaves all or nothing when the app is killed in the middle of invoicing', async () => {
    const work: { workOrderId: string }[] = []
    for (let i = 0; i < 24; i++) work.push(await somethingToBill(office))
    const port = String(await freePort())
    const victim = await startServer({ ...process.env, PORT: port, NITRO_PORT: port })
    let answered = 0
    const asked = work.map((w) =>
      fetch(`http://127.0.0.1:${port}/api/v1/work-orders/${w.workOrderId}/invoice`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json', cookie: office.cookie },
        body: JSON.stringify({ id: id() }),
      }).then(
        (r) => {
          if (r.ok && ++answered === 5) victim.kill('SIGKILL')
          return r.ok
        },
        () => false,
      ),
    )
    await Promise.all(asked)
    expect(answered).toBeGreaterThanOrEqual(5)
    const db = await database()
    for (const { workOrderId } of work) {
      const [[row]] = (await db.execute(
        `SELECT COUNT(DISTINCT i.id) AS invoices, COUNT(DISTINCT l.id) AS linesN, COUNT(DISTINCT e.id) AS entries FROM invoices i LEFT JOIN invoice_lines l ON l.invoice_id = i.id LEFT JOIN ledger_entries e ON e.source_id = i.id AND e.kind = 'invoice' WHERE i.work_order_id = ?`,
        [workOrderId],
      )) as unknown as [[{ invoices: number; linesN: number; entries: number }]]
      expect([
        [0, 0, 0],
        [1, 1, 1],
      ]).toContainEqual([row.invoices, row.linesN, row.entries])
    }
    await db.end()
    expect(await clean()).toEqual([])
  })
})
describe('payments', () => {
  const invoiced = async () => {
    const w = await somethingToBill(office, '520.05')
    return {
      ...w,
      invoice: await office.ok('makeInvoice', {
        params: { id: w.workOrderId },
        body: { id: id() },
      }),
    }
  }
  it('takes cash 100.00 and a cheque for the rest', async () => {
    const { invoice, customerId } = await invoiced()
    const cash = await books.ok('pay', {
      body: { id: id(), customerId, method: 'cash', amount: '100.00', invoiceIds: [invoice.id] },
    })
    const rest = cash.applied[0]!.open.amount
    const cheque = await books.ok('pay', {
      body: {
        id: id(),
        customerId,
        method: 'cheque',
        amount: rest,
        reference: '1182',
        invoiceIds: [invoice.id],
      },
    })
    expect(Number(rest) + 100).toBeCloseTo(Number(invoice.paper.total.amount), 2)
    expect(cheque.applied[0]!.open.amount).toBe('0.00')
    expect((await books.ok('invoice', { params: { id: invoice.id } })).state).toBe('paid')
    expect(await clean()).toEqual([])
  })
  it('makes one payment of two requests with one key, at once or later', async () => {
    const { invoice, customerId } = await invoiced()
    const key = `key-${id()}`
    const body = { id: id(), customerId, method: 'cash', amount: '10.00', invoiceIds: [invoice.id] }
    const [a, b] = await Promise.all([
      books.send('pay', { body, key }),
      books.send('pay', { body, key }),
    ])
    const c = await books.send('pay', { body, key })
    expect([a.status, b.status, c.status]).toEqual([200, 200, 200])
    expect(new Set([a.body.number, b.body.number, c.body.number]).size).toBe(1)
    expect((await books.ok('invoice', { params: { id: invoice.id } })).payments).toHaveLength(1)
    expect((await books.send('pay', { body: { ...body, amount: '11.00' }, key })).body.code).toBe(
      'key_reused',
    )
  })
  it('keeps what is too much as a credit, apart in the ageing', async () => {
    const { invoice, customerId } = await invoiced()
    const before = Number((await books.ok('unpaid')).totals.credits.amount)
    const paid = await books.ok('pay', {
      body: {
        id: id(),
        customerId,
        method: 'transfer',
        amount: (Number(invoice.paper.total.amount) + 25).toFixed(2),
        invoiceIds: [invoice.id],
        mayLeaveCredit: true,
      },
    })
    expect(paid.left.amount).toBe('25.00')
    const after = await books.ok('unpaid')
    expect(Number(after.totals.credits.amount) - before).toBeCloseTo(25, 2)
    expect(after.agrees).toBe(true)
  })
  it('opens the invoice again when a cheque comes back', async () => {
    const { invoice, customerId } = await invoiced()
    const paid = await books.ok('pay', {
      body: {
        id: id(),
        customerId,
        method: 'cheque',
        reference: '77',
        amount: invoice.paper.total.amount,
        invoiceIds: [invoice.id],
      },
    })
    await books.ok('takeBack', {
      params: { id: paid.id },
      body: { why: 'returned', reason: 'no money' },
    })
    expect(await books.ok('invoice', { params: { id: invoice.id } })).toMatchObject({
      open: invoice.paper.total,
      payments: [{ takenBack: 'returned' }],
    })
    expect(
      (
        await books.send('takeBack', {
          params: { id: paid.id },
          body: { why: 'returned', reason: 'again' },
        })
      ).status,
    ).toBe(409)
    expect(await clean()).toEqual([])
  })
  it.each([
    ['amount', { amount: '0' }],
    ['amount', { amount: '1.005' }],
    ['amount', { amount: 'ten' }],
    ['reference', { method: 'cheque', amount: '5' }],
    ['receivedOn', { receivedOn: '2027-01-01', amount: '5' }],
  ])('says at %s what is wrong with %j', async (path, wrong) => {
    const { customerId } = await invoiced()
    const reply = await books.send('pay', {
      body: { id: id(), customerId, method: 'cash', ...wrong },
    })
    expect([reply.status, reply.body.errors?.[0]?.path]).toEqual([422, path])
  })
  it('believes the card terminal only when it signs, and books its word once', async () => {
    const { invoice } = await invoiced()
    const unsigned = await new Client().send('cardResult', {
      body: { chargeId: id(), state: 'approved', amount: '1.00', at: 1 },
    })
    expect([unsigned.status, unsigned.body.code]).toEqual([401, 'bad_signature'])
    const token = invoice.link.split('/i/')[1]!
    const { url } = await new Client().ok('payByCard', { params: { token } })
    const pay = (number: string) =>
      fetch(url, {
        method: 'POST',
        redirect: 'manual',
        headers: { 'Content-Type': 'application/x-www-form-urlencoded' },
        body: `number=${number}`,
      })
    expect((await pay('9000000000000019')).headers.get('location')).toContain('card=approved')
    await pay('9000000000000019')
    const paid = await books.ok('invoice', { params: { id: invoice.id } })
    expect([paid.state, paid.payments.length]).toEqual(['paid', 1])
    const db = await database()
    const [rows] = (await db.query(
      "SELECT 1 FROM card_charges WHERE terminal_reference LIKE '%9000000000000019%'",
    )) as unknown as [unknown[]]
    expect(rows).toEqual([])
    await db.end()
  })
  it('leaves a declined card without a payment', async () => {
    const { invoice } = await invoiced()
    const { url } = await new Client().ok('payByCard', {
      params: { token: invoice.link.split('/i/')[1]! },
    })
    const reply = await fetch(url, {
      method: 'POST',
      redirect: 'manual',
      headers: { 'Content-Type': 'application/x-www-form-urlencoded' },
      body: 'number=9000000000000027',
    })
    expect(reply.headers.get('location')).toContain('card=declined')
    expect((await books.ok('invoice', { params: { id: invoice.id } })).payments).toEqual([])
    // Another card on the same page: what the terminal says then counts, once.
    const text = JSON.stringify({
      chargeId: new URL(url).pathname.split('/').at(-1),
      state: 'approved',
      amount: invoice.open.amount,
      reference: 'another card',
      at: Math.floor(Date.now() / 1000),
    })
    const tell = () => {
      const t = Math.floor(Date.now() / 1000)
      return new Client().raw('POST', '/api/v1/webhooks/card', text, {
        'X-Signature': `t=${t},v=${createHmac('sha256', process.env.CARD_SECRET!).update(`${t}.`).update(text).digest('hex')}`,
      })
    }
    expect([(await tell()).status, (await tell()).status]).toEqual([200, 200])
    expect(await books.ok('invoice', { params: { id: invoice.id } })).toMatchObject({
      state: 'paid',
      payments: [{ method: 'card' }],
    })
  })
})
describe('the ledger', () => {
  it('opens in hledger, which comes to the same balances', async () => {
    const theirs = await hledgerBalances(await signedIn('owner'))
    const db = await database()
    const [ours] = (await db.query(
      'SELECT account, CAST(SUM(amount_minor) AS SIGNED) AS sum FROM ledger_postings GROUP BY account HAVING sum <> 0',
    )) as unknown as [{ account: string; sum: number }[]]
    await db.end()
    const { ACCOUNTS } = await import('../../core/ledger/accounts')
    expect(theirs).toEqual(
      Object.fromEntries(
        ours.map((o) => [ACCOUNTS[o.account as keyof typeof ACCOUNTS].name, Number(o.sum)]),
      ),
    )
    const owed = await books.ok('unpaid')
    expect(theirs['Assets:Receivable']).toBe(
      Math.round((Number(owed.totals.owed.amount) + Number(owed.totals.credits.amount)) * 100),
    )
  })
  it('is found out when a posting is tampered with', async () => {
    expect(await clean()).toEqual([])
    const db = await database()
    const [[posting]] = (await db.query(
      "SELECT id, amount_minor AS amount FROM ledger_postings WHERE account = 'receivable' AND amount_minor > 0 LIMIT 1",
    )) as unknown as [[{ id: number; amount: number }]]
    const trigger =
      "CREATE TRIGGER ledger_postings_keep BEFORE UPDATE ON ledger_postings FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'the ledger is append-only'"
    await db.query('DROP TRIGGER ledger_postings_keep')
    await db.execute('UPDATE ledger_postings SET amount_minor = amount_minor + 1 WHERE id = ?', [
      posting.id,
    ])
    const command = spawnSync(process.execPath, ['--import', 'tsx', 'scripts/check-books.ts'], {
      encoding: 'utf8',
      env: process.env,
    })
    await db.execute('UPDATE ledger_postings SET amount_minor = ? WHERE id = ?', [
      posting.amount,
      posting.id,
    ])
    await db.query(trigger)
    await db.end()
    expect(command.status).toBe(1)
    expect(command.stdout).toMatch(/WRONG every entry balances/)
    expect(command.stdout).toMatch(/WRONG receivables of each customer/)
    expect(await clean()).toEqual([])
  })
  it('agrees with the ageing on any past date', async () => {
    for (const on of ['2026-09-30', '2026-10-31', '2026-11-15', '2026-11-24'])
      expect((await books.ok('unpaid', { query: { on } })).agrees, on).toBe(true)
  })
})
describe('an invoice wherever it is read', () => {
  /** How it is drawn, and what numbers its pages. */
  const UNSAID = new Set(['locale', 'size', 'colour', 'foot', 'key'])
  /** Each text of a document, with its place, except of what is empty. */
  function textsOf(value: unknown): string[] {
    if (typeof value === 'string') return value ? [value] : []
    if (typeof value !== 'object' || value === null) return []
    return Object.entries(value).flatMap(([key, part]) => (UNSAID.has(key) ? [] : textsOf(part)))
  }
  const words = (text: string) => text.split(/\s+/).filter(Boolean)
  /** What a page of HTML says, without its scripts. */
  const said = (html: string) =>
    html
      .replace(/<(script|style)[\s\S]*?<\/\1>/g, '')
      .replace(/<[^>]+>/g, ' ')
      .replaceAll('&amp;', '&')
      .replaceAll('&#39;', "'")
      .replaceAll('&quot;', '"')
  /** The words of the document that a surface does not say. */
  const missing = (document: object, surface: string) => {
    const there = new Set(words(surface))
    return textsOf(document)
      .flatMap(words)
      .filter((word) => !there.has(word))
  }
  it.each(['open', 'overdue', 'paid'] as const)(
    'says the same on the office’s page, the customer’s page and in its PDF: %s',
    async (state) => {
      const { items } = await office.ok('invoices', { query: { state, limit: '200' } })
      expect(items.length).toBeGreaterThan(0)
      for (const { id: invoiceId } of [items[0]!, items.at(-1)!]) {
        const params = { id: invoiceId }
        const { paper, paid, open, link } = await office.ok('invoice', { params })
        const document = invoiceDocument(paper as InvoicePaper, { paid, open })
        expect(document.lines.length).toBeGreaterThan(0)
        const { bytes } = await office.send('invoicePdf', { params })
        expect(missing(document, textOfPdf(bytes))).toEqual([])
        const page = await fetch(`${base}/i/${link.split('/i/')[1]!}`)
        expect(missing(document, said(await page.text()))).toEqual([])
      }
    },
  )
})
describe('mail', () => {
  interface Mail {
    to: string[]
    raw: string
  }
  const mails = async () =>
    (await (await fetch(`${process.env.MAIL_STANDIN}/mails`)).json()) as Mail[]
  it('leaves after the act, to both addresses, with the PDF attached and the private link', async () => {
    const { workOrderId } = await somethingToBill(office)
    const to = [`a-${id()}@example.com`, `b-${id()}@example.com`]
    const invoice = await office.ok('makeInvoice', {
      params: { id: workOrderId },
      body: { id: id(), to, body: 'Thank you.\n\n{link}' },
    })
    const mail = await until(async () => (await mails()).find((m) => m.to.includes(to[0]!)))
    expect(mail.to).toEqual(to)
    expect(mail.raw.replace(/=\r?\n/g, '')).toContain('/i/')
    const pdf = Buffer.from(
      /filename=.*?\.pdf[\s\S]*?\r?\n\r?\n([\w+/=\r\n]+)/.exec(mail.raw)![1]!.replace(/\s/g, ''),
      'base64',
    )
    const text = textOfPdf(pdf)
    for (const part of [
      invoice.paper.number,
      'Otterfall Pump & Water',
      invoice.paper.total.amount,
      'Lowfold Farm',
    ])
      expect(text).toContain(part)
    await until(
      async () =>
        (await office.ok('invoice', { params: { id: invoice.id } })).messages[0]?.state ===
        'delivered',
    )
  })
  it('says when an address does not exist, and lets somebody try again', async () => {
    const { workOrderId } = await somethingToBill(office)
    const made = await office.ok('makeInvoice', {
      params: { id: workOrderId },
      body: { id: id(), to: ['bounce@example.com'] },
    })
    const unsent = async () =>
      (await office.ok('invoices', { query: { state: 'unsent', limit: '200' } })).items.map(
        (i) => i.id,
      )
    const failed = await until(async () =>
      (await office.ok('messages', { query: { q: 'bounce@' } })).items.find(
        (m) => m.state === 'failed',
      ),
    )
    expect(failed.error).toMatch(/No such mailbox/)
    // What did not arrive is found as such: the mail, and the invoice that counts as sent.
    const mails = await office.ok('messages', { query: { state: 'failed', limit: '200' } })
    expect(mails.items.map((m) => m.id)).toContain(failed.id)
    expect(new Set(mails.items.map((m) => m.state))).toEqual(new Set(['failed']))
    expect(await unsent()).toContain(made.id)
    expect((await books.send('retryMessage', { params: { id: failed.id } })).status).toBe(200)
    await office.ok('sendInvoice', {
      params: { id: made.id },
      body: { to: [`c-${id()}@example.com`] },
    })
    await until(async () => !(await unsent()).includes(made.id))
    // What was made to be sent later is among them, too.
    const later = await somethingToBill(office)
    const kept = await office.ok('makeInvoice', {
      params: { id: later.workOrderId },
      body: { id: id(), to: [] },
    })
    expect(await unsent()).toContain(kept.id)
  })
  it('counts as opened when the customer opens the page', async () => {
    const { workOrderId } = await somethingToBill(office)
    const invoice = await office.ok('makeInvoice', {
      params: { id: workOrderId },
      body: { id: id(), to: [`c-${id()}@example.com`] },
    })
    // A program that follows the link, as mail scanners do, opens nothing; the page of a person says that it is looked at.
    expect((await fetch(invoice.link)).status).toBe(200)
    const openedAt = async () =>
      (await office.ok('invoice', { params: { id: invoice.id } })).messages[0]!.openedAt
    expect(await openedAt()).toBeNull()
    await new Client().ok('seenInvoice', { params: { token: invoice.link.split('/i/')[1]! } })
    expect(await openedAt()).not.toBeNull()
  })
})
