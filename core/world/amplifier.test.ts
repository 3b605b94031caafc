import { describe, expect, it } from 'vitest'
import { bandTotalDbm, roundTripDb, switchOn } from './amplifier'

const HOME = { gainDb: 62, lowestGainDb: 35, outputDbm: 12, shutDownDbm: -30 }
const PLAIN = { ...HOME, lowestGainDb: 62 }

describe('a simulated booster', () => {
  it('runs with room to spare, is held back without, rings where it cannot come down', () => {
    expect(switchOn(HOME, 80, -60)).toEqual({ state: 'runs', gainDb: 62, by: 'nothing' })
    expect(switchOn(HOME, 60, -60)).toMatchObject({ state: 'held back', gainDb: 51, by: 'isolation' })
    expect(switchOn(HOME, 30, -60).state).toBe('oscillates')
    expect(switchOn(PLAIN, 60, -60).state).toBe('oscillates')
  })
  it('never sends more than its limit, and shuts down before a mast next door', () => {
    for (const inDbm of [-70, -55, -48, -40, -31]) {
      const r = switchOn(HOME, 90, inDbm)
      expect(inDbm + r.gainDb).toBeLessThanOrEqual(HOME.outputDbm + 1e-9)
    }
    expect(switchOn(HOME, 90, -25)).toMatchObject({ state: 'overloaded', gainDb: 0 })
  })
  it('more isolation never means less gain', () => {
    let last = 0
    for (let i = 0; i <= 100; i++) {
      const { gainDb } = switchOn(HOME, i, -60)
      expect(gainDb).toBeGreaterThanOrEqual(last)
      last = gainDb
    }
  })
  it('ten metres of free air at 900 MHz are 51.5 dB (ITU-R P.525), antennas take off what they give', () => {
    const at = { mhz: 900, metres: 10, donorDbi: 0, serverDbi: 0, betweenDb: 0, linesDb: 0 }
    expect(roundTripDb(at)).toBeCloseTo(51.5, 1)
    expect(roundTripDb({ ...at, donorDbi: -8, serverDbi: 2, betweenDb: 10 })).toBeCloseTo(67.5, 1)
    expect(roundTripDb({ ...at, metres: 0.01, donorDbi: 60 })).toBe(0)
  })
  it('a 10 MHz carrier of −90 dBm an element is 24.8 dB more in all, half sent; two of them 3 dB more', () => {
    expect(bandTotalDbm([-90], 10)).toBeCloseTo(-90 + 27.78 - 3.01, 1)
    expect(bandTotalDbm([-90, -90], 10) - bandTotalDbm([-90], 10)).toBeCloseTo(3.01, 2)
  })
})
