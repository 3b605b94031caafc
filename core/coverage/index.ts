export type { FloorCoverage } from './floor'
export { ENOUGH } from './places'
