import { describe, expect, it } from 'vitest'
import { bitFor, bundleMm, ductFill, holeMm, acrossCorners, mostEqual } from './ducts'
import { anchorN, couple, forceCoefficient, poleInWind, sectionModulusM3, windPa, withdrawalN } from './pole'
import type { Pole, Sail } from './pole'
import { passiveArrives, passiveMostW, poeArrives, poeClash, poeClassFor, POE_CLASSES } from '../chain/poe'

describe('power over Ethernet', () => {
  it.each([
    [1, 3.84],
    [2, 6.49],
    [3, 12.95],
    [4, 25.5],
    [5, 40],
    [6, 51],
    [7, 62],
    [8, 71.3],
  ])('class %i: %f W arrive after 100 m (IEEE 802.3)', (n, w) => {
    const c = POE_CLASSES[n - 1]!
    expect(c.deviceW).toBe(w)
    expect(poeArrives(c, 100)).toBeCloseTo(w, 0)
    expect(poeArrives(c, 0)).toBe(c.sourceW)
  })
  it('the smallest class that is enough; beyond 71.3 W none', () => {
    expect(poeClassFor(13)!.poeClass).toBe(4)
    expect(poeClassFor(12.95)!.poeClass).toBe(3)
    expect(poeClassFor(80)).toBeNull()
  })
  it('passive 24 V over 100 m: at most 15.35 W; 9 W arrive at 19.72 V', () => {
    expect(passiveMostW(24, 100)).toBeCloseTo(15.35, 2)
    expect(passiveArrives(24, 9, 100)).toBeCloseTo(19.72, 2)
    expect(passiveArrives(24, 16, 100)).toBeNull()
  })
  it('standard and passive are never mixed, nor 24 with 48 V', () => {
    expect(poeClash({ kind: 'passive', volts: 48 }, { kind: 'standard', volts: null })).toContain('destroy')
    expect(poeClash({ kind: 'standard', volts: 48 }, { kind: 'passive', volts: 24 })).toContain('dark')
    expect(poeClash({ kind: 'passive', volts: 48 }, { kind: 'passive', volts: 24 })).toContain('wants 24')
    expect(poeClash({ kind: 'standard', volts: 48 }, { kind: 'standard', volts: null })).toBeNull()
  })
})

describe('ducts and holes', () => {
  it('8 AWG of 0.0366 in² in a duct of 0.533 in²: 5.83 counts as 6 (NEC chapter 9 note 7)', () => {
    const inch2 = 645.16
    expect(mostEqual(0.0366 * inch2, 0.533 * inch2)).toBe(6)
    expect((6 * 0.0366) / 0.533).toBeCloseTo(0.412, 3)
  })
  it('one 53 %, two 31 %, more 40 %; a count never exceeds the rule by more than the note', () => {
    expect(ductFill([14], 20).most).toBe(0.53)
    expect(ductFill([7, 7], 20).most).toBe(0.31)
    expect(ductFill([5, 5, 5], 20).most).toBe(0.4)
    for (let a = 20; a < 400; a += 7) {
      const n = mostEqual(a, 800)
      if (n >= 3) expect(n * a).toBeLessThanOrEqual(0.4 * 800 + 0.2 * a + 1e-9)
    }
  })
  it('three of a kind jam where the duct is about three times as wide', () => {
    expect(ductFill([10.3, 10.3, 10.3], 29).jams).toBe(true)
    expect(ductFill([10.3, 10.3, 10.3], 40).jams).toBe(false)
  })
  it.each([
    [2, 2],
    [3, 2.1547],
    [4, 2.4142],
    [5, 2.7013],
    [7, 3],
    [8, 3.3048],
    [9, 3.6131],
    [10, 3.8131],
    [12, 4.0296],
    [19, 4.8637],
    [20, 5.1223],
  ])('%i equal cables measure %f diameters (circle packing)', (n, d) => expect(bundleMm(n, 10) / 10).toBeCloseTo(d, 4))
  it('a hole is sized by the plug: N with 20.6 mm across its flats needs 25 mm, an SMA of 8 mm 11', () => {
    expect(acrossCorners(20.6)).toBeCloseTo(23.79, 2)
    expect(holeMm([{ jacketMm: 10.3, plugMm: acrossCorners(20.6) }])).toBeCloseTo(24.79, 2)
    expect(bitFor(24.79)).toBe(25)
    expect(bitFor(90)).toBeNull()
  })
  it('plugs pass one after another: three cables of 10.3 mm with plugs of 22 need 34 mm (Descartes: 32.7 and a millimetre), not 44', () => {
    expect(holeMm(new Array(3).fill({ jacketMm: 10.3, plugMm: 22 }))).toBeCloseTo(33.7, 1)
    expect(Math.ceil(holeMm(new Array(3).fill({ jacketMm: 10.3, plugMm: 22 })))).toBe(34)
  })
  it('a bundle never shrinks by another cable, nor grows faster than side by side', () => {
    for (let n = 1; n < 60; n++) {
      expect(bundleMm(n + 1, 10)).toBeGreaterThanOrEqual(bundleMm(n, 10))
      expect(bundleMm(n + 1, 10)).toBeLessThanOrEqual(bundleMm(n, 10) + 10)
    }
  })
  it('a smaller plug never needs a larger hole, another cable never a smaller one', () => {
    const jackets = [10.3, 6.1, 5, 5]
    for (let n = 1; n <= 4; n++) {
      const hole = (plugMm: number) => holeMm(jackets.slice(0, n).map(jacketMm => ({ jacketMm, plugMm })))
      for (let p = 11; p < 26; p++) expect(hole(p)).toBeLessThanOrEqual(hole(p + 1) + 1e-9)
      if (n > 1)
        expect(hole(20)).toBeGreaterThanOrEqual(
          holeMm(jackets.slice(0, n - 1).map(jacketMm => ({ jacketMm, plugMm: 20 }))) - 1e-9,
        )
    }
    expect(() => holeMm([])).toThrow('no cable')
  })
})

describe('a pole in the wind', () => {
  const STEEL: Pole = { outsideMm: 50, wallMm: 3, lengthM: 2, fixingsM: 1, grade: 'S235' }
  const PANEL: Sail = { words: 'panel', areaM2: 0.09, coefficient: forceCoefficient('flat', 1), atM: 2 }
  it('40 m/s are 981 Pa', () => expect(windPa(40)).toBeCloseTo(981, 0))
  it('50 × 3 steel, 2 m, a 0.3 m panel at 40 m/s: 329.5 N·m, 67.1 MPa, 330 and 553 N, 0.68° (worked by hand)', () => {
    const r = poleInWind(STEEL, [PANEL], 40)
    expect(r.momentNm).toBeCloseTo(329.5, 0)
    expect(r.stressMPa).toBeCloseTo(67.1, 0)
    expect(r.lowerN).toBeCloseTo(330, -0.5)
    expect(r.upperN).toBeCloseTo(553, -0.5)
    expect(r.tipDeg).toBeCloseTo(0.68, 1)
    expect(r.used!).toBeCloseTo(67.1 / 141, 2)
  })
  it('the load grows with gust and area; at the gust it names it is just used up', () => {
    for (let v = 5; v < 60; v += 5)
      expect(poleInWind(STEEL, [PANEL], v + 5).momentNm).toBeGreaterThan(poleInWind(STEEL, [PANEL], v).momentNm)
    expect(poleInWind(STEEL, [{ ...PANEL, areaM2: 0.2 }], 30).momentNm).toBeGreaterThan(poleInWind(STEEL, [PANEL], 30).momentNm)
    const { mostGustMs } = poleInWind(STEEL, [PANEL], 30)
    expect(poleInWind(STEEL, [PANEL], mostGustMs!).used).toBeCloseTo(1, 6)
  })
  it('unknown grade: no verdict; a 40 m pole, a negative wall and a wall thicker than the tube: refused', () => {
    expect(poleInWind({ ...STEEL, grade: null }, [PANEL], 40)).toMatchObject({ used: null, tipDeg: null, mostGustMs: null })
    expect(() => poleInWind({ ...STEEL, lengthM: 40 }, [PANEL], 40)).toThrow('engineer')
    expect(() => poleInWind({ ...STEEL, wallMm: -1 }, [PANEL], 40)).toThrow(RangeError)
    expect(() => sectionModulusM3(20, 15)).toThrow('thicker')
  })
  it('force coefficients at 2.5, 7 and 25: flat 1.2, 1.4, 2.0, round 0.7, 0.8, 1.2', () => {
    expect([2.5, 7, 25].map(a => forceCoefficient('flat', a))).toEqual([1.2, 1.4, 2])
    expect([2.5, 7, 25].map(a => forceCoefficient('round', a))).toEqual([0.7, 0.8, 1.2])
  })
})

describe('screws and metals', () => {
  it('a ¼ in lag in wood of 0.42 holds 173 lb an inch (NDS table 12.2A)', () => {
    expect(withdrawalN('lag', 0.42, 6.35, 25.4) / 4.448).toBeCloseTo(173, 0)
  })
  it('an anchor without its maker’s figure has no verdict', () => {
    expect(anchorN(null)).toBeNull()
    expect(anchorN(8000)).toBe(2000)
  })
  it('a small stainless screw in aluminium is a note, a small aluminium rivet in stainless goes', () => {
    expect(couple('stainless', 'aluminium', 'normal', { smallIs: 'stainless' }).says).toBe('note')
    expect(couple('stainless', 'aluminium', 'normal', { smallIs: 'aluminium' }).says).toBe('fix')
    expect(couple('steel', 'aluminium', 'harsh').says).toBe('good')
    expect(couple('copper', 'galvanised', 'controlled').says).toBe('fix')
  })
})
