// What other subjects may write of settings; whatever else is written here, is by its own commands.
export { lockFirm } from './firm.queries'
export { putVisitMessages, putYard, setClosesAt, setDrivesOutside } from './queries'
export { alike, partsOf, refuseOther } from './asShown'
export { isKnown, refuseChanged, stoodBefore, undoes } from './undoes'
export { layoutFor } from './layouts'
export { checkWorkKind, kindsOf } from './workKinds'
export { hasPeople } from './begin.queries'
export { checkCode, mayBegin } from './begin'
