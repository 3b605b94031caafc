export { landmarksSeen } from './landmarks'
export { bestSpot, hasSettled } from './best'
export { closePair, closeTurns } from './close'
export type { Close } from './close'
export { settledWords } from './difference'
export { BUSY_HOURS, clockAt } from './hours'
export { correctionOf, countUnder, MADE_WITH, movedTo } from './moving'
export type { MadeWith } from './moving'
export {
  atPresentStop,
  landmarksHere,
  moves,
  obstaclesHere,
  positionOf,
  presentStop,
  screensHere,
  toFrame,
  toTrue,
} from './place'
export { hoursWords, rankTried } from './rank'
export type { RankedBy, Tried } from './rank'
export { asPlanned, carriersOf, setUpsOf, setupWords, traitsOf } from './setups'
export type { Made, SetUp } from './setups'
export { logIndex } from './spots'
export type { LogIndex } from './spots'
export { median, NINE_IN_TEN } from './stats'
export { nextStation, oneByOne, stationWords, walkOf } from './walk'
export type { StationState, Turn, Varied } from './walk'
