export type { LoopState } from './isolation'
export type { Pair } from './loop'
