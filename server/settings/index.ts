// What other subjects may write of settings; whatever else is written here, is by its own commands.
export { lockSeries } from './numbers.queries'
export { putVisitMessages, setClosesAt, setDrivesOutside } from './queries'
