export { heardByAir } from './by-air'
export type { FloorCoverage } from './floor'
export { ENOUGH } from './places'
