/** Pages that a customer opens, who signs in nowhere. */
export const isForCustomers = (path: string): boolean =>
  path.startsWith('/i/') || path.startsWith('/q/') || path === '/request'
/** Pages of people who are about to come in. */
export const isDoor = (path: string): boolean => path.startsWith('/come-in/') || path === '/begin'
