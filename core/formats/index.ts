export { answerTo, LineCutter, readAnswer, readFinal, unknownState } from './at'
export type { Final, ModemState } from './at'
export { parseImei, parseMac, readBarCodes } from './box-label'
export { asNegative, csvLine, guessDelimiter, markStrays, parseNumber, recordCuts, STRAY_MARK } from './csv'
export { headerSignature, lackingFields, looksSwapped, MAST_FIELDS, proposeMapping, proposeRules } from './mast-columns'
export type { MastField, MastRules } from './mast-columns'
export { channelMeans, readMastRow } from './mast-csv'
export type { MastRow } from './mast-csv'
export { readNmea, sayNmea } from './nmea'
export { readPart, writeParts } from './part-csv'
export { readPattern } from './pattern-csv'
export type { MeasuredPattern } from './pattern-csv'
export { readStatusPage } from './status-page'
export type { PageFigures } from './status-page'
export {
  distanceToFault,
  openEndLossDb,
  readTouchstone,
  returnLossDb,
  SIDE_LOBES_DB,
  throughLossDb,
  vswrFrom,
  worstFault,
} from './touchstone'
export type { NetworkSweep } from './touchstone'
