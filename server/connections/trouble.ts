// Why a service cannot be reached, in words for whoever sets it up.

/** Of the network, by the code that Node.js gives it. */
const NETWORK: Readonly<Record<string, (host: string) => string>> = {
  ENOTFOUND: (host) => `There is no computer called ${host}. Look at the address.`,
  EAI_AGAIN: (host) => `The name ${host} cannot be looked up at the moment.`,
  EDNS: (host) => `There is no computer called ${host}. Look at the address.`,
  ECONNREFUSED: (host) => `Nothing answers at ${host}. Look at the port, and whether it runs.`,
  ECONNRESET: (host) => `${host} hung up. It may want TLS, or want none.`,
  ESOCKET: (host) => `${host} does not speak as expected. It may want TLS, or want none.`,
  ETIMEDOUT: (host) => `${host} does not answer in time.`,
  TimeoutError: (host) => `${host} does not answer in time.`,
  EAUTH: (host) => `${host} takes neither this user nor this secret.`,
  EPROTOCOL: (host) => `${host} does not speak as expected.`,
}
const isOfCertificate = (code: string) => /CERT|SELF_SIGNED|UNABLE_TO_VERIFY|ERR_TLS/.test(code)
type Failed = { code?: unknown; name?: unknown; cause?: unknown }

/** @param host as it was named, with its port */
export function sayTrouble(error: unknown, host: string): string {
  const { code, name, cause } = error as Failed
  const inner = (cause ?? {}) as Failed
  // What lies beneath says more.
  for (const found of [inner.code, code, name].map(String)) {
    if (isOfCertificate(found)) return `The certificate of ${host} is not one for it.`
    if (NETWORK[found]) return NETWORK[found](host)
  }
  return `${host} cannot be reached.`
}
/** What an answer says of how we are known there; empty where it is one of our protocol. */
export function sayStatus(status: number, host: string): string {
  if (status === 401 || status === 403) return `${host} does not take this secret.`
  return status >= 500 ? `${host} answers, and says that it is in trouble (${status}).` : ''
}
