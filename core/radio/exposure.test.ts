import { describe, expect, it } from 'vitest'
import { densityWm2, keepAwayM, publicLimitWm2 } from './exposure'

describe('exposure of the general public', () => {
  it.each([
    // ICNIRP 2020 table 5 and FCC OET 65 table 1(B), from memory.
    ['ICNIRP 2020', 800, 4],
    ['ICNIRP 2020', 900, 4.5],
    ['ICNIRP 2020', 1800, 9],
    ['ICNIRP 2020', 2600, 10],
    ['FCC OET 65', 900, 6],
    ['FCC OET 65', 1500, 10],
    ['FCC OET 65', 1900, 10],
  ] as const)('%s at %i MHz: %f W/m²', (rule, f, limit) => expect(publicLimitWm2(rule, f)).toBeCloseTo(limit, 9))
  it('1 W of EIRP gives 0.0796 W/m² at 1 m', () => expect(densityWm2(30, 1)).toBeCloseTo(1 / (4 * Math.PI), 9))
  it('a consumer booster’s 17 dBm with 5 dBi keeps the limit far inside the 20 cm that makers print', () =>
    // 22 dBm is 0.158 W: √(0.158/(4π·4)) = 5.6 cm at 800 MHz.
    expect(keepAwayM('ICNIRP 2020', [{ eirpDbm: 22, frequencyMHz: 800 }])).toBeCloseTo(0.0561, 3))
  it('bands add: four alike reach twice as far', () => {
    const one = [{ eirpDbm: 30, frequencyMHz: 800 }]
    expect(keepAwayM('ICNIRP 2020', [...one, ...one, ...one, ...one])).toBeCloseTo(2 * keepAwayM('ICNIRP 2020', one), 9)
  })
  it('refuses what neither table covers, at both its ends, and takes the ends themselves', () => {
    expect(() => publicLimitWm2('FCC OET 65', 100)).toThrow('400…100000, got 100')
    expect(() => publicLimitWm2('ICNIRP 2020', 399.9)).toThrow('400…100000')
    expect(() => publicLimitWm2('ICNIRP 2020', 100_001)).toThrow('400…100000')
    expect(publicLimitWm2('ICNIRP 2020', 400)).toBeCloseTo(2, 9)
    expect(publicLimitWm2('ICNIRP 2020', 100_000)).toBe(10)
  })
  it('both tables meet their flat part where they say', () => {
    // f/200 is 10 W/m² at 2000 MHz, f/1500 mW/cm² is 10 W/m² at 1500 MHz.
    expect(publicLimitWm2('ICNIRP 2020', 1999.999)).toBeCloseTo(10, 4)
    expect(publicLimitWm2('FCC OET 65', 1499.999)).toBeCloseTo(10, 4)
    expect(publicLimitWm2('ICNIRP 2020', 1500)).toBeCloseTo(7.5, 9)
  })
})
