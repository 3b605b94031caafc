export { heardNow, worldOf } from './world'
export type { World, WorldAntenna } from './world'
