export { angleBetween, normalise360, toRad, turn } from './angles'
export { formatPosition, parseCoordinate, parsePosition } from './coordinates'
export { clockWords, daylightOn } from './daylight'
export { magneticToTrue, trueToMagnetic } from './declination'
export {
  compassToMagnetic,
  deviationFrom,
  deviationOf,
  deviationSeen,
  fitDeviation,
  magneticToCompass,
  MOST_DEVIATION_DEG,
} from './deviation'
export type { CardEntry } from './deviation'
export { direct, inverse } from './geodesic'
export type { Position } from './geodesic'
export { affineFromTies, extentOf, readWorldFile } from './georeference'
export type { Affine } from './georeference'
export { relativeToSun, sunPosition } from './sun'
