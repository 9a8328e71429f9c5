// What other subjects may write of settings; whatever else is written here, is by its own commands.
export { lockFirm } from './firm.queries'
export { putVisitMessages, setClosesAt, setDrivesOutside } from './queries'
export { layoutFor } from './layouts'
export { hasPeople } from './begin.queries'
export { checkCode, mayBegin } from './begin'
