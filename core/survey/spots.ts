/** What the readings at each spot come to. */
import type { Summary } from './stats'
import { looksCapped, summarise } from './stats'
import { gradeRsrp } from '../radio/grades'
import type { Grade, GradeEdges } from '../radio/grades'
import type { JobDocument, Reading, Spot, SpeedRun } from '../job/schema'
import { standing } from '../job/changes'
import { ofStop } from './place'

export type Phase = 'before' | 'after'

export interface SpotSummary {
  spot: Spot
  phase: Phase
  readings: Reading[]
  runs: SpeedRun[]
  bands: string[]
  rsrp: Summary | null
  rsrq: Summary | null
  sinr: Summary | null
  down: Summary | null
  up: Summary | null
  ping: Summary | null
  /** runs that did not load at all; they count as 0 Mbit/s in the medians */
  wouldNotLoad: number
  grade: Grade | null
}

export interface LogIndex {
  readings: Reading[]
  runs: SpeedRun[]
  /** the job's own edges of the grades of RSRP; undefined for the trade's */
  edges?: GradeEdges
}

/** Readings and runs that stand, of the present place: what was read at another stop says nothing here. Worked out once per assessment. */
export const logIndex = (doc: JobDocument): LogIndex => ({
  readings: standing(ofStop(doc, doc.readings)),
  runs: standing(ofStop(doc, doc.speedRuns)),
  edges: (doc.jobs[0]?.rsrpEdges as unknown as GradeEdges | null) ?? undefined,
})

/** @param band  only readings of this band, or of all where left out */
export function summariseSpot(log: LogIndex, spot: Spot, phase: Phase, band?: string): SpotSummary {
  const readings = log.readings.filter(r => r.spotId === spot.id && r.phase === phase && (!band || r.band === band))
  const runs = log.runs.filter(r => r.spotId === spot.id && r.phase === phase)
  const rsrp = summarise(readings.map(r => r.rsrpDbm))
  return {
    spot,
    phase,
    readings,
    runs,
    bands: [...new Set(readings.map(r => r.band).filter((b): b is string => !!b))],
    rsrp,
    rsrq: summarise(readings.map(r => r.rsrqDb)),
    sinr: summarise(readings.map(r => r.sinrDb)),
    down: summarise(runs.map(r => (r.wouldNotLoad ? 0 : r.downMbps))),
    up: summarise(runs.map(r => (r.wouldNotLoad ? 0 : r.upMbps))),
    ping: summarise(runs.map(r => r.pingMs)),
    wouldNotLoad: runs.filter(r => r.wouldNotLoad).length,
    grade: rsrp ? gradeRsrp(rsrp.median, log.edges) : null,
  }
}

export const summariseAll = (doc: JobDocument, log: LogIndex, phase: Phase): SpotSummary[] =>
  doc.spots.map(s => summariseSpot(log, s, phase))

/** @returns the cap, Mbit/s, that the plan's speeds look like, over the whole job */
export function capSuspected(log: LogIndex): number | null {
  const ran = log.runs.filter(r => !r.wouldNotLoad)
  return looksCapped(
    ran.flatMap(r => r.downMbps ?? []),
    ran.flatMap(r => r.upMbps ?? []),
  )
}
