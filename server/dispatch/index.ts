// What other subjects may write of dispatch; whatever else is written here, is by its own commands.
export { lockPeople } from './queries'
