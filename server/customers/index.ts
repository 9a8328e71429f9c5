// What other subjects may write of customers; whatever else is written here, is by its own commands.
export { insertFile } from './history.queries'
export { updateRow } from './queries'
