export { mastOfReading } from './calibrate'
export { predictedRsrp } from './predict'
export { bearingHalfWidth, cellsByMast, MAST_RADIUS_M, MOST_MASTS, pathInputs } from './bearings'
export type { Evidence, MastView } from './bearings'
