/** What the readings at each spot come to. A median is of one set-up and one band: what differs in these is told apart. */
import type { Summary } from './stats'
import { summarise } from './stats'
import { gradeRsrp } from '../radio/grades'
import type { Grade, GradeEdges } from '../radio/grades'
import type { Call, JobDocument, Reading, Spot, SpeedRun, Watch } from '../job/schema'
import { standing } from '../job/changes'
import { ofStop } from './place'
import { made, setUpsOf } from './setups'
import { usualSpread } from './spread'
import type { Usual } from './spread'
import type { Made, Phase, SetUp } from './setups'

export type { Phase } from './setups'

export interface SpotSummary {
  spot: Spot
  phase: Phase
  /** the set-up that the medians are of, the last one used here in this phase; null where it was never named */
  setup: SetUp | null
  /** the band that level and quality are of; null where none was noted */
  band: string | null
  /** of that set-up and band */
  readings: Made<Reading>[]
  /** speed tests of that set-up */
  runs: Made<SpeedRun>[]
  /** every band read here in this phase, with whatever set-up */
  bands: string[]
  /** set-ups used here in this phase */
  setups: number
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
  readings: Made<Reading>[]
  runs: Made<SpeedRun>[]
  /** tests that went another way than they were meant to: shown, and in no median */
  doubted: Made<SpeedRun>[]
  calls: Made<Call>[]
  watches: Made<Watch>[]
  setups: ReadonlyMap<string, SetUp>
  /** what one reading or test wanders by, of this place's own repeats or assumed */
  usual: Usual
  /** the job's own edges of the grades of RSRP; undefined for the trade's */
  edges?: GradeEdges
}

/** What stands of the log, of the present place: what was read at another stop says nothing here. Worked out once per assessment. */
export function logIndex(doc: JobDocument): LogIndex {
  const setups = setUpsOf(doc)
  const all = made(standing(ofStop(doc, doc.speedRuns)), setups)
  const readings = made(standing(ofStop(doc, doc.readings)), setups)
  const runs = all.filter(r => !r.doubted)
  return {
    readings,
    runs,
    doubted: all.filter(r => r.doubted),
    usual: usualSpread(readings, runs),
    calls: made(standing(ofStop(doc, doc.calls)), setups),
    watches: made(standing(ofStop(doc, doc.watches)), setups),
    setups,
    edges: (doc.jobs[0]?.rsrpEdges as unknown as GradeEdges | null) ?? undefined,
  }
}

/**
 * What one carrier's SIMs read, and what nobody says the SIM of: another carrier's masts, cells and load say nothing of it.
 */
export function ofCarrier(log: LogIndex, carrier: string | null): LogIndex {
  const mine = <T extends { setup: SetUp | null }>(rows: T[]): T[] =>
    rows.filter(r => !r.setup?.sim?.carrier || r.setup.sim.carrier === carrier)
  if (!carrier) return log
  const readings = mine(log.readings)
  const runs = mine(log.runs)
  // Most jobs know one carrier: theirs is the log itself.
  if (readings.length === log.readings.length && runs.length === log.runs.length) return log
  return {
    ...log,
    readings,
    runs,
    usual: usualSpread(readings, runs),
    doubted: mine(log.doubted),
    calls: mine(log.calls),
    watches: mine(log.watches),
  }
}

interface Narrowed {
  /** only readings of this band; of the band read most, and last, where left out */
  band?: string
  /** only what this set-up made; of the last one used where left out */
  setupId?: string | null
}

/** What some speed tests come to; one that did not load counts as nothing. */
export const speedsOf = (
  runs: readonly Made<SpeedRun>[],
): Pick<SpotSummary, 'runs' | 'down' | 'up' | 'ping' | 'wouldNotLoad'> => ({
  runs: [...runs],
  down: summarise(runs.map(r => (r.wouldNotLoad ? 0 : r.downMbps))),
  up: summarise(runs.map(r => (r.wouldNotLoad ? 0 : r.upMbps))),
  ping: summarise(runs.map(r => r.pingMs)),
  wouldNotLoad: runs.filter(r => r.wouldNotLoad).length,
})

export function summariseSpot(log: LogIndex, spot: Spot, phase: Phase, only: Narrowed = {}): SpotSummary {
  const mine = <T extends { spotId: string; phase: Phase }>(rows: readonly T[]) =>
    rows.filter(r => r.spotId === spot.id && r.phase === phase)
  const read = mine(log.readings)
  const ran = mine(log.runs)
  const onBand = only.band ? read.filter(r => r.band === only.band) : read
  const setupId = only.setupId !== undefined ? only.setupId : lastSetup(only.band ? onBand : [...read, ...ran])
  const ofSetup = onBand.filter(r => r.setupId === setupId)
  const band = only.band ?? mainBand(ofSetup)
  const readings = ofSetup.filter(r => r.band === band)
  const runs = ran.filter(r => r.setupId === setupId && (r.band === null || band === null || r.band === band))
  const rsrp = summarise(readings.map(r => r.rsrpDbm))
  return {
    spot,
    phase,
    setup: log.setups.get(setupId ?? '') ?? null,
    band,
    readings,
    bands: [...new Set(read.map(r => r.band).filter((b): b is string => !!b))],
    setups: new Set([...read, ...ran].map(r => r.setupId)).size,
    rsrp,
    rsrq: summarise(readings.map(r => r.rsrqDb)),
    sinr: summarise(readings.map(r => r.sinrDb)),
    ...speedsOf(runs),
    grade: rsrp ? gradeRsrp(rsrp.median, log.edges) : null,
  }
}

/** What there was before: the set-up marked so, where one was; else the last that changed nothing. */
export function beforeAt(log: LogIndex, spot: Spot): SpotSummary {
  const marked = [...log.readings, ...log.runs].filter(r => r.spotId === spot.id && r.setup?.row.mark === 'before')
  return summariseSpot(log, spot, 'before', marked.length ? { setupId: lastSetup(marked) } : {})
}

const lastSetup = (rows: readonly { setupId: string | null; takenAtUtc: string }[]): string | null =>
  rows.reduce<{ setupId: string | null; takenAtUtc: string } | null>((a, b) => (!a || b.takenAtUtc >= a.takenAtUtc ? b : a), null)
    ?.setupId ?? null

/** The band read most as the anchor; of two alike the later. */
function mainBand(rows: readonly Made<Reading>[]): string | null {
  const anchors = rows.filter(r => r.carrierRole === 'anchor')
  const counts = new Map<string | null, number>()
  for (const r of anchors.length ? anchors : rows) counts.set(r.band, (counts.get(r.band) ?? 0) + 1)
  return [...counts].reduce<[string | null, number] | null>((a, b) => (!a || b[1] >= a[1] ? b : a), null)?.[0] ?? null
}

export const summariseAll = (doc: JobDocument, log: LogIndex, phase: Phase): SpotSummary[] =>
  doc.spots.map(s => summariseSpot(log, s, phase))
