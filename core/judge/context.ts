/** What every section of judgement reads: the document at its present stop, and what was worked out of it. */
import { sure } from '../sure'
import type { SweepResult } from '../aim/sweep'
import { bestHeading, lastRound } from '../aim/sweep'
import type { Evidence, MastView } from '../masts/bearings'
import { cellsByMast, rankMasts, siteDeclination } from '../masts/bearings'
import { bandLoad, measuredEntryDb, startAt } from '../chain/start'
import type { SeenMast } from '../chain/start'
import { computeLevels } from '../chain/levels'
import type { Carrier, Levels, Source } from '../chain/levels'
import { treeOf, turned } from '../chain/tree'
import type { Tree } from '../chain/tree'
import { roomLevels } from '../coverage/rooms'
import type { RoomLevel } from '../coverage/rooms'
import { cableLength } from '../fitting/lengths'
import type { CableLength } from '../fitting/lengths'
import type { Declination } from '../geo/declination'
import { findRow, standing } from '../job/changes'
import type { Design, Job, JobDocument, Sim, Site, Sweep } from '../job/schema'
import { bandByName, dlCentreMHz, ulCentreMHz } from '../radio/bands'
import type { Band } from '../radio/bands'
import { gainToward } from '../radio/pattern'
import { rsrpToTotalDbm } from '../radio/levels'
import { loopsOf } from '../separation/loop'
import type { Loop, Surroundings } from '../separation/loop'
import { buildingOf } from '../site/building'
import { roomsAsSaid } from '../site/rooms'
import type { Building } from '../site/building'
import { eavesM } from '../site/frame'
import { needOfUseDbm, usualUse } from '../site/use'
import { ASSUMED_BANDWIDTH_MHZ, blocksFor } from '../masts/predict'
import { atPresentStop, toFrame } from '../survey/place'
import { logIndex, ofCarrier, summariseAll } from '../survey/spots'
import type { LogIndex, SpotSummary } from '../survey/spots'
import { demandsOf } from './demands'
import type { Demand } from './demands'

export interface SweepView {
  sweep: Sweep
  passes: number
  result: SweepResult | null
}

/** One band of a tree, worked through. */
/** A context whose plan is laid out, and one whose own band was worked through besides: what most of Plan is judged by. */
export type Laid<C = Context> = C & { tree: Tree; design: Design }
export type Worked = Laid & { main: BandWork }
export const isLaid = (c: Context): c is Laid => c.tree !== null && c.design !== null
export const isWorked = (c: Context): c is Worked => isLaid(c) && c.main !== null

export interface BandWork {
  carrier: Carrier
  levels: Levels | null
  /** what the loops were worked in; null where they could not be */
  round: Surroundings | null
  loops: Loop[]
  rooms: RoomLevel[]
  /** why it could not be worked; null where it was */
  trouble: string | null
}

export interface Context {
  /** standing at the present stop */
  doc: JobDocument
  job: Job
  site: Site
  atUtc: string
  building: Building
  /** skyline of the terrain, by true bearing; null where nothing asked for it or none is held */
  horizon: NonNullable<Evidence['horizon']> | null
  log: LogIndex
  /** of it, what the SIMs of the plan's carrier read: of the chosen mast's, else the job's */
  own: LogIndex
  before: SpotSummary[]
  declination: Declination | null
  design: Design | null
  tree: Tree | null
  mountHeightM: number
  masts: MastView[]
  chosen: MastView | null
  /** bands of the chosen mast that the boxes pass, the design's own first */
  bands: BandWork[]
  /** the design's own band; null while no tree is laid out */
  main: BandWork | null
  lengths: CableLength[]
  sweep: SweepView | null
  /** RSRP that a room needs on a phone, for what was agreed, dBm */
  needDbm: number
  /** what the plan demands of its site, each met, assumed or missing */
  demands: Demand[]
}

/** What was read before at each spot by the SIMs of the plan's carrier. */
export const ownBefore = (c: Pick<Context, 'doc' | 'log' | 'own' | 'before'>): SpotSummary[] =>
  c.own === c.log ? c.before : summariseAll(c.doc, c.own, 'before')

/** Band taken while none is chosen. */
const FIRST_BAND = 'B20'
/** Mount over the eaves while no antenna is placed, m. */
const MOUNT_OVER_EAVES_M = 1.5

/** @throws RangeError where the document has no job or no site */
export function contextOf(document: JobDocument, evidence: Evidence, atUtc: string): Context {
  const doc = roomsAsSaid(atPresentStop(document))
  const job = doc.jobs[0]
  const site = doc.sites[0]
  if (!job || !site) throw new RangeError('the document has no job or no site')
  const log = logIndex(doc)
  const design = findRow(doc, 'designs', job.designId) ?? doc.designs[0] ?? null
  const tree = design ? treeOf(doc, design) : null
  const declination = siteDeclination(site, atUtc)
  const mountHeightM = tree?.donors[0]?.node.upM ?? eavesM(site) + MOUNT_OVER_EAVES_M
  const passed = tree ? bandsPassed(tree) : null
  const masts = rankMasts(doc, evidence, {
    heightM: Math.max(0.5, mountHeightM),
    kitBands: passed,
    dec: declination,
    readings: log.readings,
  })
  const chosen = masts.find(m => m.mast.id === design?.mastId) ?? null
  const own = ofCarrier(log, chosen?.mast.carrier ?? job.carrier)
  const building = buildingOf(doc, measuredEntryDb(doc, own, design?.band ?? null))
  const base = {
    doc,
    job,
    site,
    atUtc,
    building,
    horizon: evidence.horizon ?? null,
    log,
    own,
    before: summariseAll(doc, log, 'before'),
    declination,
    design,
    tree,
    mountHeightM,
    masts,
    chosen,
    lengths: tree ? tree.joints.flatMap(j => cableLength(job.kind, building, j) ?? []) : [],
    sweep: latestSweep(doc),
    needDbm: needOfUseDbm(job, usualUse(job.kind)),
  }
  // Only an amplifier asks what else is in its band.
  const seen = tree?.amplifiers.length ? seenMasts(base) : []
  const bands = tree && design ? bandsOf(base, tree, design).map(b => tryBand(base, tree, { design, band: b, seen })) : []
  return { ...base, bands, main: bands[0] ?? null, demands: demandsOf(base) }
}

type Base = Omit<Context, 'bands' | 'main' | 'demands'>

/** Masts with their paths, as an amplifier's donor hears them. */
function seenMasts(c: Base): SeenMast[] {
  const cells = cellsByMast(c.doc.cells)
  return c.masts.flatMap(m =>
    m.path
      ? [
          {
            mastId: m.mast.id,
            name: m.mast.name,
            carrier: m.mast.carrier,
            frameBearingDeg: m.frameBearingDeg,
            path: m.path,
            cells: cells.get(m.mast.id) ?? [],
            offsetDb: m.calibration?.offsetDb ?? 0,
          },
        ]
      : [],
  )
}

/** @returns bands that every box on a way passes; null where there is no box yet */
function bandsPassed(tree: Tree): readonly string[] | null {
  const boxes = [...tree.routers, ...tree.amplifiers]
  return boxes.length ? [...new Set(boxes.flatMap(b => b.part.bands))] : null
}

function bandsOf(c: Base, tree: Tree, design: Design): Band[] {
  const main = bandByName(design.band ?? FIRST_BAND) ?? sure(bandByName(FIRST_BAND))
  const passed = bandsPassed(tree)
  const others = (c.chosen?.path?.bands ?? [])
    .map(b => bandByName(b.band))
    .filter((b): b is Band => !!b && b.name !== main.name && (!passed || passed.includes(b.name)))
  return [main, ...others]
}

/** What the reading itself says of the carrier's width, else what the design says of its own band, else assumed. */
export function carrierOn(log: LogIndex, design: Pick<Design, 'band' | 'bandwidthMHz'>, band: Band): Carrier {
  const entered = design.band === band.name || design.band === null ? design.bandwidthMHz : null
  const read = log.readings.find(r => r.band === band.name && r.bandwidthMHz)?.bandwidthMHz ?? null
  const bandwidthMHz = entered ?? read ?? ASSUMED_BANDWIDTH_MHZ
  return {
    band,
    frequencyMHz: dlCentreMHz(band),
    uplinkMHz: ulCentreMHz(band),
    bandwidthMHz,
    assumed: entered === null && read === null,
    resourceBlocks: blocksFor(band.name, bandwidthMHz),
  }
}

/** What makes no sense in one design must not stop the job from opening. */
function tryBand(
  c: Base,
  tree: Tree,
  { design, band, seen }: { design: Design; band: Band; seen: readonly SeenMast[] },
): BandWork {
  try {
    return workBand(c, tree, { design, band, seen })
  } catch (e) {
    const trouble = e instanceof Error ? e.message : String(e)
    return { carrier: carrierOn(c.own, design, band), levels: null, round: null, loops: [], rooms: [], trouble }
  }
}

function workBand(
  c: Base,
  tree: Tree,
  { design, band, seen }: { design: Design; band: Band; seen: readonly SeenMast[] },
): BandWork {
  const carrier = carrierOn(c.own, design, band)
  const bearingDeg = c.chosen?.path ? c.chosen.frameBearingDeg : null
  // Once it is locked an antenna looks where it was locked, not where its mast is.
  const looksDeg = design.aimedDeg !== null ? toFrame(c.doc, design.aimedDeg) : bearingDeg
  // What goes round an amplifier goes round at both frequencies: the lower one lets more past.
  const round: Surroundings = {
    building: c.building,
    entered: c.doc.isolations.filter(i => i.designId === design.id),
    band: band.name,
    frequencyMHz: Math.min(carrier.frequencyMHz, carrier.uplinkMHz),
    bearingDeg: looksDeg,
  }
  const loops = loopsOf(tree, round, design.marginDb)
  const sources = tree.donors.flatMap((donor): Source[] => {
    const start = startAt({
      doc: c.doc,
      log: c.own,
      building: c.building,
      donor: donor.node,
      band: band.name,
      frequencyMHz: carrier.frequencyMHz,
      bandwidthMHz: carrier.bandwidthMHz,
      path: c.chosen?.path ?? null,
      bearingDeg,
      calibration: c.chosen?.calibration ?? null,
    })
    if (!start) return []
    const t = turned(donor, carrier.frequencyMHz, looksDeg)
    const wantedDbm = rsrpToTotalDbm(start.rsrpDbm + gainToward(t.pattern, t, bearingDeg ?? t.azimuthDeg), carrier.resourceBlocks)
    const load = bandLoad({
      carrier,
      wantedDbm,
      wantedMastId: c.chosen?.mast.id ?? null,
      donor: t,
      seen,
      entered: design.carriersInBand,
    })
    return [{ donor, turned: t, bearingDeg, start, load }]
  })
  if (!sources.length) return { carrier, levels: null, round, loops, rooms: [], trouble: null }
  const held = new Map(loops.map(l => [l.at.node.id, { gainDb: l.gainDb, oscillating: l.state === 'oscillating' }]))
  const levels = computeLevels(tree, carrier, sources, held)
  return { carrier, levels, round, loops, rooms: roomLevels(c.doc, tree, c.building, levels), trouble: null }
}

/** Steps this wide are the positions of a bracket. */
const PINS_FROM_DEG = 45

/** Reading-to-reading noise of a quantity: 1.5 dB, a seventh of a speed, half a lamp. Assumed. */
function noiseOf(quantity: Sweep['quantity'], steps: readonly { value: number }[]): number {
  if (quantity === 'lamps') return 0.5
  if (quantity === 'down' || quantity === 'up') return Math.max(0.05, Math.max(...steps.map(s => s.value)) / 7)
  return 1.5
}

export function latestSweep(doc: JobDocument): SweepView | null {
  const sweep = lastRound(doc)
  if (!sweep) return null
  const steps = standing(doc.steps).filter(s => s.sweepId === sweep.id)
  const headings = new Set(steps.map(s => Math.round(s.headingDeg * 10)))
  return {
    sweep,
    passes: steps.reduce((m, s) => Math.max(m, s.pass), 0),
    result:
      headings.size >= 3
        ? bestHeading(
            steps.map(s => ({ headingDeg: s.headingDeg, value: s.value })),
            { pins: (sweep.stepDeg ?? 0) >= PINS_FROM_DEG, noise: noiseOf(sweep.quantity, steps) },
          )
        : null,
  }
}

/** The SIM that is to stay: of the last set-up marked after, else of the first; of the plan's carrier alone. */
function simThatStays({ doc, job, log, chosen }: Context): Sim | null {
  const carrier = chosen?.mast.carrier ?? job.carrier
  const fits = (s: Sim) => !carrier || !s.carrier || s.carrier === carrier
  const after = [...log.setups.values()].filter(s => s.phase === 'after' && s.sim && fits(s.sim)).at(-1)?.sim
  return after ?? doc.sims.find(s => s.carrier === carrier) ?? doc.sims.find(fits) ?? null
}

/** @returns the cap of the SIM that is to stay, Mbit/s */
export function capOfSim(c: Context): { downMbps: number | null; upMbps: number | null } {
  const sim = simThatStays(c)
  return { downMbps: sim?.capDownMbps ?? null, upMbps: sim?.capUpMbps ?? null }
}

/** @returns whether the SIM that stays carries calls over Wi-Fi; null where nobody asked */
export const callsOverWifi = (c: Context): 'yes' | 'no' | null => simThatStays(c)?.callsOverWifi ?? null
