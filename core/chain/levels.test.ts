/** The kit as the signal meets it, and the sum along it, on a hand-made house. */
import { beforeEach, describe, expect, it } from 'vitest'
import { partOfKind } from '../catalogue/parts'
import { lineLossDb } from './line'
import { indoorLossDb } from '../coverage/indoor'
import { rsrpToTotalDbm } from '../radio/levels'
import { countedIds } from '../../demo/scenario'
import { assess, promiseInputs } from '../judge/assess'
import { applyChanges } from '../job/changes'
import { bandwidthOf, computeChain, loopOf, startOfChain } from './levels'
import { kitChanges, newJobChanges, ROOF_DB, SLACK_M } from '../job/defaults'
import { between, eavesM, moveAlong, ridgeM, storeyOf } from '../site/frame'
import { CONNECTOR_PAIR_DB, passLossDb, resolveKit, runLossDb } from './tree'
import { emptyDocument } from '../job/schema'
import type { Change, JobDocument } from '../job/schema'
import { logIndex, summariseAll } from '../survey/spots'

const AT = '2026-04-03T12:00:00.000Z'
let id: () => string
let doc: JobDocument

const edit = (table: Change['table'], rowId: string, fields: Record<string, unknown>) => {
  doc = applyChanges(doc, [{ id: id(), table, rowId, op: 'update', baseVersion: 0, fields }])
}
const add = (table: Change['table'], fields: Record<string, unknown>) => {
  const rowId = id()
  doc = applyChanges(doc, [{ id: id(), table, rowId, op: 'insert', baseVersion: 0, fields }])
  return rowId
}
const spot = (name: string) => doc.spots.find(s => s.name === name)!
const read = (at: string, rsrpDbm: number, o: Record<string, unknown> = {}) =>
  add('readings', {
    spotId: spot(at).id,
    takenAtUtc: AT,
    phase: 'before',
    replacesId: null,
    withdrawn: false,
    stopId: null,
    technology: 'LTE',
    band: 'B20',
    channel: null,
    bandwidthMHz: 10,
    cellId: null,
    rsrpDbm,
    rsrqDb: null,
    sinrDb: 15,
    device: 'phone',
    ...o,
  })
const kit = () => resolveKit(doc, doc.designs[0]!)
const chain = () => computeChain(doc, logIndex(doc), kit(), null, doc.sites[0]!)!

beforeEach(() => {
  id = countedIds(900)
  doc = applyChanges(emptyDocument(), newJobChanges({ name: 'x', latDeg: 50, lonDeg: -30, zone: 'UTC' }, id).changes)
  doc = applyChanges(doc, kitChanges(doc, doc.designs[0]!, 'booster', null, id))
  edit('designs', doc.designs[0]!.id, { band: 'B20' })
})

describe('the kit', () => {
  it('is met in order: antenna, arrestor, amplifier, inside antenna', () =>
    expect(kit().order.map(s => s.node.role)).toEqual(['outside', 'arrestor', 'amplifier', 'inside']))
  it('stops where a cable is missing, and does not go round for ever', () => {
    const [first, , third] = doc.runs
    edit('runs', third!.id, { toNodeId: first!.fromNodeId })
    expect(kit().order).toHaveLength(3)
    doc = applyChanges(doc, [{ id: id(), table: 'runs', rowId: first!.id, op: 'delete', baseVersion: 0, fields: {} }])
    expect(kit().order.map(s => s.node.role)).toEqual(['outside'])
  })
  it('a run costs its line and two pairs of connectors', () => {
    const line = partOfKind('line-400', 'line')!
    const run = doc.runs[0]!
    expect(runLossDb(run, line, 806)).toBeCloseTo(lineLossDb(line.constants, run.lengthM, 806) + 2 * CONNECTOR_PAIR_DB, 9)
    expect(passLossDb(doc.nodes.find(n => n.role === 'arrestor')!)).toBe(0.2)
    expect(passLossDb(doc.nodes.find(n => n.role === 'amplifier')!)).toBe(0)
  })
  it('a maker’s figure entered on the part wins', () => {
    edit('nodes', doc.nodes.find(n => n.role === 'outside')!.id, { gainDb: 12.5 })
    edit('nodes', doc.nodes.find(n => n.role === 'amplifier')!.id, { gainDb: 50 })
    expect(kit().outside!.pattern.gainDbi).toBe(12.5)
    expect(kit().amplifier!.part.gainDb).toBe(50)
  })
  it('is laid out in the house: antenna over the eaves, dome under the ceiling of the hall', () => {
    const site = doc.sites[0]!
    expect(kit().outside!.node.upM).toBeGreaterThan(eavesM(site))
    expect(kit().outside!.node.upM).toBeLessThan(ridgeM(site) + 1)
    expect(storeyOf(site, kit().inside!.node.upM - 0.01)).toBe(0)
    const reach = kit().outside!.node.upM - 1.2 + SLACK_M
    expect(doc.runs[0]!.lengthM).toBeGreaterThanOrEqual(reach)
    expect(doc.designs[0]!.obstructionDb).toBe(ROOF_DB)
  })
})

describe('where the chain starts', () => {
  it('at nothing, while nothing is read and no mast is chosen', () => expect(chain()).toBeNull())
  it('at the reading nearest the mount, outdoors before indoors', () => {
    read('Bedroom', -100)
    read('Beside the house', -97)
    expect(startOfChain(doc, logIndex(doc), kit(), null, 10)!.spot!.name).toBe('Beside the house')
    read('Ridge', -92)
    expect(startOfChain(doc, logIndex(doc), kit(), null, 10)!.spot!.name).toBe('Ridge')
  })
  it('not at an “after”, nor at what was withdrawn, nor at a reading through the antenna itself', () => {
    read('Ridge', -60, { phase: 'after' })
    const gone = read('Ridge', -61)
    read('Ridge', -61, { replacesId: gone, withdrawn: true })
    read('Ridge', -62, { device: 'outside antenna' })
    expect(chain()).toBeNull()
  })
  it('three readings are surer than one', () => {
    read('Ridge', -92)
    const one = startOfChain(doc, logIndex(doc), kit(), null, 10)!.sigmaDb
    read('Ridge', -93)
    read('Ridge', -91)
    expect(startOfChain(doc, logIndex(doc), kit(), null, 10)!.sigmaDb).toBeLessThan(one)
  })
  it('the carrier’s width is what was read, else assumed', () => {
    expect(bandwidthOf(logIndex(doc), kit())).toEqual({ bandwidthMHz: 10, assumed: true })
    read('Ridge', -92, { bandwidthMHz: 20 })
    expect(bandwidthOf(logIndex(doc), kit())).toEqual({ bandwidthMHz: 20, assumed: false })
    edit('designs', doc.designs[0]!.id, { bandwidthMHz: 5 })
    expect(bandwidthOf(logIndex(doc), kit())).toEqual({ bandwidthMHz: 5, assumed: false })
  })
})

describe('the sum', () => {
  beforeEach(() => void read('Ridge', -95))
  it('by hand: −95 read, +3 for the phone, 50 blocks, antenna, line, arrestor, line', () => {
    const c = chain()
    const line = partOfKind('line-400', 'line')!.constants
    const [first, second] = doc.runs
    const feed = lineLossDb(line, first!.lengthM, 806) + lineLossDb(line, second!.lengthM, 806) + 4 * CONNECTOR_PAIR_DB + 0.2
    expect(c.feedLossDb).toBeCloseTo(feed, 9)
    expect(c.portDbm).toBeCloseTo(rsrpToTotalDbm(-92, 50) + 8 - feed, 9)
    expect(c.portRsrpDbm).toBeCloseTo(-92 + 8 - feed, 9)
  })
  it('a room gets what the dome sends less the way to it and the phone’s −3 dBi', () => {
    const c = chain()
    const hall = c.rooms.find(r => r.spot.name === 'Hall')!
    const fed = c.stages.find(s => s.kind === 'inside')!
    const way = between(kit().inside!.node, spot('Hall')).distanceM
    expect(hall.rsrpDbm).toBeCloseTo(fed.levelDbm - indoorLossDb(way, 806, 0) - 3 - 10 * Math.log10(600), 9)
    expect(hall.floors).toBe(0)
    expect(c.rooms.find(r => r.spot.name === 'Study')!.floors).toBe(1)
  })
  it('moving the dome away from a room lowers its level', () => {
    const before = chain().rooms.find(r => r.spot.name === 'Kitchen')!.rsrpDbm
    const inside = kit().inside!.node
    edit('designs', doc.designs[0]!.id, { obstructionDb: 40 })
    const still = chain().rooms.find(r => r.spot.name === 'Kitchen')!.rsrpDbm
    edit('nodes', inside.id, moveAlong(doc.sites[0]!, inside, -5, 1))
    expect(chain().rooms.find(r => r.spot.name === 'Kitchen')!.rsrpDbm).toBeLessThan(still)
    // With the loop out of the way the amplifier gives more.
    expect(still).toBeGreaterThan(before)
  })
  it('the loop is reckoned at the lower of uplink and downlink, gains toward each other', () => {
    const loop = loopOf(kit(), null)!
    expect(loop.alongM).toBeCloseTo(between(kit().outside!.node, kit().inside!.node).groundM, 9)
    expect(loop.neededDb).toBe(62 + 15)
    expect(loop.isolationDb).toBeLessThanOrEqual(70)
  })
  it('what is assumed is named in the promise', () => {
    const a = assess(doc, { paths: {} }, { atUtc: AT })
    const { assumptions } = promiseInputs(doc, summariseAll(doc, logIndex(doc), 'before'), a.chain!, a.kit!)
    expect(assumptions).toEqual([
      'share of the cell (no speed test with SINR)',
      '4 carriers in the amplifier’s band',
      'cable lengths not measured',
    ])
  })
})
