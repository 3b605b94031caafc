/** Grades of level and quality as the trade says them, and beside them what noise alone allows. */
import { sure } from '../sure'
import { noisePerElementDbm } from './levels'

export const GRADE_IDS = ['very good', 'good', 'weak', 'poor', 'marginal'] as const
export type GradeId = (typeof GRADE_IDS)[number]

export interface Grade {
  id: GradeId
  /** lowest figure that has this grade */
  from: number
  /** 5 for the best, 1 for the worst: how many bars of a scale are filled */
  steps: number
}

/** Lower edges of the four upper grades. */
export type GradeEdges = readonly [number, number, number, number]

/** RSRP, dBm. @source the trade's scale, common practice (no source) */
export const RSRP_EDGES: GradeEdges = [-80, -90, -100, -110]
/** SINR, dB. @source the trade's scale, common practice (no source) */
export const SINR_EDGES: GradeEdges = [20, 13, 5, 0]

export const gradesOf = (edges: GradeEdges): Grade[] =>
  GRADE_IDS.map((id, i) => ({ id, from: edges[i] ?? -Infinity, steps: GRADE_IDS.length - i }))

const find = (value: number, edges: GradeEdges): Grade => sure(gradesOf(edges).find(g => value >= g.from))

/** @param edges  the crew's or the job's own, else the trade's */
export const gradeRsrp = (rsrpDbm: number, edges: GradeEdges = RSRP_EDGES): Grade => find(rsrpDbm, edges)
export const gradeSinr = (sinrDb: number, edges: GradeEdges = SINR_EDGES): Grade => find(sinrDb, edges)

/**
 * What noise alone would leave of SINR at a level, dB: the floor of what can work, whatever the grade is called.
 * @source −174 dBm/Hz, 15 kHz, NF 9 dB (3GPP TR 36.942) give −123.2 dBm a resource element
 */
export const noiseLimitedSinrDb = (rsrpDbm: number): number => rsrpDbm - noisePerElementDbm()

export const GRADE_SOURCE =
  'the trade’s scale (common practice, no source): RSRP −80, −90, −100, −110 dBm; noise alone would leave 20 dB of SINR at −103, ' +
  '10 at −113, 3 at −120 (NF 9 dB, 3GPP TR 36.942)'

/** RSRP that a room needs on a phone for calls, dBm. @source common practice (no source) */
export const NEED_CALLS_DBM = -105
