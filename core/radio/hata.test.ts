import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { freeSpaceLossDb } from './freespace'
import { hataCase, hataLossDb, hataName } from './hata'

const at = (o: Partial<Parameters<typeof hataLossDb>[0]> = {}) =>
  hataLossDb({ frequencyMHz: 900, baseM: 50, mobileM: 1.5, distanceKm: 1, surroundings: 'urban', ...o })

describe('Hata', () => {
  // 3GPP TR 43.030 annex A (GSM 03.30), from memory: 900 MHz, base 50 m, mobile 1.5 m: urban 123.3 + 33.7 log d, suburban 9.9 dB less;
  // 1800 MHz, base 50 m: medium city and suburban centres 133.2 + 33.8 log d.
  it.each([
    [1, 123.3],
    [5, 123.3 + 33.7 * Math.log10(5)],
    [20, 123.3 + 33.7 * Math.log10(20)],
  ])('published urban loss at 900 MHz, %f km', (distanceKm, loss) => expect(at({ distanceKm })).toBeCloseTo(loss, 0))
  it('published suburban loss at 900 MHz', () => expect(at({ surroundings: 'suburban' })).toBeCloseTo(123.3 - 9.9, 0))
  it('published COST-231 loss at 1800 MHz', () =>
    expect(at({ frequencyMHz: 1800, distanceKm: 3 })).toBeCloseTo(133.2 + 33.8 * Math.log10(3), 0))
  // Textbook case, e.g. T. S. Rappaport's set-up, from memory of the formula worked by hand: 900 MHz, 30 m, 1.5 m, 1 km, urban 126.4.
  it('worked by hand: 900 MHz, base 30 m', () => expect(at({ baseM: 30 })).toBeCloseTo(126.4, 1))
  it('open country at 900 MHz is 28.5 dB better than town', () => {
    // 4.78·log²f − 18.33·log f + 40.94 at f = 900.
    expect(at() - at({ surroundings: 'open' })).toBeCloseTo(4.78 * 2.9542425 ** 2 - 18.33 * 2.9542425 + 40.94, 6)
  })
  it('the two formulas meet within 3 dB at 1500 MHz in town', () =>
    expect(Math.abs(at({ frequencyMHz: 1500 }) - at({ frequencyMHz: 1501 }))).toBeLessThan(3))
  it('a large city has its own term below 1500 MHz, with a switch at 300', () =>
    expect(at({ largeCity: true, mobileM: 1.5, frequencyMHz: 400 }) - at({ frequencyMHz: 400 })).toBeCloseTo(
      (1.1 * Math.log10(400) - 0.7) * 1.5 - (1.56 * Math.log10(400) - 0.8) - (3.2 * Math.log10(11.75 * 1.5) ** 2 - 4.97),
      9,
    ))
  // COST 231 final report §4.4: C = 0 for medium cities and suburban centres, 3 for metropolitan ones; a(hm) of the
  // small and medium city for both, at every mobile height.
  it.each([1.5, 5, 10])('above 1500 MHz a metropolitan centre costs 3 dB more, whatever the height (%f m)', mobileM => {
    const o = { frequencyMHz: 1800, mobileM }
    expect(at({ ...o, largeCity: true }) - at(o)).toBeCloseTo(3, 9)
    expect(at({ ...o, surroundings: 'suburban' })).toBe(at(o))
    expect(at({ ...o, surroundings: 'open' })).toBe(at(o))
  })
  it('says that COST-231 speaks of suburbs where open country was asked for', () => {
    expect(hataCase(1800, 'open')).toBe('suburban')
    expect(hataCase(900, 'open')).toBe('open')
  })
  it.each([
    { frequencyMHz: 149 },
    { frequencyMHz: 2100 },
    { baseM: 29 },
    { baseM: 201 },
    { mobileM: 0.5 },
    { mobileM: 12 },
    { distanceKm: 0.5 },
    { distanceKm: 21 },
    { distanceKm: NaN },
  ])('refuses %o', o => expect(() => at(o)).toThrow(RangeError))
  it('in town it is never less than free space, and grows with distance', () =>
    fc.assert(
      fc.property(
        fc.double({ min: 150, max: 2000, noNaN: true }),
        fc.double({ min: 30, max: 200, noNaN: true }),
        fc.double({ min: 1, max: 10, noNaN: true }),
        fc.double({ min: 1, max: 19, noNaN: true }),
        (frequencyMHz, baseM, mobileM, distanceKm) => {
          const i = { frequencyMHz, baseM, mobileM, distanceKm }
          expect(at({ ...i, mobileM: Math.min(mobileM, 3) })).toBeGreaterThan(freeSpaceLossDb(distanceKm * 1000, frequencyMHz))
          expect(at({ ...i, distanceKm: distanceKm + 1 })).toBeGreaterThan(at(i))
        },
      ),
    ))
  it('says its name', () => expect([hataName(800), hataName(1800)]).toEqual(['Okumura-Hata', 'COST-231-Hata']))
})
