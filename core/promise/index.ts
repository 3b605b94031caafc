export { LEAST_TESTS, sayExpected } from './promise'
export type { Expected, Met } from './promise'
