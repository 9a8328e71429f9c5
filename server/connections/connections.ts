// The outside services: named by the firm, or by the surroundings of the server; tried before anything depends on them.
import { createTransport } from 'nodemailer'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { SECOND } from '../../core/time/units'
import type { Answer, Body } from '../../shared/api'
import { CONNECTION_KINDS } from '../../shared/connections'
import { seal } from '../access/sealed'
import { config, type ConnectionKind } from '../config'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { settingFacts } from '../settings/facts'
import { lockFirm } from '../settings/index'
import { readConnections, SEALED_FOR } from './kept'
import { connectionRows, putConnection, type ConnectionRow } from './queries'
import { sayStatus, sayTrouble } from './trouble'

type Connections = Answer<'connections'>
type Item = Connections['items'][number]
/** An address without who we are there. */
function bare(address: string): { address: string; user: string } {
  if (!URL.canParse(address)) return { address, user: '' }
  const url = new URL(address)
  const user = decodeURIComponent(url.username)
  url.username = ''
  url.password = ''
  return { address: url.href.replace(/\/$/, ''), user }
}
function itemOf(kind: ConnectionKind, row: ConnectionRow | undefined): Item {
  const version = row?.version ?? 0
  if (row && (row.address || row.sealed)) {
    const { address, user, sealed } = row
    return { kind, from: 'here', address, user, hasSecret: sealed !== '', version }
  }
  const { address, secret } = config.surroundingsOf(kind)
  const from = address || secret ? 'surroundings' : 'none'
  const hasSecret = secret !== '' || (URL.canParse(address) && new URL(address).password !== '')
  return { kind, from, ...bare(address), hasSecret, version }
}
export async function connections(ctx: Ctx): Promise<Connections> {
  const rows = await connectionRows(ctx.tx)
  return {
    items: CONNECTION_KINDS.map((kind) =>
      itemOf(
        kind,
        rows.find((row) => row.kind === kind),
      ),
    ),
    positionsTo: `${config.publicUrl}/api/v1/positions`,
  }
}
const LOCAL = ['localhost', '127.0.0.1', '[::1]']
/** Where it is, as it may be written: a secret goes over the net only under TLS. */
function checkAddress(kind: ConnectionKind, address: string): void {
  const url = URL.canParse(address) ? new URL(address) : null
  const example = kind === 'mail' ? 'smtps://mail.example.com:465' : 'https://pay.example.com'
  if (!url) throw invalid('address', `Write the address as ${example}.`)
  if (url.username || url.password)
    throw invalid('address', 'Write user and secret in their own fields.')
  const [plain, sealed] = kind === 'mail' ? ['smtp:', 'smtps:'] : ['http:', 'https:']
  if (url.protocol !== sealed && url.protocol !== plain)
    throw invalid('address', `Write the address as ${example}.`)
  if (kind !== 'mail' && url.protocol === plain && !LOCAL.includes(url.hostname))
    throw invalid('address', 'Only https: what goes there could be read on its way.')
}
const hostOf = (address: string) => (URL.canParse(address) ? new URL(address).host : '')
/** Its secret, sealed: a new one, or the one it had; never the one of another place. */
function sealedOf(old: ConnectionRow | undefined, body: Body<'keepConnection'>): string {
  if (body.secret) return seal(body.secret, `${SEALED_FOR} ${body.kind}`)
  if (!old?.sealed || !body.address) return ''
  const isSame = hostOf(old.address) === hostOf(body.address) && old.user === body.user
  if (!isSame) throw invalid('secret', 'Write the secret again: it would go to another place.')
  return old.sealed
}
export async function keepConnection(ctx: Ctx, body: Body<'keepConnection'>): Promise<Connections> {
  // A row that is not there yet is locked by nobody.
  await lockFirm(ctx.tx)
  const old = (await connectionRows(ctx.tx)).find(({ kind }) => kind === body.kind)
  if ((old?.version ?? 0) !== body.version)
    throw conflict('stale', 'Someone changed this connection in the meantime. Look at it again.')
  const { kind, address, user } = body
  if (address) checkAddress(kind, address)
  else if (kind !== 'positions' && (user || body.secret))
    throw invalid('address', 'Write where it is, too.')
  const sealed = sealedOf(old, body)
  await putConnection(ctx.tx, { kind, address, user, sealed })
  await record(ctx, {
    ...{ subject: 'settings', id: ctx.id() },
    fact: settingFacts.connectionKept({
      kind,
      changes: {
        address: { from: old?.address ?? '', to: address },
        user: { from: old?.user ?? '', to: user },
      },
      newSecret: Boolean(body.secret),
    }),
  })
  return connections(ctx)
}
const WITHIN_MS = 8 * SECOND
async function tryMail(address: string): Promise<void> {
  const limits = { connectionTimeout: WITHIN_MS, greetingTimeout: WITHIN_MS, dnsTimeout: WITHIN_MS }
  const transport = createTransport(address, { ...limits, socketTimeout: WITHIN_MS } as object)
  try {
    await transport.verify()
  } finally {
    transport.close()
  }
}
/** A question of the protocol that changes nothing, whatever the answer is. */
const ASKED: Readonly<Record<'text' | 'card' | 'supplier', string>> = {
  text: '/texts',
  card: '/charges/none',
  supplier: '/suppliers',
}
async function tryHttp(kind: keyof typeof ASKED): Promise<string> {
  const { address, secret } = config.connectionTo(kind)
  const { status } = await fetch(`${address}${ASKED[kind]}`, {
    signal: AbortSignal.timeout(WITHIN_MS),
    redirect: 'manual',
    headers: { Authorization: `Bearer ${secret}` },
  })
  return sayStatus(status, hostOf(address))
}
/** Asks a service whether it is there and knows us. */
export async function tryConnection(named: string): Promise<Answer<'tryConnection'>> {
  const kind = CONNECTION_KINDS.find((one) => one === named)
  if (!kind) throw notFound('service')
  // What was kept a moment ago is what is tried.
  await readConnections()
  const { address, secret } = config.connectionTo(kind)
  if (kind === 'positions')
    return secret
      ? { works: true, said: 'Devices that sign with this secret are believed.' }
      : { works: false, said: 'No secret is set, so that no device is believed.' }
  if (!address) return { works: false, said: 'No address is set.' }
  try {
    const wrong = kind === 'mail' ? (await tryMail(address), '') : await tryHttp(kind)
    return { works: !wrong, said: wrong || `${hostOf(address)} is there, and knows us.` }
  } catch (error) {
    return { works: false, said: sayTrouble(error, hostOf(address)) }
  }
}
