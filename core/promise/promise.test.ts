import { describe, expect, it } from 'vitest'
import { carrierRateMbps } from '../radio/rate'
import { advise } from '../solve/advisor'
import { summarise } from '../survey/stats'
import { byTests, calibrateShare, discriminationOf, draw, measureNext, metOf, outcome, sayExpected } from './promise'
import type { AddedCarrier, PromiseInputs } from './promise'
import { AT, House } from '../../tests/support/house'

const base: PromiseInputs = {
  mountRsrpDbm: { mean: -88, sigma: 3 },
  readRsrpDbm: { mean: -91, sigma: 1.5 },
  readSinrDb: { mean: 12, sigma: 1.5 },
  netGainDb: { mean: 5, sigma: 1.5 },
  discriminationDb: discriminationOf(70),
  share: { mean: 0.4, sigma: 0.06 },
  shareSinrDb: null,
  measuredUp: { mbps: { mean: 1.2, sigma: 0.2 }, rsrpDbm: { mean: -91, sigma: 1 } },
  bandwidthMHz: 10,
  layers: 2,
  capMbps: null,
  capUpMbps: null,
  portLimitMbps: 940,
  noiseFigureDb: 9,
  mastElementDbm: 18,
  booster: null,
  added: [],
}
const sending = { up: 1.2, upRsrp: -91, p0: -95, alpha: 0.9, linkUp: 1 }
const middle = { mount: -88, readRsrp: -91, readSinr: 12, net: 5, discrimination: 0, share: 0.4, toPhone: 0, link: 0, ...sending }

describe('in words', () => {
  it('never below nothing', () => {
    expect(sayExpected({ median: 5.8, low: 3.6, high: 8, plusMinus: 2.2 })).toBe('5.8 ± 2.2')
    expect(sayExpected({ median: 42.4, low: 30, high: 56, plusMinus: 13 })).toBe('42 ± 13')
    expect(sayExpected({ median: 0.4, low: 0.02, high: 8.8, plusMinus: 4.4 })).toBe('0.0 to 8.8')
  })
})

describe('what an antenna does', () => {
  it('a noise-limited place gains dB for dB', () => {
    // RSRP −118 with SINR 5.2 leaves nothing but the receiver's own noise (−123.2 dBm).
    const z = { ...middle, readRsrp: -118, readSinr: 5.2, mount: -115 }
    expect(outcome(base, { ...z, net: 8 }).sinr - outcome(base, { ...z, net: 2 }).sinr).toBeGreaterThan(5.5)
  })
  it('an interference-limited one gains only what the beam keeps out', () => {
    const z = { ...middle, readRsrp: -80, readSinr: 2, mount: -77 }
    const omni = outcome(base, { ...z, net: 12 }).sinr
    expect(omni).toBeCloseTo(2, 0)
    expect(outcome(base, { ...z, net: 12, discrimination: 5 }).sinr - omni).toBeCloseTo(5, 0)
  })
  it('a booster cannot better the donor’s SINR', () => {
    for (const gainDb of [40, 60, 80]) {
      const p = {
        ...base,
        booster: {
          gainDb,
          noiseDbm: -126 + gainDb,
          toPhoneDb: { mean: -70, sigma: 0 },
          upGainDb: gainDb - 70,
          upMostDbm: 30,
          directRsrpDbm: null,
        },
      }
      const donor = outcome(base, middle).sinr
      expect(outcome(p, { ...middle, toPhone: -70 }).sinr).toBeLessThanOrEqual(donor + 0.01)
    }
  })
  it('never promises past the plan’s cap or the port', () => {
    expect(draw({ ...base, capMbps: 10 }).down.high).toBeLessThanOrEqual(10)
    expect(draw({ ...base, portLimitMbps: 6 }).down.high).toBeLessThanOrEqual(6)
  })
})

describe('the promise’s width', () => {
  it('is the same every time', () => expect(draw(base)).toEqual(draw(base)))
  it('narrows as the inputs do, and the next measurement says by how much', () => {
    const wide = { ...base, readSinrDb: { mean: 12, sigma: 5 } }
    const now = draw(wide)
    expect(now.down.plusMinus).toBeGreaterThan(draw(base).down.plusMinus)
    const next = measureNext(wide, now, { mount: 'Ridge', room: 'Kitchen' })!
    expect(next.id).toBe('sinr')
    expect(next.to).toBeLessThan(next.from)
  })
  it('calibrating by the baseline gives its own speed back', () => {
    const share = calibrateShare(5.2, 0.2, [{ sinrDb: { mean: 4, sigma: 0 }, bandwidthMHz: 10 }], 2)
    expect(share.mean * carrierRateMbps(4, 10, 2)).toBeCloseTo(5.2, 9)
  })
})

describe('what was tested just so', () => {
  const of = (...mbps: number[]) => byTests(summarise(mbps)!, 0.2)
  it('three tests about 24 are 24 (21 to 27); one has the usual spread, never ± 0', () => {
    expect(sayExpected(of(22, 24, 26))).toBe('24 (21 to 27)')
    // ± 1.645 · 20 %.
    expect(sayExpected(of(24))).toBe('24 (16 to 32)')
    for (const n of [1, 2, 3, 5]) expect(of(...new Array<number>(n).fill(24)).plusMinus).toBeGreaterThan(1)
  })
  it('what is met takes three', () => {
    expect(metOf(of(24, 25), 10)).toBe('open')
    expect(metOf(of(24, 25, 24), 10)).toBe('likely')
    expect(metOf(of(4, 4), 10)).toBe('unlikely')
  })
  it('rule at the window where the modem was tried', () => {
    const h = new House('router')
    for (let i = 0; i < 3; i++) h.reads('Kitchen', -112, 3).speed('Kitchen', 3, 0.4)
    for (const mbps of [22, 24, 26]) h.reads('Hall', -98, 11).speed('Hall', mbps, 4)
    const window = advise(h.doc, h.evidence, AT).advice.find(a => a.id === 'window')!
    expect(sayExpected(window.down!)).toBe('24 (21 to 27)')
  })
})

describe('SIMs never mix', () => {
  /** Tern read first, with its own SIM; Gannet's phone then reads better everywhere. */
  const house = () => {
    const h = new House('router')
    const tern = h.add('sims', { name: 'Tern SIM', carrier: 'Tern' })
    for (let i = 0; i < 3; i++) h.reads('Ridge', -98, 8).reads('Kitchen', -110, 3).speed('Kitchen', 3, 0.4)
    for (const s of h.doc.setups) h.set('setups', s.id, { simId: tern })
    return h
  }
  const withGannet = () => {
    const h = house()
    const simId = h.add('sims', { name: 'Gannet SIM', carrier: 'Gannet' })
    const setupId = h.add('setups', { ...h.doc.setups[0]!, id: undefined, simId, mark: null })
    const takenAtUtc = '2026-04-03T13:00:00.000Z'
    for (let i = 0; i < 3; i++) {
      h.reads('Ridge', -75, 20, { setupId, takenAtUtc }).reads('Kitchen', -90, 15, { setupId, takenAtUtc })
      h.add('speedRuns', { ...h.doc.speedRuns[0]!, id: undefined, setupId, takenAtUtc, downMbps: 40, upMbps: 9 })
    }
    return h
  }
  it('Tern’s promise stays what it was when Gannet’s SIM is read', () => {
    const [before, after] = [house().assess().promise!, withGannet().assess().promise!]
    expect(after.down).toEqual(before.down)
    expect(after.up).toEqual(before.up)
    expect(after.assumptions).toEqual(before.assumptions)
  })
  it('nor do the approaches, but for the other SIM itself, which is named', () => {
    const of = (h: House) => advise(h.doc, h.evidence, AT).advice
    const [before, after] = [of(house()), of(withGannet())]
    for (const a of before) expect(after.find(x => x.id === a.id)?.down, a.id).toEqual(a.down)
    expect(after.find(a => a.id === 'sim')!.name).toBe('Another SIM: Gannet SIM')
  })
})

describe('what is asked for next', () => {
  it('is never what was just done', () => {
    const h = new House('router')
    for (let i = 0; i < 3; i++) h.reads('Ridge', -92, 12).reads('Kitchen', -110, 4).speed('Kitchen', 4, 0.5)
    const asked = h.assess().promise!.next?.id
    expect(asked).toBeUndefined()
    expect(new House('router').reads('Ridge', -92, 12).assess().promise!.next).not.toBeNull()
  })
  it('a share measured at SINR 2 says less of SINR 18 than one measured there', () => {
    const at = (shareSinrDb: number) => draw({ ...base, mountRsrpDbm: { mean: -80, sigma: 1 }, shareSinrDb }).down.plusMinus
    expect(at(-4)).toBeGreaterThan(1.1 * at(14))
  })
})

describe('several carriers', () => {
  const twin: AddedCarrier = {
    band: 'B3',
    bandwidthMHz: base.bandwidthMHz,
    mountRsrpDbm: base.mountRsrpDbm.mean,
    readRsrpDbm: base.readRsrpDbm.mean,
    readSinrDb: base.readSinrDb.mean,
    netGainDb: base.netGainDb.mean,
    booster: null,
  }
  const one = { sinrDb: base.readSinrDb, bandwidthMHz: 10 }

  it('two alike promise what one of them does with the share that its own speed test gives', () => {
    const alone = draw({ ...base, share: calibrateShare(9, 0.1, [one], 2) })
    const both = draw({ ...base, share: calibrateShare(9, 0.1, [one, one], 2), added: [twin] })
    expect(both.down.median).toBeCloseTo(alone.down.median, 6)
    expect(both.down.high).toBeCloseTo(alone.down.high, 6)
  })
  it('one that the kit does not carry takes its part away', () => {
    const share = calibrateShare(9, 0.1, [one, one], 2)
    expect(draw({ ...base, share }).down.median).toBeCloseTo(draw({ ...base, share, added: [twin] }).down.median / 2, 6)
  })
  it('add nothing to the upload, nor to a cap', () => {
    expect(draw({ ...base, added: [twin] }).up).toEqual(draw(base).up)
    expect(draw({ ...base, added: [twin, twin], capMbps: 5 }).down.high).toBeLessThanOrEqual(5)
  })
  it('the baseline’s own are named, and what mast or kit lacks is said', () => {
    const h = new House('router')
    for (let i = 0; i < 3; i++) {
      h.reads('Kitchen', -101, 9).reads('Kitchen', -104, 8, { band: 'B3', bandwidthMHz: 20, carrierRole: 'added' })
      h.reads('Kitchen', -112, 4, { band: 'n78', technology: 'NR', bandwidthMHz: 80, carrierRole: 'NR' })
    }
    h.reads('Ridge', -90, 10).speed('Kitchen', 12, 2).speed('Kitchen', 14, 2)
    const lacking = h.assess().promise!
    expect(lacking.on).toBe('B20')
    expect(lacking.assumptions.map(a => a.words).join()).toContain('B3, n78 not counted')
    h.add('cells', { ...h.doc.cells[0]!, id: undefined, band: 'B3', cellId: '2' })
    const carried = h.assess().promise!
    expect(carried.on).toBe('B20 + B3')
    expect(carried.assumptions.map(a => a.words).join()).toContain('n78 not counted')
    expect(carried.down.median).toBeGreaterThan(lacking.down.median)
  })
})
