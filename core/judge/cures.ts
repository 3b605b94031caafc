/** Cures that take a search: worked out when their finding is opened, on the device. */
import type { Evidence } from '../aim/bearings'
import { treeOf } from '../chain/tree'
import type { AntennaNode, Joint } from '../chain/tree'
import { applyChanges } from '../job/changes'
import type { Change, JobDocument } from '../job/schema'
import { lineLossDb } from '../chain/line'
import { stockLengthM, wayM } from '../fitting/lengths'
import { leastMove } from '../separation/isolation'
import { loopsOf } from '../separation/loop'
import type { Loop } from '../separation/loop'
import { buildingOf } from '../site/building'
import { along, axisSign, between, moveAlong, round2 } from '../site/frame'
import { atPresentStop } from '../survey/place'
import { mToken, num, signed } from '../units'
import { contextOf } from './context'
import type { Context } from './context'
import type { Cure, CureStep } from './finding'

/** @returns the cures of a finding that says `solves`; none where it is no longer there */
export function solveCures(document: JobDocument, evidence: Evidence, key: string, atUtc: string): Cure[] {
  const [code, nodeId] = key.split(':')
  if (code !== 'place.loop') return []
  const c = contextOf(document, evidence, atUtc)
  const loop = c.main?.loops.find(l => l.at.node.id === nodeId)
  return loop ? separationCures(c, loop) : []
}

/** As far as an antenna is raised for a cure, m. */
const MOST_RAISE_M = 8
const SHEET_M = 1.2
/** Before an inside antenna, toward the donor: near enough to shadow it, far enough not to detune it, m. */
const SHEET_BEFORE_M = 0.5
/** Less than this is no cure, dB. */
const WORTH_DB = 0.5

/** Raise the donor, move or turn the inside antenna, hang a sheet: the least of each; else settle for less gain. */
function separationCures(c: Context, loop: Loop): Cure[] {
  const { site, chosen } = c
  const sign = axisSign(site, chosen?.path ? chosen.frameBearingDeg : null)
  const { donor, server } = loop.worst
  const now = loop.isolationDb
  const needed = loop.neededDb
  const after = (steps: readonly CureStep[]): number => isolationAfter(c, loop, steps)
  const cures: Cure[] = []

  const raised = (x: number): CureStep[] => [move(donor, { upM: round2(donor.node.upM + x) })]
  const raise = leastMove(x => after(raised(x)), needed, MOST_RAISE_M)
  const up = raise ?? 3
  const byRaising = after(raised(up)) - now
  const lead = leadOf(c, donor)
  if (byRaising > WORTH_DB)
    cures.push({
      label: `raise the donor ${mToken(up)}`,
      gain: `${signed(byRaising, 1)} dB`,
      cost: lead?.line
        ? `−${num(lineLossDb(lead.line.constants, up, c.main!.carrier.frequencyMHz), 1)} dB cable`
        : 'longer cable',
      enough: raise !== null,
      steps: [...raised(up), ...longer(c, raised(up))],
    })

  const away = along(site, server.node, sign) >= along(site, donor.node, sign) ? 1 : -1
  const shifted = (x: number): CureStep[] => [
    move(server, moveAlong(site, server.node, along(site, server.node, sign) + away * x, sign)),
  ]
  const room = Math.max(0, site.lengthM / 2 - 0.3 - away * along(site, server.node, sign))
  const least = leastMove(x => after(shifted(x)), needed, room)
  const by = least ?? Math.floor(room * 10) / 10
  const byMoving = by >= 0.3 ? after(shifted(by)) - now : 0
  if (byMoving > WORTH_DB)
    cures.push({
      label: `inside antenna ${mToken(by)} along`,
      gain: `${signed(byMoving, 1)} dB`,
      cost: least !== null ? 'longer cable' : 'not enough alone',
      enough: least !== null,
      steps: [...shifted(by), ...longer(c, shifted(by))],
    })

  if (server.part.shape === 'panel') {
    const facing = Math.round(between(donor.node, server.node).bearingDeg)
    const turned = [move(server, { azimuthDeg: facing % 360 })]
    const byTurning = after(turned) - now
    if (byTurning > WORTH_DB)
      cures.push({
        label: 'turn the panel away from the donor',
        gain: `${signed(byTurning, 1)} dB`,
        cost: 'other rooms in front of it',
        enough: now + byTurning >= needed,
        steps: turned,
      })
  }

  const sheet = sheetStep(donor, server)
  const bySheet = after([sheet]) - now
  if (bySheet > WORTH_DB && !hasSheet(c, server))
    cures.push({
      label: `steel sheet ${mToken(SHEET_M)} square before the inside antenna`,
      gain: `${signed(bySheet, 1)} dB`,
      cost: 'assumed; it shades what is behind it',
      enough: now + bySheet >= needed,
      steps: [sheet],
    })
  if (raise === null && bySheet > WORTH_DB && now + bySheet < needed && !hasSheet(c, server)) {
    const both = [...raised(2), sheet]
    const gain = after(both) - now
    cures.push({
      label: `raise the donor ${mToken(2)} and hang a steel sheet`,
      gain: `${signed(gain, 1)} dB`,
      cost: 'sheet assumed, longer cable',
      enough: now + gain >= needed,
      steps: [...both, ...longer(c, raised(2))],
    })
  }
  const sorted = cures.sort((a, b) => Number(b.enough) - Number(a.enough))
  const drop = Math.ceil(needed - now)
  const { part, node } = loop.at
  if (drop > 0 && part.gainDb - drop >= part.lowestGainDb)
    sorted.push({
      label: `settle for ${drop} dB less gain`,
      gain: 'stable',
      cost: `${drop} dB less inside`,
      enough: true,
      steps: [{ table: 'nodes', op: 'update', rowId: node.id, fields: { own: { ...node.own, gainDb: part.gainDb - drop } } }],
    })
  return sorted
}

const move = (a: AntennaNode, fields: Record<string, unknown>): CureStep => ({
  table: 'nodes',
  op: 'update',
  rowId: a.node.id,
  fields,
})

const asChanges = (steps: readonly CureStep[]): Change[] =>
  steps.map(s => ({ id: '', table: s.table, rowId: s.rowId, op: s.op, baseVersion: 0, fields: s.fields }))

function isolationAfter(c: Context, loop: Loop, steps: readonly CureStep[]): number {
  const doc = atPresentStop(applyChanges(c.doc, asChanges(steps)))
  const round = { ...c.main!.round!, building: buildingOf(doc, c.building.measuredEntryDb) }
  const loops = loopsOf(treeOf(doc, c.design!), round, c.design!.marginDb)
  return loops.find(l => l.at.node.id === loop.at.node.id)?.isolationDb ?? -Infinity
}

const leadOf = (c: Context, a: AntennaNode): Joint | undefined => c.tree!.joints.find(j => j.from.at.node.id === a.node.id)

function hasSheet(c: Context, server: AntennaNode): boolean {
  return c.doc.sheets.some(s => between(s, server.node).distanceM < 2 * SHEET_BEFORE_M)
}

/** A sheet square to the line between the two, just before the inside antenna. */
function sheetStep(donor: AntennaNode, server: AntennaNode): CureStep {
  const g = between(server.node, donor.node)
  const share = Math.min(0.5, SHEET_BEFORE_M / g.distanceM)
  const at = (a: number, b: number) => round2(a + share * (b - a))
  return {
    table: 'sheets',
    op: 'insert',
    rowId: 'new:sheet',
    fields: {
      name: 'Steel sheet',
      eastM: at(server.node.eastM, donor.node.eastM),
      northM: at(server.node.northM, donor.node.northM),
      upM: at(server.node.upM, donor.node.upM),
      azimuthDeg: round2(g.bearingDeg % 360),
      tiltDeg: round2(g.elevationDeg),
      widthM: SHEET_M,
      heightM: SHEET_M,
      material: 'sheet metal',
      lossDb: null,
    },
  }
}

/** Cables of the parts that are moved take the next stock length where theirs no longer reaches; measured ones stay. */
export function longer(c: Pick<Context, 'doc' | 'job' | 'building' | 'tree'>, moves: readonly CureStep[]): CureStep[] {
  const to = new Map(moves.filter(m => m.table === 'nodes').map(m => [m.rowId, m.fields]))
  return c.tree!.joints.flatMap((j): CureStep[] => {
    if (!j.run.partId || j.run.measured) return []
    if (!to.has(j.from.at.node.id) && !to.has(j.to.at.node.id)) return []
    const at = (n: Joint['from']['at']['node']) => ({ ...n, ...to.get(n.id) })
    const neededM = wayM(c.job.kind, c.building, at(j.from.at.node), at(j.to.at.node))
    if (j.run.lengthM >= neededM - 0.05) return []
    return [{ table: 'runs', op: 'update', rowId: j.run.id, fields: { lengthM: stockLengthM(j.line, neededM) } }]
  })
}
