// What other subjects may write of calls; whatever else is written here, is by its own commands.
export { keepCall, lockCompany, markCall } from './queries'
