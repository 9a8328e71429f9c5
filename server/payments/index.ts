// What other subjects may write of payments; whatever else is written here, is by its own commands.
export { insertCredits, removeCredits } from './brought.queries'
