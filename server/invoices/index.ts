// What other subjects may write of invoices; whatever else is written here, is by its own commands.
export { setPaid } from './queries'
export { insertBrought, removeBrought } from './brought.queries'
export { invoiceLinkHash } from './link'
