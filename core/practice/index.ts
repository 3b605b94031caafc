export { endless, EXERCISES, lampsOf, practiceLevel, reachable, scoreAim } from './practice'
export type { Exercise, Score } from './practice'
export { layoutBooster, layoutCorridor, layoutSkylinePractice } from './practice-drawings'
export {
  corridorLevels,
  endlessKit,
  HOUSE,
  KIT_EXERCISES,
  PADS,
  scoreBooster,
  scoreSkyline,
  scoreTree,
  switchBooster,
  TAPS_DB,
} from './practice-kit'
export type { BoosterPut, BoosterSwitched, KitExercise, KitScore } from './practice-kit'
