export { BEHIND_SAYS } from './behind'
export { bitFor } from './ducts'
export { branchSteps, joinSteps, looseSteps, removeSteps, swapSteps } from './edits'
export { layingOf, pulledFrom, pullingOrder } from './laying'
export { cableLength, neededM, stockLengthM } from './lengths'
export type { CableLength } from './lengths'
export {
  carriedBy,
  gustOf,
  heightWords,
  isScrewed,
  metalsOf,
  mountKind,
  mountsFor,
  screwsHold,
  standing,
  USUAL_GUST_MS,
} from './mounts'
export { entering, entryPoint, passersOf } from './passage'
export { cableLabels, labelsCsv, PICK_GROUPS, pickList, pickListCsv } from './pick-list'
export type { PickGroup, PickRow } from './pick-list'
export { isRaised } from './raising'
export { screwOn } from './splice'
export type { Step } from './splice'
export { guessedCorners, outsideOf } from './surge'
export { antennasByRule, kitChanges } from './usual-kit'
export type { Kit, PartChoice } from './usual-kit'
export { copyDesign } from './variants'
export { MOST_TURNED_DEG, nextCorner, wayThrough } from './way'
export { waysIn } from './ways-in'
export type { RankedWay } from './ways-in'
export { LEAD_BESIDE_SOURCE_MM, MOST_DROP, SOURCE_V } from './wire'
