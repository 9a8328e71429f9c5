// Who is at the other end. Only proxies that are named in OPEN_LEDGER_TRUSTED_PROXIES are believed
// when they say for whom they ask.
import { BlockList, isIP } from 'node:net'
import { getHeader, type H3Event } from 'h3'
import { config } from '../config'

let trusted: { from: string; list: BlockList } | null = null
const familyOf = (address: string): 'ipv4' | 'ipv6' => (isIP(address) === 6 ? 'ipv6' : 'ipv4')

/** Addresses and networks, separated by commas: `127.0.0.1, 10.0.0.0/8`. @throws Error for what is neither */
export function proxyList(text: string): BlockList {
  const list = new BlockList()
  for (const one of text
    .split(',')
    .map((part) => part.trim())
    .filter(Boolean)) {
    const [address = '', bits] = one.split('/')
    if (!isIP(address))
      throw new Error(
        `OPEN_LEDGER_TRUSTED_PROXIES names “${one}”, which is neither an address nor a network.`,
      )
    if (bits === undefined) list.addAddress(address, familyOf(address))
    else list.addSubnet(address, Number(bits), familyOf(address))
  }
  return list
}
function isTrusted(address: string): boolean {
  const from = config.trustedProxies
  if (!from) return false
  if (trusted?.from !== from) trusted = { from, list: proxyList(from) }
  return trusted.list.check(address, familyOf(address))
}
/** IPv4 that arrives on a socket for both is written the plain way. */
const plain = (address: string): string => address.replace(/^::ffff:(?=\d+\.)/, '')

/** The nearest address that is not one of our own proxies. */
export function addressOf(event: H3Event): string {
  let address = plain(event.node.req.socket.remoteAddress ?? '')
  const told = (getHeader(event, 'X-Forwarded-For') ?? '')
    .split(',')
    .map((part) => plain(part.trim()))
    .filter(Boolean)
  while (isTrusted(address)) {
    const next = told.pop()
    if (!next || !isIP(next)) break
    address = next
  }
  return address
}
