// What other subjects may write of agreements; whatever else is written here, is by its own commands.
export { settleYear } from './queries'
