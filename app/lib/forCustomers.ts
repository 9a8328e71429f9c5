/** Pages that a customer opens, who signs in nowhere. */
export const isForCustomers = (path: string): boolean =>
  path.startsWith('/i/') || path.startsWith('/q/') || path === '/request'
