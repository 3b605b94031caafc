export { bandByName, bandFromEntry, BANDS, dlCentreMHz, earfcnToMHz } from './bands'
export { cellAsHex } from './cell-id'
export { GRADE_SOURCE, gradeRsrp, NEED_CALLS_DBM, noiseLimitedSinrDb, RSRP_EDGES, SINR_EDGES } from './grades'
export { degreesForLoss } from './pattern'
