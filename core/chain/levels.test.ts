/** The signal tree as the signal meets it, and the sum along it, on a hand-made house. */
import fc from 'fast-check'
import { beforeEach, describe, expect, it } from 'vitest'
import { partById, partOfKind, PARTS } from '../catalogue/parts'
import { wayM } from '../fitting/lengths'
import { screwOn } from '../fitting/splice'
import { noisePerElementDbm, rsrpToTotalDbm, toLinear } from '../radio/levels'
import { indoorLossDb } from '../coverage/indoor'
import { between, eavesM, moveAlong, ridgeM } from '../site/frame'
import { buildingOf, floorAt } from '../site/building'
import { cascadeNoiseFigureDb, lineLossDb, lossStage } from './line'
import { bandByName } from '../radio/bands'
import { assumedCarriers, entryLossDb } from './start'
import { CONNECTOR_PAIR_DB, exitsOf, jointLossDb, treeOf } from './tree'
import { House } from '../../tests/support/house'

let h: House
const tree = () => treeOf(h.doc, h.doc.designs[0]!)
const work = () => h.context().main!
const way = (): string[] => tree().visits.map(v => v.at.part.kind)

beforeEach(() => {
  h = new House('booster')
  // No mast: what is read is all that is known.
  h.design({ mastId: null })
})

describe('the tree', () => {
  it('of a booster is met in order: antenna, arrestor, amplifier, inside antenna', () =>
    expect(way()).toEqual(['antenna', 'arrestor', 'amplifier', 'antenna']))
  it('of a router has two feeds, two arrestors and two cables each', () => {
    h = new House('router')
    expect(way()).toEqual(['antenna', 'arrestor', 'adapter', 'router', 'antenna', 'arrestor', 'adapter', 'router'])
    expect(new Set(tree().visits.map(v => v.feed))).toEqual(new Set(['1', '2']))
    expect(tree().joints.filter(j => j.run.partId)).toHaveLength(4)
    expect(tree().open).toEqual([])
  })
  it('stops where a cable is missing', () => {
    h.remove('runs', h.doc.runs[0]!.id)
    expect(way()).toEqual(['antenna'])
    expect(tree().loose).toHaveLength(3)
    expect(h.codes()).toContain('choose.loose')
  })
  it('does not go round for ever', () => {
    h.cure({ steps: screwOn(tree().joints[2]!, 'to', 'spl-2') })
    h.cure({ steps: screwOn(tree().joints[0]!, 'to', 'spl-2') })
    const [inner, outer] = [h.part('splitter', 0), h.part('splitter', 1)]
    h.add('runs', { ...h.doc.runs[0]!, id: undefined, fromNodeId: inner.id, fromPort: '2', toNodeId: outer.id, toPort: '2' })
    expect(tree().visits.length).toBeLessThan(40)
  })
  it('does not mind which end a cable was drawn from', () => {
    const before = work()
    h.reads('Ridge', -95)
    const run = h.doc.runs[0]!
    const at = work().levels!.amplifiers[0]!.inputRsrpDbm
    h.set('runs', run.id, { fromNodeId: run.toNodeId, fromPort: run.toPort, toNodeId: run.fromNodeId, toPort: run.fromPort })
    expect(work().levels!.amplifiers[0]!.inputRsrpDbm).toBeCloseTo(at, 9)
    expect(before.levels).toBeNull()
  })
  it('knows a donor from a server by what it hangs on, whatever it was made for', () => {
    h.swap(h.server, 'ant-omni')
    const t = tree()
    expect(t.donors).toHaveLength(1)
    expect(t.servers.map(s => s.part.id)).toEqual(['ant-omni'])
  })
  it('takes a row of before, with neither ports nor a copy of its part', () => {
    const kinds = way()
    h.doc = {
      ...h.doc,
      nodes: h.doc.nodes.map(n => ({ ...n, part: null })),
      runs: h.doc.runs.map(r => ({ ...r, part: null, fromPort: null, toPort: null })),
    }
    expect(way()).toEqual(kinds)
  })
  it('a part that nobody knows is told and left out', () => {
    h.set('nodes', h.part('arrestor').id, { partId: 'gone', part: null })
    expect(tree().broken).toContain(h.doc.nodes.find(n => n.partId === 'gone')!.id)
    expect(h.finding('choose.unknown-part')?.severity).toBe('fix')
  })
  it('a maker’s figure entered on the part wins', () => {
    h.reads('Ridge', -110)
    h.place(h.donor, { own: { gainDbi: 12.5 } })
    h.set('nodes', h.part('amplifier').id, { own: { gainDb: 50 } })
    expect(work().levels!.ports[0]!.gainDb).toBeCloseTo(12.5, 9)
    expect(tree().amplifiers[0]!.part.gainDb).toBe(50)
  })
  it('is laid out in the house: antenna over the eaves, dome under the ceiling of the hall', () => {
    const site = h.doc.sites[0]!
    const b = buildingOf(h.doc)
    expect(h.donor.upM).toBeGreaterThan(eavesM(site))
    expect(h.donor.upM).toBeLessThan(ridgeM(site) + 1)
    expect(floorAt(b.floors, h.server.upM - 0.01).level).toBe(0)
    for (const j of tree().joints) expect(j.run.lengthM).toBeGreaterThanOrEqual(wayM('home', b, j.from.at.node, j.to.at.node))
  })
})

describe('where the signal’s way begins', () => {
  const start = () => work().levels?.sources[0]!.start
  it('at nothing, while nothing is read and no mast is chosen', () => expect(start()).toBeUndefined())
  it('at the reading nearest the mount, outdoors before indoors', () => {
    h.reads('Bedroom', -100).reads('Beside the house', -97)
    expect(start()!.spot!.name).toBe('Beside the house')
    h.reads('Ridge', -92)
    expect(start()!.spot!.name).toBe('Ridge')
  })
  it('not at an “after”, nor at what was withdrawn, nor at a reading through the antenna itself', () => {
    h.reads('Ridge', -60, 15, { phase: 'after' })
    const gone = h.read('Ridge', -61)
    h.reads('Ridge', -61, 15, { replacesId: gone, withdrawn: true })
    h.reads('Ridge', -62, 15, { device: 'outside antenna' })
    expect(start()).toBeUndefined()
  })
  it('three readings are surer than one', () => {
    h.reads('Ridge', -92)
    const one = start()!.sigmaDb
    h.reads('Ridge', -93).reads('Ridge', -91)
    expect(start()!.sigmaDb).toBeLessThan(one)
  })
  it('a phone and a router at one spot are joined without their own antennas', () => {
    h.reads('Ridge', -95).reads('Ridge', -92, 15, { device: 'router' })
    // −95 on a phone of −3 dBi and −92 on a router of 0 dBi are the same air.
    expect(start()!.rsrpDbm).toBeCloseTo(-92, 9)
  })
  it('what a wall took is added for a donor outside', () => {
    h.reads('Kitchen', -105)
    const s = start()!
    expect(s.wallDb).toBeGreaterThan(3)
    expect(s.rsrpDbm).toBeCloseTo(-102 + s.wallDb, 9)
    expect(s.provenance).toBe('assumed')
  })
  it('a donor indoors has the level read there, and nothing is added that was inside the reading', () => {
    h.reads('Bedroom', -101)
    const { eastM, northM, upM } = h.spot('Bedroom')
    h.place(h.donor, { eastM: eastM + 0.5, northM, upM })
    expect(start()!.wallDb).toBe(0)
    expect(start()!.rsrpDbm).toBeCloseTo(-98, 9)
    expect(start()!.provenance).toBe('measured')
  })
  it('a donor indoors loses the wall where only the outside was read', () => {
    h.reads('Ridge', -92)
    const { eastM, northM, upM } = h.spot('Bedroom')
    h.place(h.donor, { eastM, northM, upM })
    expect(start()!.wallDb).toBeLessThan(-3)
  })
  it('what both sides of the wall read replaces the table', () => {
    h.reads('Kitchen', -108).reads('Beside the house', -90)
    const b = h.context().building
    expect(b.measuredEntryDb).toBeCloseTo(18, 9)
    expect(entryLossDb(b, h.spot('Hall'), 806, null)).toBeCloseTo(18, 9)
  })
  it('the carrier’s width is what was read, else assumed', () => {
    h.reads('Ridge', -92, 15, { bandwidthMHz: null })
    expect(work().carrier).toMatchObject({ bandwidthMHz: 10, assumed: true })
    h.reads('Ridge', -92, 15, { bandwidthMHz: 20 })
    expect(work().carrier).toMatchObject({ bandwidthMHz: 20, assumed: false, resourceBlocks: 100 })
    h.design({ bandwidthMHz: 5 })
    expect(work().carrier).toMatchObject({ bandwidthMHz: 5, assumed: false })
  })
  it.each([7, 12, 40, 100])('a width of %i MHz, which no LTE carrier has, stops nothing', bandwidthMHz => {
    h.reads('Ridge', -92, 15, { bandwidthMHz })
    expect(h.assess().levels).not.toBeNull()
    expect(h.finding('survey.width')?.sentence).toMatch(/[Ss]everal carriers|NR/)
  })
})

describe('the sum', () => {
  beforeEach(() => void h.reads('Ridge', -95))
  it('by hand: −95 read, +3 for the phone, antenna, line, arrestor, line', () => {
    const line = partOfKind('line-400', 'line')!.constants
    const [first, second] = h.doc.runs
    const feed = lineLossDb(line, first!.lengthM, 806) + lineLossDb(line, second!.lengthM, 806) + 4 * CONNECTOR_PAIR_DB + 0.2
    expect(work().levels!.amplifiers[0]!.inputRsrpDbm).toBeCloseTo(-92 + 8 - feed, 9)
  })
  it('the amplifier’s input is total power: 50 blocks, and as many equal carriers as there is room for while nothing is known', () => {
    const amp = work().levels!.amplifiers[0]!
    expect(amp.inputAllDbm).toBeCloseTo(rsrpToTotalDbm(amp.inputRsrpDbm, 50) + 10 * Math.log10(3), 9)
    expect(amp.carriersFrom).toBe('assumed')
    h.design({ carriersInBand: 1 })
    expect(work().levels!.amplifiers[0]!.inputAllDbm).toBeCloseTo(rsrpToTotalDbm(amp.inputRsrpDbm, 50), 9)
  })
  it('four equal carriers are not assumed where there is room for one', () => {
    const most = (band: string, widthMHz: number) => assumedCarriers(bandByName(band)!, widthMHz)
    // 3GPP TS 36.101 table 5.5-1: B13 is 10 MHz wide, B20 30, B12 17, B3 75.
    expect([most('B13', 10), most('B20', 10), most('B20', 20), most('B12', 10), most('B3', 15), most('B3', 5)]).toEqual([
      1, 3, 1, 1, 4, 4,
    ])
  })
  it('a room gets what the dome sends less the way to it and the phone’s −3 dBi', () => {
    const w = work()
    const hall = w.rooms.find(r => r.spot.name === 'Hall')!
    const fed = w.levels!.servers[0]!.fedRsrpDbm
    const g = between(h.server, h.spot('Hall'))
    // The hall's phone is nearly under the dome, in the hole of its doughnut: −8.5 dBi at 15° off straight down, −3 at 30°.
    const off = 90 + Math.atan2(g.upM, g.groundM) * (180 / Math.PI)
    expect(off).toBeGreaterThan(15)
    expect(off).toBeLessThan(30)
    const gain = -8.5 + ((off - 15) / 15) * (-3 + 8.5)
    expect(hall.rsrpDbm).toBeCloseTo(fed + gain - indoorLossDb({ distanceM: g.distanceM, frequencyMHz: 806, n: 28 }) - 3, 6)
    expect(hall.floors).toBe(0)
    expect(w.rooms.find(r => r.spot.name === 'Study')!.floors).toBe(1)
  })
  it('moving the dome away from a room lowers its level', () => {
    const before = work().rooms.find(r => r.spot.name === 'Kitchen')!.rsrpDbm
    h.place(h.server, moveAlong(h.doc.sites[0]!, h.server, -5, 1))
    expect(work().rooms.find(r => r.spot.name === 'Kitchen')!.rsrpDbm).toBeLessThan(before)
  })
  it('a panel serves the rooms it faces', () => {
    h.swap(h.server, 'ant-panel-in')
    const kitchen = (azimuthDeg: number) => {
      h.place(h.server, { azimuthDeg })
      return work().rooms.find(r => r.spot.name === 'Kitchen')!.rsrpDbm
    }
    const toward = between(h.server, h.spot('Kitchen')).bearingDeg
    expect(kitchen(toward)).toBeGreaterThan(kitchen((toward + 180) % 360) + 10)
  })
  it('turning an antenna by 360° changes nothing', () => {
    h.swap(h.server, 'ant-panel-in')
    const at = (azimuthDeg: number) => {
      h.place(h.server, { azimuthDeg })
      return work().rooms.map(r => r.rsrpDbm)
    }
    const [once, again] = [at(0), at(360)]
    once.forEach((v, i) => expect(again[i]).toBeCloseTo(v, 9))
  })
  it('noise down to the inside antenna is Friis’ cascade', () => {
    h.design({ carriersInBand: 1 })
    const { levels } = work()
    const amp = levels!.amplifiers[0]!
    const server = levels!.servers[0]!
    const air = levels!.ports[0]!
    const before = air.rsrpDbm - amp.inputRsrpDbm
    const after = amp.outputRsrpDbm - server.fedRsrpDbm
    const nf = cascadeNoiseFigureDb([
      lossStage(before),
      { gainDb: amp.gainDb, noiseFigureDb: amp.at.part.noiseFigureDb },
      lossStage(after),
    ])
    expect(server.noiseDbm).toBeCloseTo(noisePerElementDbm(0) + nf + (server.fedRsrpDbm - air.rsrpDbm), 6)
  })
  it('what is assumed is named in the promise', () =>
    expect(h.assess().promise!.assumptions.map(a => a.words)).toEqual([
      'share of the cell (no speed test with SINR)',
      'upload (none tested, with its level)',
      '3 carriers in the amplifier’s band',
      'cable lengths not measured',
    ]))
})

describe('what forks', () => {
  const split = (parts: string[]) => {
    h.reads('Ridge', -95)
    const run = tree().joints.find(j => j.to.at.part.kind === 'antenna')!
    return h.cure({ steps: screwOn(run, 'to', parts[0]!) })
  }
  it('a two-way splitter costs 3 dB and what real parts add, and its open output is told', () => {
    h.reads('Ridge', -95)
    // So high that its loop holds nothing back, with the splitter or without it.
    h.place(h.donor, { upM: 20 })
    const before = work().levels!.servers[0]!.fedRsrpDbm
    split(['spl-2'])
    expect(before - work().levels!.servers[0]!.fedRsrpDbm).toBeCloseTo(3.01 + 0.4 + CONNECTOR_PAIR_DB, 2)
    expect(h.codes()).toContain('choose.open-port')
  })
  it('powers after a split never sum to more than before', () => {
    fc.assert(
      fc.property(fc.constantFrom(...PARTS.filter(p => p.kind === 'splitter' || p.kind === 'tap')), part => {
        if (part.kind !== 'splitter' && part.kind !== 'tap') return
        const out = exitsOf(
          part,
          part.ports.find(p => p.role === 'in')!,
        )
        expect(out.reduce((sum, e) => sum + toLinear(e.gainDb), 0)).toBeLessThanOrEqual(1)
      }),
    )
  })
  it('a passive way loses the same both ways', () => {
    for (const part of PARTS) {
      if (part.kind === 'line' || part.kind === 'amplifier' || part.kind === 'router' || part.kind === 'antenna') continue
      for (const from of part.ports) {
        for (const to of exitsOf(part, from)) {
          const back = exitsOf(part, to.port).find(e => e.port.id === from.id)
          expect(back?.gainDb, `${part.name} ${from.id} ${to.port.id}`).toBeCloseTo(to.gainDb, 9)
        }
      }
    }
  })
  it('two donors into one amplifier add their powers, and each keeps its own way', () => {
    h.reads('Ridge', -95)
    const joint = tree().joints.find(j => j.to.port.role === 'donor')!
    h.cure({ steps: screwOn(joint, 'to', 'spl-2') })
    const combiner = h.part('splitter')
    // Turned round, its outputs are inputs: the first donor comes by one, a second by the other.
    const lead = h.doc.runs.find(r => r.toNodeId === combiner.id)!
    const out = h.doc.runs.find(r => r.fromNodeId === combiner.id)!
    h.set('runs', lead.id, { toPort: '1' }).set('runs', out.id, { fromPort: 'in' })
    const one = work().levels!.amplifiers[0]!.inputAllDbm
    const second = h.add('nodes', { ...h.donor, id: undefined, northM: 3 })
    h.add('runs', { ...lead, id: undefined, fromNodeId: second, fromPort: '1', toPort: '2' })
    expect(tree().donors).toHaveLength(2)
    const { levels } = work()
    const arrivals = levels!.ports.filter(l => l.visit.entry?.role === 'donor').map(l => l.entryRsrpDbm)
    expect(arrivals).toHaveLength(2)
    const first = rsrpToTotalDbm(arrivals[0]!, 50) + 10 * Math.log10(3)
    expect(first).toBeCloseTo(one, 9)
    expect(levels!.amplifiers[0]!.inputAllDbm).toBeCloseTo(one + 10 * Math.log10(1 + toLinear(arrivals[1]! - arrivals[0]!)), 9)
  })
  it('a joint costs its line and two pairs of connectors; one pair where parts are screwed together', () => {
    const joint = tree().joints[0]!
    expect(jointLossDb(joint, 806)).toBeCloseTo(
      lineLossDb(joint.line!.constants, joint.run.lengthM, 806) + 2 * CONNECTOR_PAIR_DB,
      9,
    )
    expect(jointLossDb({ line: null, leads: [], run: { ...joint.run, partId: null } }, 806)).toBe(CONNECTOR_PAIR_DB)
    expect(partById('adp-n-sma')!.kind).toBe('adapter')
  })
})
