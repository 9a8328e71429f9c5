// What other subjects may write of customers; whatever else is written here, is by its own commands.
export { insertFile } from './history.queries'
export { importById, listOfImports, putImport, removeImported } from './imports.queries'
export { customersChanged } from './matching'
export { placeWritten } from './postcodes'
export { nowhere } from './postcodes.queries'
export { insertCustomer, updateRow } from './queries'
