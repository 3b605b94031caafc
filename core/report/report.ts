/** The handover as blocks: the screen, print and the PDF show the same. */
import { isCable, jointM, lineOf } from '../chain/tree'
import { jobOf, movesAbout, siteOf } from '../job/schema'
import { layoutDial } from '../drawing/dial'
import type { Drawing } from '../drawing/primitives'
import { layoutSection } from '../drawing/section'
import { isData, isSupply } from '../chain/data'
import { allModems, modemName } from '../chain/modems'
import type { Modem } from '../chain/modems'
import { sourcesIn } from '../chain/supply'
import type { Joint, Tree, TreeNode } from '../chain/tree'
import { layoutSightLine } from '../drawing/sightline'
import { formatPosition } from '../geo/coordinates'
import { trueToMagnetic } from '../geo/declination'
import { bearing, distance, given, length, mbps, num, numBeside } from '../units'
import { sure } from '../sure'
import { say, words } from '../words'
import type { Words } from '../words'
import type { Units } from '../units'
import type { Assessment } from '../judge/assess'
import { ENGINE_VERSION } from '../judge/assess'
import { sayExpected } from '../promise/promise'
import type { Job, JobDocument } from '../job/schema'
import { bearingHalfWidth } from '../masts/bearings'
import { SWEPT } from '../aim/sweep'
import { floorAt } from '../site/building'
import { whenItStops } from './after'
import { setUpBlocks, signedBlock } from './set-up'
import { openOf, takenOpen } from './open'
import { RULE_PACKS } from '../judge/cautions'
import { atPresentStop } from '../survey/place'
import { sayRelative } from '../aim/nose'

export type Block =
  | { kind: 'facts'; title: string; rows: [string, string][] }
  | { kind: 'drawing'; title: string; drawing: Drawing; caption: string }
  | { kind: 'table'; title: string; head: string[]; rows: string[][] }
  | { kind: 'list'; title: string; items: string[] }

export interface Report {
  title: string
  subtitle: string
  blocks: Block[]
  foot: string
}

const day = (iso: string): string => iso.slice(0, 10)

export function makeReport(document: JobDocument, a: Assessment, o: { units: Units; crew: string; by: string }): Report {
  const doc = atPresentStop(document)
  const job = jobOf(doc)
  const site = siteOf(doc)
  const blocks: Block[] = []
  const taken = takenOpen(doc)
  const customer = [job.customerName, job.customerContact, job.customerAddress].filter((s): s is string => !!s)
  blocks.push({
    kind: 'facts',
    title: 'What and where',
    rows: [
      ['Job', job.name],
      ['Site', siteWords(doc, o.units)],
      ...(customer.length ? [['Customer', customer.join('; ')] as [string, string]] : []),
      [
        'Position',
        site.latDeg !== null && site.lonDeg !== null ? formatPosition({ latDeg: site.latDeg, lonDeg: site.lonDeg }) : 'not given',
      ],
      [
        'Agreed',
        [
          job.agreedDownMbps !== null ? `${given(job.agreedDownMbps)} Mbit/s down` : '',
          job.agreedUpMbps !== null ? `${given(job.agreedUpMbps)} Mbit/s up` : '',
          job.agreedCalls ? 'calls' : '',
        ]
          .filter(Boolean)
          .join(', ') || 'nothing',
      ],
      ['Result', a.proof.verdict.words],
      ...(taken ? [['Taken over open', `${taken.reason}, says ${taken.by}, ${day(taken.atUtc!)}`] as [string, string]] : []),
      ...(a.proof.scored
        ? [
            [
              'Promise',
              `${num(a.proof.scored.low, 1)} to ${num(a.proof.scored.high, 1)} Mbit/s promised, ${num(a.proof.scored.got, 1)} measured`,
            ] as [string, string],
          ]
        : a.promise
          ? [['Expected', `${sayExpected(a.promise.down)} Mbit/s ${a.promise.where}, on ${a.promise.on}`] as [string, string]]
          : []),
    ],
  })
  const aim = aimRows(doc, a, o.units)
  if (aim.length) blocks.push({ kind: 'facts', title: 'Aim', rows: aim })
  if (a.tree?.nodes.length) {
    blocks.push({
      kind: 'drawing',
      title: 'Section with the level line',
      drawing: layoutSection(doc, a, { width: 800, height: 520, units: o.units, levels: true, levelHeight: 230 }).drawing,
      caption:
        'To scale from the numbers. Line weight tells where a figure comes from: measured heavy, computed thin, assumed dashed.',
    })
    blocks.push({
      kind: 'table',
      title: 'Parts and cables, in the order of the signal',
      head: ['', 'Part', 'Where', 'Cable to it'],
      rows: partRows({ ...a, tree: a.tree }, job.kind, o.units),
    })
    const slots = allModems(doc, a.tree).flatMap(m => slotRows(m))
    if (slots.length)
      blocks.push({ kind: 'table', title: 'SIMs and their slots', head: ['Box', 'Slot', 'SIM', 'Carrier'], rows: slots })
    blocks.push(...setUpBlocks(doc, a.tree, a.atUtc))
    if (a.rooms.length)
      blocks.push({
        kind: 'table',
        title: `Rooms as planned, ${a.levels!.carrier.band.name}`,
        head: ['Room', 'RSRP on a phone', 'Needs', 'Served from'],
        rows: a.rooms.map(r => [
          r.spot.name,
          `${r.met ? num(r.rsrpDbm) : numBeside(r.rsrpDbm, r.needDbm)} dBm`,
          r.met
            ? `${num(r.needDbm)} dBm`
            : `${num(r.needDbm)} dBm: ${num(r.needDbm - r.rsrpDbm, r.needDbm - r.rsrpDbm < 1 ? 1 : 0)} dB short`,
          `${length(r.distanceM, o.units)} away${r.floors ? `, ${r.floors} floor${r.floors > 1 ? 's' : ''} between` : ''}`,
        ]),
      })
  }
  if (a.chosen?.path && a.chosen.best) {
    blocks.push({
      kind: 'drawing',
      title: `Sight line to ${a.chosen.mast.name}`,
      drawing: layoutSightLine(a.chosen.path, {
        width: 800,
        height: 190,
        units: o.units,
        band: a.chosen.best.band,
        heightM: a.mountHeightM,
        mastName: a.chosen.mast.name,
        diffractionDb: a.chosen.best.diffractionDb,
      }),
      caption: say(words`${a.chosen.sentence}.`, o.units),
    })
  }
  if (a.sweep?.result || a.chosen) {
    blocks.push({
      kind: 'drawing',
      title: 'Dial',
      drawing: layoutDial(a, {
        size: 420,
        masts: 3,
        showSweep: true,
        headingDeg: aimedOf(doc),
        selectedId: a.chosen?.mast.id ?? null,
      }),
      caption: 'True north up. Bars: what was measured at each heading. Blue: the computed bearing.',
    })
  }
  if (a.proof.spots.length) {
    blocks.push({
      kind: 'table',
      title: 'Before and after',
      head: ['Spot', 'Before', 'After', 'Change'],
      rows: a.proof.spots.map(p => [p.before.spot.name, measured(p.before), measured(p.after), p.words]),
    })
  }
  if (a.proof.unproven.length) blocks.push({ kind: 'list', title: 'Not proven by these tests', items: a.proof.unproven })
  const open = openOf(doc, a)
  const inUnits = (items: readonly Words[]) => items.map(i => say(i, o.units))
  blocks.push({ kind: 'list', title: 'Open findings', items: open.findings.length ? inUnits(open.findings) : ['None.'] })
  if (open.left.length) blocks.push({ kind: 'list', title: 'Left for the site', items: inUnits(open.left) })
  if (a.tree?.nodes.length)
    blocks.push({ kind: 'list', title: 'Steps not done', items: open.steps.length ? inUnits(open.steps) : ['None.'] })
  const accepted = a.findings.filter(f => f.accepted && !f.noted)
  if (accepted.length)
    blocks.push({
      kind: 'list',
      title: 'Accepted',
      items: accepted.map(f => say(words`${f.title} (${sure(f.accepted).by}: ${sure(f.accepted).reason})`, o.units)),
    })
  if (a.promise?.assumptions.length)
    blocks.push({ kind: 'list', title: 'Assumed', items: a.promise.assumptions.map(x => x.words) })
  blocks.push({
    kind: 'list',
    title: 'When it stops working',
    items: whenItStops({
      kind: job.kind,
      tree: a.tree,
      bandLock: doc.setups.findLast(s => s.mark === 'after')?.bandLock ?? null,
      rules: RULE_PACKS[job.rules],
    }),
  })
  blocks.push(...signedBlock(doc))
  return {
    title: job.name,
    subtitle: `Handover by ${o.crew}, ${o.by}, ${day(a.atUtc)}`,
    blocks,
    foot: `Computed by engine ${ENGINE_VERSION} on ${day(a.atUtc)}; bearings WGS84, magnetic by WMM2025, path ITU-R P.526-15`,
  }
}

/** `Building, 3 floors, 30 × 16 m`, `Boat, 12 m, masts 13 and 7.5 m above the coachroof`. */
function siteWords(doc: JobDocument, units: Units): string {
  const site = siteOf(doc)
  const { kind } = jobOf(doc)
  const metres = (m: number) => length(m, units)
  const masts = [site.roofRiseM, site.mizzenRiseM].filter((m): m is number => !!m).map(metres)
  const rig = masts.length ? `${masts.length > 1 ? 'masts' : 'mast'} ${masts.join(' and ')}` : ''
  const floors = `${site.storeys} ${site.storeys === 1 ? 'floor' : 'floors'}`
  const words = {
    home: `House, ${floors}, ${metres(site.lengthM)} × ${metres(site.depthM)}`,
    building: `Building, ${floors}, ${metres(site.lengthM)} × ${metres(site.depthM)}`,
    vehicle: `Vehicle, ${metres(site.lengthM)} long, roof at ${metres(site.storeyHeightM)}`,
    boat: `Boat, ${metres(site.lengthM)}${rig && `, ${rig} above the coachroof`}`,
  }
  return words[kind]
}

/** Every slot of a modem that is filled. */
const slotRows = (m: Modem): string[][] =>
  m.slots.flatMap(s =>
    s.sim
      ? [[modemName(m), String(s.slot), s.sim.name + (s.sim.id === m.sim?.id ? '' : ', stands by'), s.sim.carrier ?? '']]
      : [],
  )

/** Every part once, in the order of the signal, with each cable that leads to it. */
function partRows(a: Assessment & { tree: Tree }, kind: Job['kind'], units: Units): string[][] {
  const { tree } = a
  const over = kind === 'boat' ? 'the water' : 'ground'
  const where = (upM: number): string => {
    const height = `${length(upM, units)} over ${over}`
    if (kind !== 'building' || upM >= (a.floors.at(-1)?.toM ?? 0)) return height
    const floor = floorAt(a.floors, upM)
    return `${floor.name ?? (floor.level ? `floor ${floor.level}` : 'ground floor')}, ${height}`
  }
  const leadsTo = (j: Joint, at: TreeNode) => tree.visits.some(v => v.at.node.id === at.node.id && v.joint?.run.id === j.run.id)
  const seen = new Set<string>()
  const onData = tree.joints.filter(isData).flatMap(j => [j.from.at, j.to.at])
  const inOrder = [...tree.visits.map(v => v.at), ...onData, ...sourcesIn(tree), ...tree.loose]
  /** the end that a cable is told at: where the signal, the data or the supply comes to */
  const leadsHere = (j: Joint, at: TreeNode): boolean => {
    if (isSupply(j)) return (j.to.port.role === 'power' ? j.to : j.from).at.node.id === at.node.id
    return isData(j) ? j.to.at.node.id === at.node.id : leadsTo(j, at)
  }
  return inOrder.flatMap(at => {
    if (seen.has(at.node.id)) return []
    seen.add(at.node.id)
    const cables = tree.joints
      .filter(j => isCable(j) && leadsHere(j, at))
      .map(j => `${lineOf(j)?.name ?? ''}, ${length(jointM(j), units)}${j.run.measured || !j.run.partId ? '' : ' (assumed)'}`)
    const counted = [...new Set(cables)].map(c =>
      cables.filter(x => x === c).length > 1 ? `${cables.filter(x => x === c).length} × ${c}` : c,
    )
    return [[at.name, at.part.name, where(at.node.upM), counted.join('; ')]]
  })
}

const aimedOf = (doc: JobDocument): number | null =>
  (doc.designs.find(d => d.id === jobOf(doc).designId) ?? doc.designs[0])?.aimedDeg ?? null

function aimRows(doc: JobDocument, a: Assessment, units: Units): [string, string][] {
  const rows: [string, string][] = []
  const design = doc.designs.find(d => d.id === jobOf(doc).designId) ?? doc.designs[0]
  const both = (trueDeg: number, halfDeg: number | null): string => {
    if (!a.declination) return `${bearing(trueDeg)} true`
    const width = halfDeg ?? bearingHalfWidth(null, a.declination)
    const magnetic = `${bearing(trueToMagnetic(trueDeg, a.declination.declinationDeg))} magnetic ± ${num(width)}°`
    return `${bearing(trueDeg)} true, ${magnetic} on ${day(a.atUtc)}`
  }
  if (a.chosen?.path)
    rows.push(
      ['Mast', `${a.chosen.mast.name}, ${a.chosen.mast.carrier}, ${distance(a.chosen.distanceM, units)}, ${design?.band ?? ''}`],
      ['Computed bearing', both(a.chosen.bearingDeg, a.chosen.compassDeg)],
    )
  const kind = jobOf(doc).kind
  const { headingDeg, swingDeg } = siteOf(doc)
  if (a.chosen?.path && movesAbout(kind) && headingDeg !== null)
    rows.push([
      kind === 'boat' ? 'From the bow' : 'From the nose',
      `${sayRelative(a.chosen.frameBearingDeg, kind)}, heading ${bearing(headingDeg)} ` +
        `true${swingDeg ? `, swings ±${num(swingDeg)}°` : ''}`,
    ])
  if (design?.aimedDeg !== null && design?.aimedDeg !== undefined)
    rows.push(['Aimed', `${both(design.aimedDeg, null)}${design.aimedAtUtc ? `, locked ${day(design.aimedAtUtc)}` : ''}`])
  if (a.sweep?.result)
    rows.push([
      'Sweep',
      `best ${bearing(a.sweep.result.headingDeg)} true ± ${num(a.sweep.result.plusMinusDeg)}°, ` +
        `${sweepFigure(a.sweep)}, ${a.sweep.passes} ${a.sweep.passes === 1 ? 'pass' : 'passes'}`,
    ])
  return rows
}

/** `14.2 dB SINR on B20`. */
function sweepFigure({ sweep, result }: NonNullable<Assessment['sweep']>): string {
  const { unit, words, decimals } = SWEPT[sweep.quantity]
  return `${num(result!.best, decimals)} ${unit} ${words}${sweep.band ? ` on ${sweep.band}` : ''}`
}

function measured(s: Assessment['before'][number]): string {
  const parts = [
    s.down ? `${mbps(s.down.median)} down` : '',
    s.up ? `${mbps(s.up.median)} up` : '',
    s.rsrp ? `RSRP ${num(s.rsrp.median)} dBm` : '',
    s.sinr ? `SINR ${num(s.sinr.median)} dB` : '',
    s.wouldNotLoad ? `${s.wouldNotLoad} would not load` : '',
  ].filter(Boolean)
  return parts.join(', ') || '–'
}
