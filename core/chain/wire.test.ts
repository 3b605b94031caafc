import { describe, expect, it } from 'vitest'
import { awgMm, awgMm2, wireById, WIRES } from '../catalogue/wires'
import { ampHoursADay, fedBy, fuseFor, ohmPerKm, throughInverterAh, wireFor } from './wire'

describe('conductors', () => {
  it.each([
    // ASTM B258: diameters in mils.
    [36, 5],
    [18, 40.3],
    [12, 80.8],
    [10, 101.9],
    [0, 324.9],
  ])('%i AWG is %f mil', (awg, mil) => expect(awgMm(awg) / 0.0254).toBeCloseTo(mil, 1))
  it('12 AWG: 5.211 Ω/km at 20 °C, 6.33 solid and 6.50 stranded at 75 °C (NEC chapter 9 table 8)', () => {
    expect(ohmPerKm(awgMm2(12))).toBeCloseTo(5.211, 2)
    expect(ohmPerKm(awgMm2(12), { atC: 75 })).toBeCloseTo(6.33, 1)
    expect(ohmPerKm(awgMm2(12), { atC: 75, stranded: true })).toBeCloseTo(6.5, 1)
  })
  it('zero wire, nothing and nonsense are refused', () => {
    for (const bad of [0, -1, Number.NaN, Infinity]) expect(() => ohmPerKm(bad)).toThrow(RangeError)
    expect(() => fedBy(12, 0, { lengthM: 6, mm2: 1.5 })).toThrow(RangeError)
    expect(() => fedBy(12, 24, { lengthM: -6, mm2: 1.5 })).toThrow(RangeError)
  })
})

describe('a feed', () => {
  it('24 W at 12 V over 6 m of 1.5 mm²: 11.717 V, 2.35 % (worked by hand)', () => {
    const f = fedBy(12, 24, { lengthM: 6, mm2: 1.5 })
    expect(f.volts).toBeCloseTo(11.717, 3)
    expect(f.dropShare! * 100).toBeCloseTo(2.35, 2)
    expect(f.volts! * f.amps!).toBeCloseTo(24, 9)
  })
  it('as it is bought, of class 5 at 13.3 Ω/km (IEC 60228): 11.672 V, 2.73 %', () => {
    const f = fedBy(12, 24, { lengthM: 6, mm2: 1.5, stranded: true })
    expect(f.volts).toBeCloseTo(11.672, 3)
    expect(f.dropShare! * 100).toBeCloseTo(2.73, 2)
  })
  it('a box that a thin wire starves has no voltage at all', () => {
    expect(fedBy(12, 60, { lengthM: 30, mm2: 0.5 })).toEqual({ volts: null, amps: null, dropShare: null })
  })
  it('longer or thinner is never better', () => {
    for (let m = 1; m < 20; m++)
      expect(fedBy(12, 20, { lengthM: m + 1, mm2: 1.5 }).volts!).toBeLessThan(fedBy(12, 20, { lengthM: m, mm2: 1.5 }).volts!)
    const by = [...WIRES].sort((a, b) => a.mm2 - b.mm2)
    for (let i = 1; i < by.length; i++)
      expect(fedBy(12, 10, { lengthM: 8, mm2: by[i]!.mm2 }).volts!).toBeGreaterThan(
        fedBy(12, 10, { lengthM: 8, mm2: by[i - 1]!.mm2 }).volts!,
      )
  })
  it('the wire chosen keeps 3 % at the lowest voltage of the source, and the next thinner does not', () => {
    const by = [...WIRES].sort((a, b) => a.mm2 - b.mm2)
    for (const [w, m] of [
      [12, 5],
      [24, 3],
      [18, 8],
    ] as const) {
      const chosen = wireFor(12, w, m)!
      const drop = (mm2: number) => fedBy(10.5, w, { lengthM: m, mm2, stranded: true }).dropShare
      expect(drop(chosen.mm2)!).toBeLessThanOrEqual(0.03)
      const thinner = by[by.indexOf(chosen) - 1]
      if (thinner) expect(drop(thinner.mm2) === null || drop(thinner.mm2)! > 0.03 || 1.25 * (w / 10.5) > thinner.fuseA).toBe(true)
    }
    expect(wireFor(12, 200, 40)).toBeNull()
  })
  it('12 W at 12.8 V are 22.5 Ah a day, 41.5 through an inverter', () => {
    expect(ampHoursADay(12, 12.8)).toBeCloseTo(22.5, 1)
    expect(throughInverterAh(12, 12.8)).toBeCloseTo(41.5, 1)
  })
})

describe('a fuse', () => {
  const clear = { faultA: 500, breaksA: 1000 }
  it('18 AWG bears 7 A, 14 AWG 15, 10 AWG 30 (NEC 240.4(D))', () => {
    expect(['awg18', 'awg16', 'awg14', 'awg12', 'awg10'].map(id => wireById(id)!.fuseA)).toEqual([7, 10, 15, 20, 30])
  })
  it('never above what its wire takes, never below its load with a quarter over', () => {
    for (const w of WIRES)
      for (let a = 0.2; a < 30; a += 0.7) {
        const f = fuseFor(a, [w.fuseA], clear)
        if ('refused' in f) expect(1.25 * a).toBeGreaterThan(w.fuseA * 0.5)
        else {
          expect(f.amps).toBeLessThanOrEqual(w.fuseA)
          expect(f.amps).toBeGreaterThanOrEqual(1.25 * a - 1e-9)
        }
      }
  })
  it('an unknown interrupting rating is refused, and one below the fault current', () => {
    expect(fuseFor(2, [10], { faultA: 500, breaksA: null })).toHaveProperty('refused')
    expect(fuseFor(2, [10], { faultA: 3000, breaksA: 1000 })).toHaveProperty('refused')
    expect(fuseFor(2, [10], clear)).toMatchObject({ amps: 3 })
  })
})
