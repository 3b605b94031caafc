export { BEHIND_SAYS } from './behind'
export { bitFor } from './ducts'
export { layingOf, pulledFrom, pullingOrder } from './laying'
export {
  carriedBy,
  gustOf,
  heightWords,
  isScrewed,
  metalsOf,
  mountKind,
  mountsFor,
  poleOf,
  screwsHold,
  standing,
  USUAL_GUST_MS,
} from './mounts'
export { entering, entryPoint, passersOf } from './passage'
export { cableLabels, labelsCsv, PICK_GROUPS, pickList, pickListCsv } from './pick-list'
export type { PickGroup, PickRow } from './pick-list'
export { isRaised } from './raising'
export { guessedCorners, outsideOf } from './surge'
export { waysIn } from './ways-in'
export type { RankedWay } from './ways-in'
