export { ATTACH_S, CHECK_BYTES, checkMbMonth, checkWithin, MONTH_DAYS, switchS } from './check'
export {
  CAUSE_WORDS,
  CAUSES,
  clockOf,
  inferCause,
  LONGEST_S,
  REJECTS,
  TELLING,
  TEST_FACTS,
  TESTS,
  USUAL_S,
} from './first-connection'
export type { Cause, Inferred, Seen, Telling, Test } from './first-connection'
export { cardFits, iccidChecks, parseIccid, SIM_MM } from './identity'
export {
  answers,
  BARE_APPLIANCE,
  BARE_CONNECTION,
  BARE_NETWORK,
  begunSteps,
  isConnecting,
  lanesOf,
  lastRank,
  moved,
  STATE_WORDS,
} from './lanes'
export type { Lane } from './lanes'
export { below, lastingMbps, MB_HOUR, mbDayCarried, mbDayOf, monthOf, periodOf, streamGb } from './month'
export type { DayUse, MonthView } from './month'
export { proposeUsage, usageFrom } from './usage'
export type { UsageDayRead, UsageMapping, UsageRead } from './usage'
