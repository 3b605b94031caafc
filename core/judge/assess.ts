/**
 * One document in, everything the screens and the report say out.
 *
 * Pure: the same document, evidence and time give the same answer, on a phone and on the server.
 */
import { matchesAct } from './acts'
import type { ActState } from './acts'
import { partOfKind } from '../catalogue/parts'
import { bestHeading } from '../aim/sweep'
import type { SweepResult } from '../aim/sweep'
import type { Declination } from '../geo/declination'
import { lineLossDb } from '../chain/line'
import { gradeRsrp } from '../radio/grades'
import { inverse } from '../geo/geodesic'
import { atHeight, PATH_HEIGHTS_M } from '../terrain/path'
import type { PathResult } from '../terrain/path'
import { noisePerElementDbm } from '../radio/levels'
import { sigmaOfMedian } from '../survey/stats'
import { given, num } from '../units'
import type { Evidence, MastView } from '../aim/bearings'
import { rankMasts, siteDeclination } from '../aim/bearings'
import type { Chain } from '../chain/levels'
import { computeChain } from '../chain/levels'
import { DEVICE_GAIN_DBI } from '../survey/devices'
import { atPresentStop, ofStop } from '../site/place'
import { secondOpinion } from '../survey/predict'
import { findRow, standing } from '../job/changes'
import type { Act, Figure, Finding } from './finding'
import { SEVERITY_ORDER } from './finding'
import { bearingFindings, chooseFindings, levelFindings, placeFindings, surveyFindings } from './findings'
import { eavesM } from '../site/frame'
import type { Kit } from '../chain/tree'
import { resolveKit } from '../chain/tree'
import { ASSUMED_SHARE, calibrateShare, discriminationOf, draw, measureNext, sayExpected, ROOM_SIGMA_DB } from '../promise/promise'
import type { Belief, Drawn, MeasureNext, PromiseInputs } from '../promise/promise'
import { prove } from '../promise/proof'
import type { Proof } from '../promise/proof'
import type { JobDocument, Sweep } from '../job/schema'
import type { SpotSummary } from '../survey/spots'
import { logIndex, summariseAll, summariseSpot } from '../survey/spots'

export const ENGINE_VERSION = '1.0'

export interface PromiseView extends Drawn {
  where: string
  agreedDown: number | null
  agreedUp: number | null
  met: 'likely' | 'open' | 'unlikely' | null
  words: string
  upWords: string
  next: MeasureNext | null
  measured: number | null
  assumptions: string[]
}

export interface HeightStep {
  heightM: number
  levelDb: number
  cableDb: number
  netDb: number
}

export interface SweepView {
  sweep: Sweep
  passes: number
  result: SweepResult | null
}

export interface Assessment {
  engine: string
  atUtc: string
  declination: Declination | null
  mountHeightM: number
  before: SpotSummary[]
  masts: MastView[]
  chosen: MastView | null
  kit: Kit | null
  chain: Chain | null
  heights: HeightStep[]
  promise: PromiseView | null
  sweep: SweepView | null
  proof: Proof
  findings: Finding[]
  acts: Record<Act, ActState>
  figures: Record<string, Figure>
}

export function assess(document: JobDocument, evidence: Evidence, { atUtc }: { atUtc: string }): Assessment {
  const doc = atPresentStop(document)
  const job = doc.jobs[0]
  const site = doc.sites[0]
  if (!job || !site) throw new RangeError('the document has no job or no site')
  const log = logIndex(doc)
  const before = summariseAll(doc, log, 'before')
  const dec = siteDeclination(site, atUtc)
  const design = findRow(doc, 'designs', job.designId) ?? doc.designs[0]
  const kit = design ? resolveKit(doc, design) : null
  const mountHeightM = kit?.outside?.node.upM ?? eavesM(site) + 1.5
  const kitBands = kit?.router?.part.bands ?? kit?.amplifier?.part.bands ?? null
  const masts = rankMasts(doc, evidence, Math.max(0.5, mountHeightM), kitBands, dec, log.readings)
  const chosen = masts.find(m => m.mast.id === design?.mastId) ?? null
  const chain = kit ? computeChain(doc, log, kit, chosen?.path ?? null, site, chosen?.calibration ?? null) : null
  const promise = chain && kit ? makePromise(doc, before, chain, kit, log) : null
  const sweep = latestSweep(doc)
  const proof = prove(doc, log, promise ? promise.down : null)
  if (promise) promise.measured = proof.judged?.after.down?.median ?? null
  const found = [
    ...surveyFindings(doc, log, before),
    ...bearingFindings(doc, masts, dec, kit, chosen, atUtc),
    ...(kit ? chooseFindings(kit, chain, doc, before) : []),
    ...(kit ? placeFindings(kit, chain, site, chosen?.path ? chosen.frameBearingDeg : null) : []),
    ...(kit ? levelFindings(kit, chain, job.kind) : []),
  ]
  const findings = withAcceptance(doc, found)
  return {
    engine: ENGINE_VERSION,
    atUtc,
    declination: dec,
    mountHeightM,
    before,
    masts,
    chosen,
    kit,
    chain,
    heights: kit && chosen?.path ? heightGains(kit, chosen.path) : [],
    promise,
    sweep,
    proof,
    findings,
    acts: matchesAct(doc, { findings, masts, chain, sweep, proof }),
    figures: figuresOf(doc, chain, chosen, dec, promise, mountHeightM),
  }
}

function withAcceptance(doc: JobDocument, findings: Finding[]): Finding[] {
  const accepted = new Map(doc.checks.filter(c => c.kind === 'accept' && c.done).map(c => [c.key, c]))
  return findings
    .map(f => {
      const a = accepted.get(f.key)
      return a ? { ...f, accepted: { reason: a.reason ?? '', by: a.by ?? '' } } : f
    })
    .sort(
      (a, b) =>
        Number(!!a.accepted) - Number(!!b.accepted) || SEVERITY_ORDER.indexOf(a.severity) - SEVERITY_ORDER.indexOf(b.severity),
    )
}

/** Inputs of the promise from what is known, each with how well it is known. */
export function promiseInputs(
  doc: JobDocument,
  before: SpotSummary[],
  chain: Chain,
  kit: Kit,
  log = logIndex(doc),
): { inputs: PromiseInputs; room: string; assumptions: string[] } {
  const job = doc.jobs[0]!
  const assumptions: string[] = []
  const baseline = before.find(s => s.spot.id === job.baselineSpotId) ?? before.find(s => s.runs.length && s.sinr) ?? null
  const onBand = chain.start.spot ? summariseSpot(log, chain.start.spot, 'before', kit.band.name) : null
  const base = baseline ? summariseSpot(log, baseline.spot, 'before') : null
  let readRsrp: Belief
  let readSinr: Belief
  if (onBand?.rsrp && onBand.sinr) {
    readRsrp = { mean: onBand.rsrp.median, sigma: sigmaOfMedian(onBand.rsrp, 2) }
    readSinr = { mean: onBand.sinr.median, sigma: sigmaOfMedian(onBand.sinr, 2.5) }
  } else {
    const level = chain.start.rsrpDbm - 3
    readRsrp = { mean: level, sigma: 3 }
    readSinr = { mean: Math.min(9, level - noisePerElementDbm() - 2), sigma: 5 }
    assumptions.push(`SINR outside on ${kit.band.name} (assumed ${num(readSinr.mean)} dB)`)
  }
  let share = ASSUMED_SHARE
  if (base?.down && base.sinr && base.down.median > 0) {
    const spread = base.down.count > 1 ? Math.max(0.1, sigmaOfMedian(base.down, base.down.median * 0.3) / base.down.median) : 0.3
    share = calibrateShare(base.down.median, spread, base.sinr.median, chain.bandwidthMHz, 2)
    if (base.down.count < 2) assumptions.push('load from a single speed test')
  } else {
    assumptions.push('share of the cell (no speed test with SINR)')
  }
  if (chain.bandwidthAssumed) assumptions.push(`carrier width ${num(chain.bandwidthMHz)} MHz`)
  if (chain.start.provenance === 'assumed') assumptions.push(chain.start.spot ? 'what the wall takes' : 'mast power')
  if (chain.amplifier?.carriersAssumed) assumptions.push(`${chain.amplifier.carriers} carriers in the amplifier’s band`)
  if (kit.order.some(s => s.run && !s.run.measured)) assumptions.push('cable lengths not measured')
  const needed = chain.rooms.filter(r => r.spot.needed)
  const pool = needed.length ? needed : chain.rooms
  const hardest = pool.reduce<(typeof pool)[number] | null>((a, b) => (!a || b.rsrpDbm < a.rsrpDbm ? b : a), null)
  const booster =
    chain.amplifier && kit.inside
      ? {
          feedLossDb: chain.feedLossDb,
          gainDb: chain.amplifier.gainDb,
          noiseFigureDb: kit.amplifier!.part.noiseFigureDb,
          toPhoneDb: {
            mean: hardest ? hardest.rsrpDbm - chain.portRsrpDbm - chain.amplifier.gainDb : -200,
            sigma: ROOM_SIGMA_DB,
          },
        }
      : null
  return {
    inputs: {
      mountRsrpDbm: { mean: chain.start.rsrpDbm, sigma: chain.start.sigmaDb },
      readRsrpDbm: readRsrp,
      readSinrDb: readSinr,
      netGainDb: { mean: chain.antennaGainDb - chain.feedLossDb, sigma: 1.5 },
      discriminationDb: discriminationOf(kit.outside!.pattern.beamwidthDeg),
      share,
      measuredUpMbps:
        base?.up && base.up.median > 0 ? { mean: base.up.median, sigma: sigmaOfMedian(base.up, base.up.median * 0.3) } : null,
      bandwidthMHz: chain.bandwidthMHz,
      layers: kit.feeds >= 2 && (kit.router?.part.ports ?? 1) >= 2 ? 2 : 1,
      capMbps: job.planCapMbps,
      portLimitMbps: kit.router?.part.portLimitMbps ?? null,
      noiseFigureDb: kit.router?.part.noiseFigureDb ?? 9,
      booster,
    },
    room: booster ? (hardest?.spot.name ?? 'no room') : 'at the router',
    assumptions,
  }
}

function makePromise(
  doc: JobDocument,
  before: SpotSummary[],
  chain: Chain,
  kit: Kit,
  log: ReturnType<typeof logIndex>,
): PromiseView | null {
  if (kit.design.approach === 'router' && !kit.router) return null
  if (kit.design.approach === 'booster' && (!kit.amplifier || !kit.inside)) return null
  const job = doc.jobs[0]!
  const { inputs, room, assumptions } = promiseInputs(doc, before, chain, kit, log)
  const drawn = draw(inputs)
  const agreedDown = job.agreedDownMbps
  const met =
    agreedDown === null ? null : drawn.down.low >= agreedDown ? 'likely' : drawn.down.high < agreedDown ? 'unlikely' : 'open'
  const words =
    agreedDown === null
      ? 'nothing agreed yet'
      : drawn.down.median >= agreedDown
        ? `agreed ${given(agreedDown)}: ${met === 'likely' ? 'met, nine times in ten' : 'met, if it comes out as expected'}`
        : `agreed ${given(agreedDown)}: short by ${num(agreedDown - drawn.down.median)}`
  return {
    ...drawn,
    agreedDown,
    agreedUp: job.agreedUpMbps,
    met,
    words,
    assumptions,
    where: kit.design.approach === 'booster' ? `in ${room}` : room,
    upWords: drawn.up
      ? `upload ${sayExpected(drawn.up)}${job.agreedUpMbps !== null ? `, agreed ${given(job.agreedUpMbps)}` : ''}`
      : 'upload not measured before',
    next: measureNext(inputs, drawn, { mount: chain.start.spot?.name ?? 'the mount', room, unread: !chain.start.spot }),
    measured: null,
  }
}

/** What each height brings in level, and what the cable to it takes, against the lowest. */
function heightGains(kit: Kit, path: PathResult): HeightStep[] {
  const band = path.bands.find(b => b.band === kit.band.name)
  const line = kit.order.find(s => s.run)?.line ?? partOfKind('line-400', 'line')!
  if (!band) return []
  const base = band.diffractionDb[0]!
  return PATH_HEIGHTS_M.filter(h => h <= 16).map(heightM => {
    const levelDb = base - atHeight(band.diffractionDb, heightM)
    const cableDb = lineLossDb(line.constants, heightM, kit.frequencyMHz)
    return { heightM, levelDb, cableDb, netDb: levelDb - cableDb }
  })
}

export function latestSweep(doc: JobDocument): SweepView | null {
  const sweep = [...ofStop(doc, doc.sweeps)].sort((a, b) => b.startedAtUtc.localeCompare(a.startedAtUtc))[0]
  if (!sweep) return null
  const steps = standing(doc.steps).filter(s => s.sweepId === sweep.id)
  const headings = new Set(steps.map(s => Math.round(s.headingDeg * 10)))
  return {
    sweep,
    passes: steps.reduce((m, s) => Math.max(m, s.pass), 0),
    result: headings.size >= 3 ? bestHeading(steps.map(s => ({ headingDeg: s.headingDeg, value: s.value }))) : null,
  }
}

/** The figures whose working can be opened. */
function figuresOf(
  doc: JobDocument,
  chain: Chain | null,
  chosen: MastView | null,
  dec: Declination | null,
  promise: PromiseView | null,
  mountHeightM: number,
): Record<string, Figure> {
  const out: Record<string, Figure> = {}
  const site = doc.sites[0]!
  if (chosen?.path && site.latDeg !== null && site.lonDeg !== null) {
    const check = inverse({ latDeg: site.latDeg, lonDeg: site.lonDeg }, chosen.mast)
    out.bearing = {
      value: check.bearingDeg,
      unit: '°',
      low: check.bearingDeg,
      high: check.bearingDeg,
      formulaId: 'geodesic',
      formula: 'WGS84 geodesic, inverse problem',
      inputs: [
        { name: 'site', value: `${site.latDeg}, ${site.lonDeg}`, unit: '°', provenance: 'measured' },
        { name: 'mast', value: `${chosen.mast.latDeg}, ${chosen.mast.lonDeg}`, unit: '°', provenance: 'measured' },
      ],
      source: 'Karney 2013, GeographicLib',
      assumed: false,
    }
    if (dec && chosen.magneticDeg !== null) {
      const u = 1.645 * dec.uncertaintyDeg
      out.magnetic = {
        value: chosen.magneticDeg,
        unit: '°',
        low: chosen.magneticDeg - u,
        high: chosen.magneticDeg + u,
        formulaId: 'magnetic',
        formula: 'magnetic = true − declination',
        inputs: [
          { name: 'true bearing', value: check.bearingDeg, unit: '°', provenance: 'computed' },
          { name: 'declination', value: dec.declinationDeg, unit: '°', provenance: 'computed' },
          { name: 'its uncertainty (1σ)', value: dec.uncertaintyDeg, unit: '°', provenance: 'computed' },
        ],
        source: 'World Magnetic Model 2025; uncertainty from memory of its report',
        assumed: false,
      }
    }
    if (chosen.best) {
      out.diffraction = {
        value: chosen.best.diffractionDb,
        unit: 'dB',
        low: chosen.best.diffractionDb,
        high: chosen.best.diffractionDb + 6,
        formulaId: 'delta-bullington',
        formula: `delta-Bullington over the profile, earth radius × ${num(chosen.path.k, 2)}`,
        inputs: [
          { name: 'distance', value: chosen.distanceM / 1000, unit: 'km', provenance: 'computed' },
          { name: 'tightest clearance', value: chosen.best.clearance.clearM, unit: 'm', provenance: 'computed' },
          { name: 'at', value: chosen.best.clearance.atM / 1000, unit: 'km', provenance: 'computed' },
          { name: 'terrain unknown', value: Math.round(chosen.path.unknown * 100), unit: '%', provenance: 'computed' },
          { name: 'land cover on the ground', value: chosen.path.cover ? 'added' : 'not held', unit: '', provenance: 'assumed' },
          { name: 'obstacles noted about the site', value: doc.obstacles.length, unit: '', provenance: 'measured' },
        ],
        source: 'ITU-R P.526-15 §4.5; left out: trees and buildings not held, entry loss, load of the cell',
        assumed: false,
      }
      const band = chosen.path.bands.find(b => b.band === chosen.best!.band)!
      const other = secondOpinion(doc.cells, chosen.path, band, Math.min(10, Math.max(1, mountHeightM)))
      if (typeof other !== 'string')
        out.opinion = {
          value: other.rsrpDbm,
          unit: 'dBm',
          low: other.rsrpDbm - 8,
          high: other.rsrpDbm + 8,
          formulaId: 'hata',
          formula: `${other.model}, open country: RSRP in the open by measured medians, without this path’s ridges`,
          inputs: [
            { name: 'mast over the ground 3 to 15 km out', value: Math.round(other.baseM), unit: 'm', provenance: 'computed' },
            { name: 'distance', value: chosen.distanceM / 1000, unit: 'km', provenance: 'computed' },
            { name: 'loss', value: other.lossDb, unit: 'dB', provenance: 'computed' },
            { name: 'delta-Bullington says', value: chosen.best.rsrpDbm, unit: 'dBm', provenance: 'computed' },
          ],
          source: 'M. Hata 1980; COST 231, from memory',
          assumed: true,
        }
    }
  }
  if (chain) {
    const s = chain.start
    out.mount = {
      value: s.rsrpDbm,
      unit: 'dBm',
      low: s.rsrpDbm - 1.645 * s.sigmaDb,
      high: s.rsrpDbm + 1.645 * s.sigmaDb,
      formulaId: 'mount',
      formula: s.read
        ? 'read − device gain + height gain + entry loss'
        : 'mast EIRP − free space − diffraction, per resource element',
      inputs: s.read
        ? [
            { name: `read at ${s.spot!.name}`, value: s.read.median, unit: 'dBm', provenance: 'measured' },
            { name: `${s.device} antenna`, value: DEVICE_GAIN_DBI[s.device!], unit: 'dBi', provenance: 'assumed' },
            { name: 'height gain', value: s.heightGainDb, unit: 'dB', provenance: 'computed' },
            { name: 'entry loss', value: s.entryDb, unit: 'dB', provenance: 'assumed' },
          ]
        : [{ name: s.words, value: '', unit: '', provenance: 'assumed' }],
      source: 'design of the chain; device gain common practice',
      assumed: s.provenance === 'assumed',
    }
    out.port = {
      value: chain.portDbm,
      unit: 'dBm',
      low: chain.portDbm - 1.645 * s.sigmaDb,
      high: chain.portDbm + 1.645 * s.sigmaDb,
      formulaId: 'port',
      formula: 'RSRP + 10·log10(12·N_RB) + antenna gain − line, arrestor, pad',
      inputs: [
        { name: 'RSRP at the mount', value: s.rsrpDbm, unit: 'dBm', provenance: s.provenance },
        {
          name: 'resource blocks',
          value: chain.resourceBlocks,
          unit: '',
          provenance: chain.bandwidthAssumed ? 'assumed' : 'measured',
        },
        { name: 'antenna gain', value: chain.antennaGainDb, unit: 'dBi', provenance: 'computed' },
        { name: 'feed loss', value: chain.feedLossDb, unit: 'dB', provenance: 'computed' },
      ],
      source: '3GPP TS 36.214; two-term line model',
      assumed: chain.bandwidthAssumed,
    }
    if (chain.loop) {
      const l = chain.loop
      out.isolation = {
        value: l.isolationDb,
        unit: 'dB',
        low: l.isolationDb - 6,
        high: l.isolationDb + 6,
        formulaId: 'isolation',
        formula: 'lower of slant (Iv − Ih)·θ/90° + Ih and free space − (G1 + G2), plus what stands between, capped at 70 dB',
        inputs: [
          { name: 'along', value: l.alongM, unit: 'm', provenance: 'computed' },
          { name: 'up', value: l.upM, unit: 'm', provenance: 'computed' },
          { name: 'horizontal', value: l.horizontalDb ?? '–', unit: 'dB', provenance: 'computed' },
          { name: 'vertical', value: l.verticalDb ?? '–', unit: 'dB', provenance: 'computed' },
          { name: 'slant', value: l.slantDb, unit: 'dB', provenance: 'computed' },
          { name: 'free space', value: l.freeSpaceDb, unit: 'dB', provenance: 'computed' },
        ],
        source: 'common practice',
        assumed: l.rule === 'cap',
      }
    }
  }
  if (promise) {
    out.promise = {
      value: promise.down.median,
      unit: 'Mbit/s',
      low: promise.down.low,
      high: promise.down.high,
      formulaId: 'promise',
      formula: 'min(cap, port, bandwidth · efficiency(SINR) · layers · share), 320 draws',
      inputs: [
        { name: 'SINR expected', value: promise.sinr.median, unit: 'dB', provenance: 'computed' },
        { name: 'RSRP expected', value: promise.rsrp.median, unit: 'dBm', provenance: 'computed' },
        { name: 'grade', value: gradeRsrp(promise.rsrp.median).id, unit: '', provenance: 'computed' },
        ...promise.assumptions.map(a => ({ name: a, value: '', unit: '', provenance: 'assumed' as const })),
      ],
      source: '3GPP TR 36.942 annex A; interval 90 %',
      assumed: promise.assumptions.length > 0,
    }
  }
  return out
}
