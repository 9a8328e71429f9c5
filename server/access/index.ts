// What other subjects may write of access; whatever else is written here, is by its own commands.
export { closeDoors, putDoor } from './doors.queries'
export { givePassword, insertPerson, putCostRate } from './people.queries'
