export { countWords, mostExpected, spanWords, wordsOfDrill } from './drops'
export { linesAt, provenBy } from './proof'
export type { SetupLine } from './proof'
