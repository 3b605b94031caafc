/** Cures that take a search: worked out when their finding is opened, on the device. */
import { moveSteps } from '../fitting/move'
import { nth } from '../sure'
import { update } from '../job/edits'
import type { Fields } from '../job/edits'
import { movesAbout } from '../job/schema'
import type { Evidence } from '../masts/bearings'
import { treeOf } from '../chain/tree'
import type { AntennaNode, Joint } from '../chain/tree'
import { applyChanges } from '../job/changes'
import type { Change, JobDocument } from '../job/schema'
import { lineLossDb } from '../chain/line'
import { leastMove, servedShare } from '../separation/isolation'
import { loopsOf } from '../separation/loop'
import type { Loop } from '../separation/loop'
import { buildingOf, inside } from '../site/building'
import { along, axisSign, between, moveAlong, partWay, round2 } from '../site/frame'
import { atPresentStop } from '../survey/place'
import { num, signed } from '../units'
import { keyOf, metres, words } from '../words'
import { antennaAt, PARTS } from '../catalogue/parts'
import { isOmni } from '../job/part'
import type { AntennaPart, Part } from '../job/part'
import { contextOf, isWorked } from '../judge/context'
import type { Worked } from '../judge/context'
import { evenOut } from './even-out'
import { skyCures } from '../judge/fixtures'
import type { Words } from '../words'
import type { Cure, CureStep } from '../judge/finding'

/** Findings that say `solves`. */
const SOLVED: ReadonlySet<string> = new Set(['place.loop', 'place.sky', 'level.uneven'])

/** @returns the cures of a finding that says `solves`; none where it is no longer there */
export function solveCures(document: JobDocument, evidence: Evidence, key: string, atUtc: string): Cure[] {
  const [code, nodeId] = key.split(':')
  if (!nodeId || !SOLVED.has(code!)) return []
  const c = contextOf(document, evidence, atUtc)
  if (!isWorked(c)) return []
  if (code === 'level.uneven') return evenOut(c, nodeId)
  if (code === 'place.sky') return skyCures(c, nodeId)
  const loop = c.main.loops.find(l => l.at.node.id === nodeId)
  return loop ? separationCures(c, loop) : []
}

/** As far as an antenna is raised for a cure, m. */
const MOST_RAISE_M = 8
/** Below this a sheet smaller than the other is no cure. @source method of moments, computed for this project */
const LOW_MHZ = 1000
const LEAST_LOW_M = 1.2
/** Sides of the sheets that are tried, m. */
const SHEETS_M = [0.6, 1.2, 1.8, 2.4] as const
/** Before an antenna, toward the other: near enough to shadow it, far enough not to detune it, m. @source method of moments */
const SHEET_BEFORE_M = 0.25
/** Less than this is no cure, dB. */
const WORTH_DB = 0.5
/** A sheet larger than it must be is one that brings this much more, dB. */
const LARGER_WORTH_DB = 1

/** One thing that may be done, by itself or with another. */
interface Try {
  label: Words
  cost: Words
  gainDb: number
  steps: CureStep[]
  /** roughly what it takes, the least first */
  price: number
}

/** Raise, move, turn, screen, another antenna: the least of each; two together where none is enough; else less gain. */
function separationCures(c: Worked, loop: Loop): Cure[] {
  const now = loop.isolationDb
  const needed = neededOf(loop)
  const tries = [
    raising(c, loop),
    moving(c, loop),
    turning(c, loop),
    sheet(c, loop),
    ...otherAntennas(c, loop),
    longerLead(c, loop),
  ]
    .filter((t): t is Try => t !== null && t.gainDb > WORTH_DB)
    .sort((a, b) => Number(now + b.gainDb >= needed) - Number(now + a.gainDb >= needed) || a.price - b.price)
  const cures = tries.map((t): Cure => cureOf(t, now + t.gainDb >= needed))
  if (!cures.some(x => x.enough)) {
    const both = pairOfTries(c, loop, { tries, needed })
    if (both) cures.unshift(both)
  }
  const drop = Math.ceil(needed - now)
  const { part, node } = loop.at
  if (drop > 0 && part.gainDb - drop >= part.lowestGainDb)
    cures.push({
      label: `settle for ${drop} dB less gain`,
      gain: 'stable',
      cost: `${drop} dB less inside: ${num(100 * servedShare(drop))} % of the area served`,
      enough: true,
      steps: [{ table: 'nodes', op: 'update', rowId: node.id, fields: { own: { ...node.own, gainDb: part.gainDb - drop } } }],
    })
  return cures
}

/** One that runs, and not surely, is cured by what makes it sure. */
const neededOf = (loop: Loop): number => loop.neededDb + (loop.state === 'stable' ? loop.uncertainDb : 0)

const cureOf = (t: Try, enough: boolean): Cure => ({
  label: t.label,
  gain: `${signed(t.gainDb, 1)} dB`,
  cost: t.cost,
  enough,
  steps: t.steps,
})

/** Nobody raises a donor on a vehicle or a boat by metres, nor one that then stands under the roof. */
function raising(c: Worked, loop: Loop): Try | null {
  const { donor } = loop.worst
  if (movesAbout(c.job.kind)) return null
  const steps = (x: number): CureStep[] => [move(donor, { upM: round2(donor.node.upM + x) })]
  const least = leastMove(x => isolationAfter(c, loop, steps(x)), neededOf(loop), MOST_RAISE_M)
  const up = least ?? 3
  if (inside(c.building, { ...donor.node, upM: donor.node.upM + up })) return null
  const lead = leadOf(c, donor)
  return {
    label: words`raise the donor ${metres(up)}`,
    cost: lead?.line ? `−${num(lineLossDb(lead.line.constants, up, c.main.carrier.frequencyMHz), 1)} dB cable` : 'longer cable',
    gainDb: isolationAfter(c, loop, steps(up)) - loop.isolationDb,
    steps: moveSteps(c, steps(up)),
    price: 2 + up,
  }
}

function moving(c: Worked, loop: Loop): Try | null {
  const { site, chosen } = c
  const { donor, server } = loop.worst
  const sign = axisSign(site, chosen?.path ? chosen.frameBearingDeg : null)
  const here = along(site, server.node, sign)
  const away = here >= along(site, donor.node, sign) ? 1 : -1
  const steps = (x: number): CureStep[] => [move(server, moveAlong(site, server.node, here + away * x, sign))]
  const room = Math.max(0, site.lengthM / 2 - 0.3 - away * here)
  const least = leastMove(x => isolationAfter(c, loop, steps(x)), neededOf(loop), room)
  const by = least ?? Math.floor(room * 10) / 10
  if (by < 0.3) return null
  return {
    label: words`inside antenna ${metres(by)} along`,
    cost: 'longer cable',
    gainDb: isolationAfter(c, loop, steps(by)) - loop.isolationDb,
    steps: moveSteps(c, steps(by)),
    price: 1 + by / 2,
  }
}

function turning(c: Worked, loop: Loop): Try | null {
  const { donor, server } = loop.worst
  if (server.part.shape !== 'panel') return null
  const steps = [move(server, { azimuthDeg: Math.round(between(donor.node, server.node).bearingDeg) % 360 })]
  return {
    label: 'turn the panel away from the donor',
    cost: 'other rooms in front of it',
    gainDb: isolationAfter(c, loop, steps) - loop.isolationDb,
    steps,
    price: 0.5,
  }
}

/** The smallest sheet that is enough, before whichever of the two it serves better; else the one that brings most for its size. */
function sheet(c: Worked, loop: Loop): Try | null {
  const { donor, server } = loop.worst
  // No loose sheets of steel in a cab or a cabin, and none before what is to hear all round.
  if (movesAbout(c.job.kind) || hasSheet(c, server)) return null
  const before = [[server, donor, 'inside antenna'] as const, ...(isOmni(donor.part) ? [] : [[donor, server, 'donor'] as const])]
  const sides = c.main.carrier.frequencyMHz < LOW_MHZ ? SHEETS_M.filter(s => s >= LEAST_LOW_M) : SHEETS_M
  const tried = sides.flatMap(sideM =>
    before.map(([at, other, words]) => {
      const step = sheetStep(at, other, sideM)
      return { sideM, words, step, gainDb: isolationAfter(c, loop, [step]) - loop.isolationDb }
    }),
  )
  const enough = tried.find(t => loop.isolationDb + t.gainDb >= neededOf(loop))
  const most = tried.reduce((a, b) => (b.gainDb > a.gainDb + LARGER_WORTH_DB ? b : a))
  const best = enough ?? most
  return {
    label: words`steel sheet ${metres(best.sideM)} square, ${metres(SHEET_BEFORE_M)} before the ${best.words}`,
    cost: 'assumed; it shades what is behind it; a little aside of the line (20 cm) it does better than centred',
    gainDb: best.gainDb,
    steps: [best.step],
    price: 1 + best.sideM * 2,
  }
}

/** Another antenna in the place of one: a donor that hears less behind it, a panel that looks away. */
function otherAntennas(c: Worked, loop: Loop): Try[] {
  const { donor, server } = loop.worst
  const f = c.main.carrier.frequencyMHz
  const fits =
    (a: AntennaNode) =>
    (p: Part): p is AntennaPart =>
      p.kind === 'antenna' &&
      p.id !== a.part.id &&
      p.use === a.part.use &&
      p.ports.length === a.part.ports.length &&
      nth(p.ports, 0).connector === nth(a.part.ports, 0).connector &&
      nth(p.ports, 0).gender === nth(a.part.ports, 0).gender &&
      antennaAt(p, f).covered
  const facing = Math.round(between(donor.node, server.node).bearingDeg) % 360
  const best = (
    a: AntennaNode,
    label: Words,
    fields: Record<string, unknown>,
    wanted: (p: AntennaPart) => boolean,
  ): Try | null => {
    const tried = PARTS.filter(fits(a))
      .filter(wanted)
      .map(p => {
        const steps = [move(a, { partId: p.id, part: p, own: null, ...fields })]
        return { p, steps, gainDb: isolationAfter(c, loop, steps) - loop.isolationDb }
      })
    const found = tried.reduce<(typeof tried)[number] | null>((x, y) => (!x || y.gainDb > x.gainDb ? y : x), null)
    if (!found) return null
    return {
      label: words`${label}: ${found.p.name.toLowerCase()}`,
      cost: 'another antenna',
      gainDb: found.gainDb,
      steps: found.steps,
      price: 3 + (found.p.priceClass ?? 2),
    }
  }
  const ashore = !movesAbout(c.job.kind)
  const poles = (p: AntennaPart) => (p.mount ?? '').includes('pole')
  return [
    ashore
      ? best(donor, 'donor with more behind it kept out', {}, p => poles(p) && p.frontToBackDb > donor.part.frontToBackDb)
      : null,
    server.part.shape === 'panel' ? null : best(server, 'panel, turned away', { azimuthDeg: facing }, p => p.shape === 'panel'),
  ].filter((t): t is Try => t !== null)
}

/** More loss on purpose between donor and amplifier: as much quieter both ways round. */
function longerLead(c: Worked, loop: Loop): Try | null {
  const lead = leadOf(c, loop.worst.donor)
  if (!lead?.line || lead.run.measured) return null
  const next = lead.line.stockM.find(s => s > lead.run.lengthM + 0.1)
  if (!next) return null
  const steps: CureStep[] = [{ table: 'runs', op: 'update', rowId: lead.run.id, fields: { lengthM: next } }]
  const gainDb = isolationAfter(c, loop, steps) - loop.isolationDb
  return {
    label: words`donor cable of ${metres(next)}`,
    cost: `−${num(gainDb, 1)} dB of signal as well`,
    gainDb,
    steps,
    price: 6,
  }
}

/** The cheapest two that together are enough, where they do not touch the same thing. */
function pairOfTries(c: Worked, loop: Loop, { tries, needed }: { tries: readonly Try[]; needed: number }): Cure | null {
  const pairs = tries.flatMap((a, i) => tries.slice(i + 1).map(b => [a, b] as const)).sort((x, y) => priceOf(x) - priceOf(y))
  for (const [a, b] of pairs) {
    const touched = new Set(a.steps.filter(s => s.op === 'update').map(s => s.rowId))
    if (b.steps.some(s => touched.has(s.rowId))) continue
    const steps = [...a.steps, ...b.steps]
    const gainDb = isolationAfter(c, loop, steps) - loop.isolationDb
    if (loop.isolationDb + gainDb < needed) continue
    return {
      label: words`${a.label} and ${b.label}`,
      gain: `${signed(gainDb, 1)} dB`,
      cost: keyOf(a.cost) === keyOf(b.cost) ? words`${a.cost}, both` : words`${a.cost}; ${b.cost}`,
      enough: true,
      steps,
    }
  }
  return null
}
const priceOf = ([a, b]: readonly [Try, Try]): number => a.price + b.price

const move = (a: AntennaNode, fields: Partial<Fields<'nodes'>>): CureStep => update('nodes', a.node.id, fields)

const asChanges = (steps: readonly CureStep[]): Change[] =>
  steps.map(s => ({ id: '', table: s.table, rowId: s.rowId, op: s.op, baseVersion: 0, fields: { ...s.fields } }))

function isolationAfter(c: Worked, loop: Loop, steps: readonly CureStep[]): number {
  const doc = atPresentStop(applyChanges(c.doc, asChanges(steps)))
  const round = { ...c.main.round!, building: buildingOf(doc, c.building.measuredEntryDb) }
  const loops = loopsOf(treeOf(doc, c.design), round, c.design.marginDb)
  return loops.find(l => l.at.node.id === loop.at.node.id)?.isolationDb ?? -Infinity
}

const leadOf = (c: Worked, a: AntennaNode): Joint | undefined => c.tree.joints.find(j => j.from.at.node.id === a.node.id)

function hasSheet(c: Worked, server: AntennaNode): boolean {
  return c.doc.sheets.some(s => between(s, server.node).distanceM < 2 * SHEET_BEFORE_M)
}

/** A sheet square to the line between the two, just before one of them. */
function sheetStep(before: AntennaNode, other: AntennaNode, sideM: number): CureStep {
  const g = between(before.node, other.node)
  return {
    table: 'sheets',
    op: 'insert',
    rowId: 'new:sheet',
    fields: {
      name: 'Steel sheet',
      ...partWay(before.node, other.node, SHEET_BEFORE_M, 0.5),
      azimuthDeg: round2(g.bearingDeg % 360),
      tiltDeg: round2(g.elevationDeg),
      widthM: sideM,
      heightM: sideM,
      material: 'sheet metal',
      lossDb: null,
    },
  }
}
