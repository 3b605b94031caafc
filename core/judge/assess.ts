/**
 * One document in, everything the screens and the report say out.
 *
 * Pure: the same document, evidence and time give the same answer, on a phone and on the server.
 */
import { nth, sure } from '../sure'
import type { Evidence, MastView } from '../masts/bearings'
import { lineLossDb } from '../chain/line'
import type { Levels, Limit } from '../chain/levels'
import { uplinksOf } from '../chain/uplink'
import { carriesRadio } from '../chain/data'
import type { Tree } from '../chain/tree'
import { PHONE_DBM } from '../coverage/rooms'
import type { RoomLevel } from '../coverage/rooms'
import { hardest } from '../promise/inputs'
import { partOfKind } from '../catalogue/parts'
import type { CableLength } from '../fitting/lengths'
import type { Declination } from '../geo/declination'
import type { JobDocument } from '../job/schema'
import { testedAsPlanned } from '../promise/as-planned'
import { promiseOf } from '../promise/view'
import { toFrame } from '../survey/place'
import type { PromiseView } from '../promise/view'
import { prove } from '../prove/proof'
import type { Proof } from '../prove/proof'
import { servedShare } from '../separation/isolation'
import type { LoopState } from '../separation/isolation'
import type { Loop } from '../separation/loop'
import type { Floor } from '../site/building'
import type { SpotSummary } from '../survey/spots'
import { atHeight, PATH_HEIGHTS_M } from '../terrain/path'
import { actStates } from './acts'
import type { ActState } from './acts'
import { bearingFindings } from './bearings'
import { chooseFindings } from './choose'
import { commissionFindings } from './commission'
import { callsOverWifi, capOfSim, contextOf, ownBefore } from './context'
import type { BandWork, Context, SweepView } from './context'
import { beforeYouDrill } from './drill'
import type { BeforeYouDrill } from './drill'
import { figuresOf } from './figures'
import { COMMON, finding, SEVERITY_ORDER } from './finding'
import type { Act, Figure, Finding, Section } from './finding'
import { demandFindings } from './demand-findings'
import type { Demand } from './demands'
import { levelFindings } from './level'
import { routeFindings } from './route'
import { placeFindings } from './place'
import { surveyFindings } from './survey'

export const ENGINE_VERSION = '2.1'

export type { SweepView } from './context'

export interface HeightStep {
  heightM: number
  levelDb: number
  cableDb: number
  netDb: number
}

/** How one band of the mast comes out, beside the design's own. */
export interface BandSummary {
  band: string
  /** rooms below need, of how many */
  short: number
  rooms: number
  /** RSRP at the modem, or in the hardest room, dBm; null where the sum does not come that far */
  rsrpDbm: number | null
  frequencyMHz: number
  /** of the amplifier that is worst off: what its loop does, what that costs in area, and what holds its gain */
  loop: { state: LoopState; heldBackDb: number; servedShare: number } | null
  limitedBy: Limit | null
  /** what leaves toward the mast for a phone in the hardest room, against the phone's own power outside, dB */
  upGainDb: number | null
  /** noise of the booster's own toward the mast, EIRP, dBm a MHz */
  upNoiseDbmPerMHz: number | null
}

export interface Assessment {
  engine: string
  atUtc: string
  declination: Declination | null
  mountHeightM: number
  before: SpotSummary[]
  masts: MastView[]
  chosen: MastView | null
  tree: Tree | null
  floors: Floor[]
  /** of the design's own band */
  levels: Levels | null
  loops: Loop[]
  rooms: RoomLevel[]
  lengths: CableLength[]
  bands: BandSummary[]
  heights: HeightStep[]
  promise: PromiseView | null
  sweep: SweepView | null
  proof: Proof
  findings: Finding[]
  drill: BeforeYouDrill
  /** what the plan demands of its site, each met, assumed or missing */
  demands: Demand[]
  acts: Record<Act, ActState>
  figures: Record<string, Figure>
}

/** The judgement of each section; one that cannot be worked says so, and takes none of the others down. */
const SECTIONS: readonly { section: Section; judge: (c: Context) => Finding[] }[] = [
  { section: 'survey', judge: surveyFindings },
  { section: 'bearings', judge: bearingFindings },
  { section: 'choose', judge: chooseFindings },
  { section: 'place', judge: placeFindings },
  { section: 'level', judge: levelFindings },
  { section: 'route', judge: routeFindings },
  { section: 'route', judge: demandFindings },
  { section: 'commission', judge: commissionFindings },
]

export function assess(document: JobDocument, evidence: Evidence, { atUtc }: { atUtc: string }): Assessment {
  const c = contextOf(document, evidence, atUtc)
  const promise = promiseIn(c)
  const proof = prove(c.doc, c.log, promise ? promise.down : null, c.main?.levels ?? null)
  if (promise) promise.measured = proof.judged?.after.down?.median ?? null
  const findings = withAcceptance(
    c.doc,
    SECTIONS.flatMap(s => judged(s, c)),
  )
  return {
    engine: ENGINE_VERSION,
    atUtc,
    declination: c.declination,
    mountHeightM: c.mountHeightM,
    before: c.before,
    masts: c.masts,
    chosen: c.chosen,
    tree: c.tree,
    floors: c.building.floors,
    levels: c.main?.levels ?? null,
    loops: c.main?.loops ?? [],
    rooms: c.main?.rooms ?? [],
    lengths: c.lengths,
    bands: c.bands.map(bandSummary),
    heights: heightGains(c),
    promise,
    sweep: c.sweep,
    proof,
    findings,
    drill: beforeYouDrill(c, promise),
    demands: c.demands,
    acts: actStates(c, { findings, proof, promise }),
    figures: figuresOf(c, promise),
  }
}

function bandSummary(b: BandWork): BandSummary {
  const worst = b.loops.reduce<Loop | null>(
    (x, y) => (!x || y.isolationDb - y.neededDb < x.isolationDb - x.neededDb ? y : x),
    null,
  )
  const room = hardest(b.rooms)
  const noise = b.levels ? uplinksOf(b.levels).map(u => u.noiseEirpDbmPerMHz) : []
  const modems = b.levels?.modems.map(m => m.rsrpDbm) ?? []
  return {
    band: b.carrier.band.name,
    frequencyMHz: b.carrier.frequencyMHz,
    short: b.rooms.filter(r => !r.met).length,
    rooms: b.rooms.length,
    rsrpDbm: b.rooms.length ? Math.min(...b.rooms.map(r => r.rsrpDbm)) : modems.length ? Math.min(...modems) : null,
    loop: worst && {
      state: worst.state,
      heldBackDb: worst.heldBackDb,
      servedShare: worst.state === 'oscillating' ? 0 : servedShare(worst.heldBackDb),
    },
    limitedBy: b.levels?.amplifiers[0]?.limitedBy ?? null,
    upGainDb: room?.upEirpDbm != null ? room.upEirpDbm - PHONE_DBM : null,
    upNoiseDbmPerMHz: noise.some(Number.isFinite) ? Math.max(...noise) : null,
  }
}

function judged({ section, judge }: (typeof SECTIONS)[number], c: Context): Finding[] {
  try {
    const trouble = section === 'level' ? c.main?.trouble : null
    return trouble ? [unworkable(section, c, trouble)] : judge(c)
  } catch (e) {
    return [unworkable(section, c, e instanceof Error ? e.message : String(e))]
  }
}

const unworkable = (section: Section, c: Context, why: string): Finding =>
  finding(section, {
    code: `${section}.unworkable`,
    subjectId: c.job.id,
    severity: 'fix',
    title: 'This section could not be worked out',
    sentence: `Something stored in it makes no sense: ${why}. The others stand.`,
    because: 'one row that cannot be used must not take the rest down',
    source: COMMON,
  })

function withAcceptance(doc: JobDocument, findings: Finding[]): Finding[] {
  const accepted = new Map(doc.checks.filter(c => c.kind === 'accept' && c.done).map(c => [c.key, c]))
  return findings
    .map(f => {
      const a = accepted.get(f.key)
      return a && !f.holds ? { ...f, accepted: { reason: a.reason ?? '', by: a.by ?? '' } } : f
    })
    .sort(
      (a, b) =>
        Number(!!a.accepted) - Number(!!b.accepted) || SEVERITY_ORDER.indexOf(a.severity) - SEVERITY_ORDER.indexOf(b.severity),
    )
}

export function promiseIn(c: Context): PromiseView | null {
  if (!c.tree || !c.main?.levels) return null
  const cell = c.doc.cells.find(
    x => x.mastId === c.chosen?.mast.id && x.band === c.main!.carrier.band.name && x.powerDbm !== null,
  )
  return promiseOf({
    job: c.job,
    log: c.own,
    before: ownBefore(c),
    tree: c.tree,
    levels: c.main.levels,
    rooms: c.main.rooms,
    bands: c.bands,
    cap: capOfSim(c),
    byWifi: onWifi(c),
    asPlanned: testedAsPlanned({
      log: c.own,
      design: c.design!,
      source: c.main.levels.sources[0] ?? null,
      toFrame: deg => toFrame(c.doc, deg),
    }),
    // A booster carries them itself.
    calls: !c.tree.amplifiers.length && callsOverWifi(c) === 'no' ? false : null,
    mastElementDbm: cell ? cell.powerDbm! - 10 * Math.log10(12 * c.main.carrier.resourceBlocks) : null,
  })
}

/** What is to stay is used by Wi-Fi, unless the last set-up marked after is on a lead. */
export function onWifi({ log }: Pick<Context, 'log'>): boolean {
  return [...log.setups.values()].filter(s => s.phase === 'after').at(-1)?.row.link !== 'LAN'
}

/** Highest mount worth drawing, m. */
const HIGHEST_MOUNT_M = 16

/** What each height brings in level, and what the cable to it takes, against the lowest. */
function heightGains({ chosen, main, tree }: Context): HeightStep[] {
  const band = chosen?.path?.bands.find(b => b.band === main?.carrier.band.name)
  if (!band || !tree || !main) return []
  const line = tree.joints.find(j => j.line && carriesRadio(j))?.line ?? sure(partOfKind('line-400', 'line'))
  const base = nth(band.diffractionDb, 0)
  return PATH_HEIGHTS_M.filter(h => h <= HIGHEST_MOUNT_M).map(heightM => {
    const levelDb = base - atHeight(band.diffractionDb, heightM)
    const cableDb = lineLossDb(line.constants, heightM, main.carrier.frequencyMHz)
    return { heightM, levelDb, cableDb, netDb: levelDb - cableDb }
  })
}
