// What other subjects may write of visits; whatever else is written here, is by its own commands.
export { insertLine } from './lines.queries'
export { insertPhoto } from './papers.queries'
export { setCustom, setDetails } from './queries'
export {
  bumpVisit,
  insertVisit,
  moveVisit,
  setPromise,
  setReminded,
  setTold,
  setVisitState,
} from './visits.queries'
