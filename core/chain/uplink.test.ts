/** What a booster radiates, worked out by hand from its parts. */
import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { keepAwayM } from '../radio/exposure'
import { lineLossDb } from './line'
import { CONNECTOR_PAIR_DB } from './tree'
import { consumerLimits, toAirOf, uplinksOf } from './uplink'

function booster() {
  const h = new House('booster')
  h.reads('Ridge', -90).reads('Kitchen', -112)
  return { h, c: h.context() }
}

describe('what leaves toward the mast', () => {
  it('from the donor port into the air: the antenna’s gain less every cable, plug and arrestor between, and positive here', () => {
    const { h, c } = booster()
    const levels = c.main!.levels!
    const amp = levels.amplifiers[0]!
    const f = c.main!.carrier.frequencyMHz
    const visits = c.tree!.visits
    const at = visits.findIndex(v => v.at.node.id === amp.at.node.id && v.entry?.role === 'donor')
    let lossDb = 0
    for (let i = at; visits[i]!.parent >= 0; i = visits[i]!.parent) {
      const { joint, parent } = visits[i]!
      lossDb += joint!.line ? lineLossDb(joint!.line.constants, joint!.run.lengthM, f) + 2 * CONNECTOR_PAIR_DB : CONNECTOR_PAIR_DB
      const before = visits[parent]!.at.part
      if ('lossDb' in before) lossDb += before.lossDb
    }
    const { pattern } = levels.sources[0]!.turned
    const toAirDb = toAirOf(levels, amp)!
    // What the mast’s direction costs the pattern is in the reading’s start too: the antenna looks at it.
    expect(toAirDb).toBeCloseTo(pattern.gainDbi - lossDb, 0)
    expect(lossDb).toBeGreaterThan(1)
    expect(toAirDb).toBeLessThan(pattern.gainDbi)
    expect(h.donor).toBeDefined()
  })
  it('a longer cable to the donor radiates less, by what it takes; a donor of more gain radiates more, by that', () => {
    const { h, c } = booster()
    const of = (x: House) => {
      const levels = x.context().main!.levels!
      return toAirOf(levels, levels.amplifiers[0]!)!
    }
    const before = of(h)
    const run = h.doc.runs.find(r => r.fromNodeId === h.donor.id)!
    const line = c.tree!.joints.find(j => j.run.id === run.id)!.line!
    const f = c.main!.carrier.frequencyMHz
    h.set('runs', run.id, { lengthM: run.lengthM + 10, measured: true })
    expect(of(h) - before).toBeCloseTo(-lineLossDb(line.constants, 10, f), 2)
    h.set('runs', run.id, { lengthM: run.lengthM })
    const gain = c.main!.levels!.sources[0]!.turned.pattern.gainDbi
    h.set('nodes', h.donor.id, { own: { gainDbi: gain + 3 } })
    expect(of(h) - before).toBeCloseTo(3, 2)
  })
  it('its own noise toward the mast is −114 dBm/MHz, its noise figure, its gain and what the antenna adds', () => {
    const { c } = booster()
    const levels = c.main!.levels!
    const [up] = uplinksOf(levels)
    const { part } = up!.amplifier.at
    // kTB in 1 MHz at 290 K: −174 dBm/Hz + 60 dB.
    expect(up!.noiseDbmPerMHz).toBeCloseTo(-114 + part.noiseFigureDb + up!.amplifier.gainDb, 1)
    expect(up!.noiseEirpDbmPerMHz - up!.noiseDbmPerMHz).toBeCloseTo(toAirOf(levels, up!.amplifier)!, 6)
  })
  it('people stay further from an antenna that radiates more, and the distance is one of FCC OET 65: d = √(EIRP / 4πS)', () => {
    // 836 MHz, general public: S = f/1500 mW/cm² = 5.573 W/m². @source FCC OET 65, from memory
    const eirpW = 10 ** ((30 + 8 - 30) / 10)
    const d = Math.sqrt(eirpW / (4 * Math.PI * (836 / 150)))
    expect(keepAwayM('FCC OET 65', [{ eirpDbm: 38, frequencyMHz: 836 }])).toBeCloseTo(d, 2)
  })
  it('a consumer booster’s limits are those of 47 CFR 20.21(e), from memory', () => {
    const at = consumerLimits({ use: 'fixed' }, { uplinkMHz: 836.5 }, -60)
    expect(at.gainDb).toBeCloseTo(6.5 + 20 * Math.log10(836.5), 6)
    expect(at).toMatchObject({ outputDbm: 17, uplinkOutputDbm: 30, noiseDbmPerMHz: -102.5 + 20 * Math.log10(836.5) })
    expect(consumerLimits({ use: 'mobile' }, { uplinkMHz: 836.5 }, -60)).toMatchObject({ gainDb: 50, noiseDbmPerMHz: -59 })
  })
})
