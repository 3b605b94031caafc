/** Which mast, which way, and why not the others. */
import { siteOf } from '../job/schema'
import { entryOf } from '../sure'
import { declination, trueToMagnetic } from '../geo/declination'
import type { Declination } from '../geo/declination'
import { toDeg, turn } from '../geo/angles'
import { bandByName, UNKNOWN_BAND } from '../radio/bands'
import { noisePerElementDbm } from '../radio/levels'
import { carrierRateMbps } from '../radio/rate'
import type { Horizon } from '../terrain/horizon'
import { clearanceAt, atHeight, pathKey } from '../terrain/path'
import type { PathInput, PathResult } from '../terrain/path'
import { inSpan } from '../terrain/profile'
import { calibrations, PRIOR_SIGMA_DB } from './calibrate'
import type { Calibration } from './calibrate'
import { atPresentStop, obstaclesHere, positionOf, screensHere, toFrame } from '../survey/place'
import { ASSUMED_BANDWIDTH_MHZ, predictedRsrp } from './predict'
import { carriersOf } from '../survey/setups'
import type { Made } from '../survey/setups'
import { NINE_IN_TEN } from '../survey/stats'
import type { Cell, JobDocument, Mast, Obstacle, Reading, Site } from '../job/schema'
import { num } from '../units'
import { concat, metres, overLand, words } from '../words'
import type { Words } from '../words'

/** RSRP in the open that still serves: 10 dB above receiver noise. */
export const USABLE_RSRP_DBM = -113

/**
 * Half-width within which nine of ten hold the hand compass steady and read it right, degrees. Assumed.
 * @source common practice (no source)
 */
export const HAND_COMPASS_DEG = 3

export interface MastView {
  mast: Mast
  bands: string[]
  /** its list named no bands: those usual with its carrier are taken */
  bandsGuessed: boolean
  /** bands of its carrier that were read here and that it does not send: they came from elsewhere */
  lacks: string[]
  path: PathResult | null
  /** of the carrier that the job is planned on */
  matchesCarrier: boolean
  /** of the carrier of any SIM here */
  ofSim: boolean
  bearingDeg: number
  magneticDeg: number | null
  /** bearing as the site frame has it: from the nose or bow of what moves */
  frameBearingDeg: number
  /** what the mast's own position leaves open in the bearing, nine in ten, degrees either way */
  positionDeg: number
  /** the whole of it on a hand compass: declination, reading it, and the mast's position; null where there is no declination */
  compassDeg: number | null
  distanceM: number
  /** best band at the mount's height, isotropic antenna, corrected by what was read of this mast */
  best: {
    band: string
    rsrpDbm: number
    sigmaDb: number
    diffractionDb: number
    clearance: { ratio: number; clearM: number; atM: number }
  } | null
  calibration: Calibration | null
  /** what the shared bands come to by noise alone, Mbit/s: what masts are ranked by */
  expectedMbps: number
  usable: boolean
  sentence: Words
  rank: number
}

export interface Evidence {
  paths: Record<string, PathResult>
  /** skyline of the terrain round the present place, where something asks for it */
  horizon?: Pick<Horizon, 'rays' | 'elevationDeg'> | null
}

export const MAST_RADIUS_M = 60_000
export const MOST_MASTS = 400

/** Cells by the mast that sends them. */
export function cellsByMast(cells: readonly Cell[]): Map<string, Cell[]> {
  const out = new Map<string, Cell[]>()
  for (const c of cells) {
    const list = out.get(c.mastId)
    if (list) list.push(c)
    else out.set(c.mastId, [c])
  }
  return out
}

const named = (cells: readonly Cell[]): string[] => [...new Set(cells.map(c => c.band))].filter(b => bandByName(b)).sort()

/** Bands taken for a carrier of whom no mast near names any. Assumed. */
const USUAL_BANDS = ['B20', 'B3']

/** Bands of each mast; of one whose list named none, what was read of its cells, else what its carrier usually sends near. */
class Bands {
  private readonly usual = new Map<string, string[]>()
  private readonly read = new Map<string, Set<string>>()

  constructor(
    doc: Pick<JobDocument, 'masts' | 'readings'>,
    private readonly byMast: ReadonlyMap<string, Cell[]>,
  ) {
    for (const m of doc.masts) {
      const bands = named(byMast.get(m.id) ?? [])
      if (bands.length) this.usual.set(m.carrier, [...new Set([...(this.usual.get(m.carrier) ?? []), ...bands])].sort())
    }
    const mastOf = new Map(
      [...byMast.values()]
        .flat()
        .flatMap(c => (c.cellId && c.band === UNKNOWN_BAND ? [[`${c.technology} ${c.cellId}`, c.mastId]] : [])),
    )
    for (const r of doc.readings) {
      const mastId = r.cellId && r.band ? mastOf.get(`${r.technology} ${r.cellId}`) : undefined
      if (mastId) this.read.set(mastId, (this.read.get(mastId) ?? new Set()).add(r.band!))
    }
  }

  of(m: Pick<Mast, 'id' | 'carrier'>): { bands: string[]; guessed: boolean } {
    const cells = this.byMast.get(m.id) ?? []
    const bands = named(cells)
    const read = this.read.get(m.id)
    if (read) return { bands: [...new Set([...bands, ...read])].sort(), guessed: false }
    if (bands.length || !cells.some(c => c.band === UNKNOWN_BAND)) return { bands, guessed: false }
    return { bands: this.usual.get(m.carrier) ?? USUAL_BANDS, guessed: true }
  }
}

/** @returns what the worker should compute for this document; masts of the job's carrier first, nearest first */
export function pathInputs(document: JobDocument, byMast = cellsByMast(document.cells), known?: Bands): PathInput[] {
  const doc = atPresentStop(document)
  const at = positionOf(doc)
  if (!at) return []
  const bands = known ?? new Bands(doc, byMast)
  const cos = Math.cos((at.latDeg * Math.PI) / 180)
  const rough = (m: Mast) => Math.hypot(m.latDeg - at.latDeg, turn(at.lonDeg, m.lonDeg) * cos)
  const carrier = doc.jobs[0]?.carrier
  const screens = screensHere(doc)
  const { groundM: siteGroundM } = siteOf(doc)
  const k = doc.jobs[0]?.kFactor ?? 4 / 3
  return doc.masts
    .map(m => ({ m, far: rough(m), bands: bands.of(m).bands }))
    .filter(({ far, bands }) => bands.length > 0 && far < (MAST_RADIUS_M * 1.02) / 111_000)
    .sort((a, b) => Number(b.m.carrier === carrier) - Number(a.m.carrier === carrier) || a.far - b.far)
    .slice(0, MOST_MASTS)
    .map(({ m, bands }) => {
      const base = {
        mastId: m.id,
        site: at,
        siteGroundM,
        mast: { latDeg: m.latDeg, lonDeg: m.lonDeg },
        mastHeightM: m.heightM,
        mastGroundM: m.groundM,
        bands,
        k,
        screens,
      }
      return { ...base, key: pathKey(base) }
    })
}

/** Declination at the site for a date; null where the site has no position or the date is outside the model. */
export function siteDeclination(site: Site | undefined, atUtc: string): Declination | null {
  if (!site || site.latDeg === null || site.lonDeg === null) return null
  try {
    return declination({ latDeg: site.latDeg, lonDeg: site.lonDeg }, new Date(atUtc))
  } catch {
    return null
  }
}

/** Bands beyond the best count for less: a modem may use them together, or the one that is free. Assumed. */
const NEXT_BAND_WEIGHT = 0.5

/**
 * What a level is worth, Mbit/s of a 10 MHz carrier limited by noise, over what the level is not
 * sure of: three points that carry mean and spread of a normal error.
 */
export function worthOf(rsrpDbm: number, sigmaDb: number): number {
  const at = (db: number) => carrierRateMbps(Math.min(20, rsrpDbm + db - noisePerElementDbm()), ASSUMED_BANDWIDTH_MHZ, 1)
  const reach = sigmaDb * Math.sqrt(3)
  return (at(-reach) + 4 * at(0) + at(reach)) / 6
}

/**
 * @returns masts in the order worth trying: the carrier that is planned on first, then those of the other SIMs, each by
 * what can be expected of the bands that mast and kit share
 */
export function rankMasts(
  doc: JobDocument,
  evidence: Evidence,
  {
    heightM,
    kitBands,
    dec,
    readings = [],
  }: { heightM: number; kitBands: readonly string[] | null; dec: Declination | null; readings?: readonly Made<Reading>[] },
): MastView[] {
  const job = doc.jobs[0]
  const masts = new Map(doc.masts.map(m => [m.id, m]))
  const byMast = cellsByMast(doc.cells)
  const known = new Bands(doc, byMast)
  const inputs = pathInputs(doc, byMast, known)
  const keys = new Map(inputs.map(i => [i.mastId, i.key]))
  const read = calibrations(doc, readings, id => evidence.paths[keys.get(id) ?? ''] ?? null, byMast)
  const carriers = carriersOf(doc)
  const readHere = bandsRead(readings, job?.carrier ?? null)
  const views = inputs
    .map((input): MastView => {
      const mast = entryOf(masts, input.mastId)
      const path = evidence.paths[input.key] ?? null
      const shared = input.bands.filter(b => !kitBands || kitBands.includes(b))
      const calibration =
        read.of.get(mast.id) ?? (read.others ? { mastId: mast.id, ...read.others, readings: 0, spots: 0 } : null)
      const sigmaDb = calibration?.sigmaDb ?? PRIOR_SIGMA_DB
      const levels = (path?.bands ?? [])
        .filter(b => shared.includes(b.band))
        .map(band => ({
          band,
          rsrpDbm:
            predictedRsrp(byMast.get(mast.id) ?? [], path!, { band, heightM, bandwidthMHz: ASSUMED_BANDWIDTH_MHZ }).rsrpDbm +
            (calibration?.offsetDb ?? 0),
        }))
        .sort((a, b) => b.rsrpDbm - a.rsrpDbm)
      const top = levels[0]
      const bearingDeg = path?.bearingDeg ?? 0
      const positionDeg = path && mast.accuracyM ? Math.min(90, toDeg(Math.atan2(mast.accuracyM, path.distanceM))) : 0
      return {
        mast,
        bands: shared,
        bandsGuessed: known.of(mast).guessed,
        lacks: lacking(known.of(mast), readHere.get(mast.carrier)),
        path,
        calibration,
        bearingDeg,
        matchesCarrier: !job?.carrier || mast.carrier === job.carrier,
        ofSim: !carriers.length || carriers.includes(mast.carrier),
        magneticDeg: path && dec ? trueToMagnetic(bearingDeg, dec.declinationDeg) : null,
        frameBearingDeg: toFrame(doc, bearingDeg),
        positionDeg,
        compassDeg: dec ? bearingHalfWidth({ positionDeg }, dec) : null,
        distanceM: path?.distanceM ?? NaN,
        best: top
          ? {
              band: top.band.band,
              rsrpDbm: top.rsrpDbm,
              sigmaDb,
              diffractionDb: atHeight(top.band.diffractionDb, heightM),
              clearance: clearanceAt(top.band, heightM),
            }
          : null,
        expectedMbps: levels.reduce((sum, l, i) => sum + worthOf(l.rsrpDbm, sigmaDb) * NEXT_BAND_WEIGHT ** i, 0),
        usable: !!top && top.rsrpDbm >= USABLE_RSRP_DBM - 15,
        sentence: '',
        rank: 0,
      }
    })
    .filter(v => !v.path || v.distanceM <= MAST_RADIUS_M)
  views.sort(
    (a, b) =>
      Number(b.matchesCarrier) - Number(a.matchesCarrier) ||
      Number(b.ofSim) - Number(a.ofSim) ||
      Math.round(10 * (b.expectedMbps - a.expectedMbps)) ||
      (b.best?.rsrpDbm ?? -999) - (a.best?.rsrpDbm ?? -999) ||
      a.distanceM - b.distanceM,
  )
  const screens = obstaclesHere(doc)
  const nearest = views
    .filter(v => v.matchesCarrier && v.path)
    .reduce<MastView | null>((a, b) => (!a || b.distanceM < a.distanceM ? b : a), null)
  views.forEach((v, i) => {
    v.rank = i + 1
    v.sentence = sentenceFor(v, nearest, job?.carrier ?? null, screens)
  })
  return views
}

/** Bands that were read here, by the carrier whose SIM read them. */
function bandsRead(readings: readonly Made<Reading>[], carrier: string | null): Map<string, Set<string>> {
  const out = new Map<string, Set<string>>()
  for (const r of readings) {
    const of = r.setup?.sim?.carrier ?? carrier
    if (of && r.band && r.rsrpDbm !== null) out.set(of, (out.get(of) ?? new Set()).add(r.band))
  }
  return out
}

/** @returns what was read and is not in a mast's own list; nothing where that list was guessed */
const lacking = (own: { bands: readonly string[]; guessed: boolean }, read: ReadonlySet<string> | undefined): string[] =>
  own.guessed || !read ? [] : [...read].filter(b => !own.bands.includes(b)).sort()

/** Half-width of a bearing on the hand compass, nine in ten, degrees: declination, reading it, and the mast's own position. */
export const bearingHalfWidth = (v: Pick<MastView, 'positionDeg'> | null, dec: Declination | null): number =>
  Math.hypot(dec ? NINE_IN_TEN * dec.uncertaintyDeg : 0, HAND_COMPASS_DEG, v?.positionDeg ?? 0)

/** What stands at a place of the path: an obstacle that was noted, else the ground. */
const whatAt = (v: MastView, atM: number, screens: readonly Obstacle[]): string =>
  screens.find(s => Math.abs(s.distanceM - atM) < 1 && inSpan(v.bearingDeg, s.fromDeg, s.toDeg))?.name ?? 'the ridge'

function sentenceFor(v: MastView, nearest: MastView | null, carrier: string | null, screens: readonly Obstacle[]): Words {
  if (!v.path) return 'path not computed yet'
  if (!v.ofSim) return `${v.mast.carrier}, not ${carrier}: this SIM cannot use it`
  if (!v.best) return 'no band that the kit covers'
  const c = v.best.clearance
  const seen =
    c.ratio >= 0.6
      ? words`clear by ${metres(c.clearM)} at the tightest place, ${overLand(c.atM)} out`
      : c.clearM > 0
        ? concat(
            `in sight, but ground fills ${Math.round((1 - Math.max(0, c.ratio)) * 100)} % of the first Fresnel zone at `,
            words`${overLand(c.atM)}: loses ${num(v.best.diffractionDb)} dB`,
          )
        : words`loses ${num(v.best.diffractionDb)} dB behind ${whatAt(v, c.atM, screens)} at ${overLand(c.atM)}`
  const more = [
    v.lacks.length ? `does not send ${v.lacks.join(', ')}, which ${v.lacks.length > 1 ? 'were' : 'was'} read here` : '',
    v.bandsGuessed ? `its bands are not in the list: ${v.bands.join(', ')} taken, as usual with ${v.mast.carrier} here` : '',
    v.calibration?.readings
      ? `read ${v.calibration.readings} times, ${num(Math.abs(v.calibration.offsetDb))} dB ` +
        `${v.calibration.offsetDb < 0 ? 'below' : 'above'} the sum`
      : '',
    v.positionDeg > HAND_COMPASS_DEG
      ? words`its place is known to ${metres(v.mast.accuracyM!)} only: ±${num(v.positionDeg)}° of bearing`
      : '',
  ]
  const tail = concat(...more.filter(Boolean).map(t => words`; ${t}`))
  if (!v.matchesCarrier) return words`for the SIM of ${v.mast.carrier}: ${seen}${tail}`
  if (!nearest || nearest === v || !nearest.best) return words`${v === nearest ? 'nearest; ' : ''}${seen}${tail}`
  const further = words`${overLand(v.distanceM - nearest.distanceM)} further`
  if (v.rank === 1) {
    const near =
      nearest.best.clearance.clearM < 0
        ? concat(
            `loses ${num(nearest.best.diffractionDb)} dB behind ${whatAt(nearest, nearest.best.clearance.atM, screens)} at `,
            words`${overLand(nearest.best.clearance.atM)}`,
          )
        : v.best.rsrpDbm > nearest.best.rsrpDbm + 1
          ? `comes ${num(v.best.rsrpDbm - nearest.best.rsrpDbm)} dB weaker`
          : `has ${nearest.bands.length === 1 ? 'one shared band' : `${nearest.bands.length} shared bands`}, this one ${v.bands.length}`
    return words`${further} but ${seen}; the near one ${near}${tail}`
  }
  return words`${further}; ${seen}${tail}`
}
