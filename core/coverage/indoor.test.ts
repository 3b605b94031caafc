import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { freeSpaceLossDb } from '../radio/freespace'
import { exponentOf, needAtDbm, USE_FIGURES } from '../site/use'
import { moveAlong } from '../site/frame'
import { USES } from '../job/schema'
import { indoorLossDb } from './indoor'

const loss = (distanceM: number, frequencyMHz: number, o: Partial<Parameters<typeof indoorLossDb>[0]> = {}) =>
  indoorLossDb({ distanceM, frequencyMHz, n: 28, ...o })

describe('inside', () => {
  it('at 1 m is free space to within 0.5 dB', () => {
    // ITU-R P.1238 is built so: 20·log f − 28 is free space over 1 m (20·log f − 27.55).
    for (const f of [806, 1842, 2655]) expect(loss(1, f)).toBeCloseTo(freeSpaceLossDb(1, f), 0)
  })
  it('worked value: 10 m at 1842 MHz through a floor of 4 dB is 69.3 dB', () => {
    // 20·log10(1842) + 28·1 + 4 − 28 = 65.31 + 4; ITU-R P.1238 gives a residential floor 4 dB.
    expect(loss(10, 1842, { slabsDb: 4 })).toBeCloseTo(69.31, 2)
  })
  // ITU-R P.1238 table 2, from memory: office 33 at 900 MHz and 30 at 1.8–2 GHz, commercial 20 and 22, residential 28.
  it.each([
    ['office', 900, 33],
    ['office', 1900, 30],
    ['shop', 900, 20],
    ['shop', 1900, 22],
    ['home', 1900, 28],
    ['hall', 1900, 20],
  ] as const)('ten times the distance in %s at %i MHz costs %i dB', (use, f, n) => {
    const at = (distanceM: number) => indoorLossDb({ distanceM, frequencyMHz: f, n: exponentOf(use, f) })
    expect(at(20) - at(2)).toBeCloseTo(n, 9)
  })
  it('is never below what it is at 1 m, and grows with distance and frequency', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 60, noNaN: true }), fc.double({ min: 600, max: 3800, noNaN: true }), (d, f) => {
        expect(loss(d, f)).toBeGreaterThanOrEqual(loss(1, f) - 1e-9)
        expect(loss(d * 1.5, f)).toBeGreaterThanOrEqual(loss(d, f))
        expect(loss(d, f + 50)).toBeGreaterThan(loss(d, f))
      }),
    )
  })
  it('walls drawn never make a way better, add nothing at first, and count one by one from there on', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 60, noNaN: true }),
        fc.double({ min: 0, max: 60, noNaN: true }),
        fc.double({ min: 20, max: 33, noNaN: true }),
        (d, wallsDb, n) => {
          expect(loss(d, 806, { n, wallsDb })).toBeGreaterThanOrEqual(loss(d, 806, { n }))
          // Continuous: a tenth of a dB of wall is a tenth of a dB at most.
          const step = loss(d, 806, { n, wallsDb: wallsDb + 0.1 }) - loss(d, 806, { n, wallsDb })
          expect(step).toBeGreaterThanOrEqual(-1e-9)
          expect(step).toBeLessThanOrEqual(0.1 + 1e-9)
          // Never under free space and the walls themselves.
          expect(loss(d, 806, { n, wallsDb })).toBeGreaterThanOrEqual(loss(d, 806, { n: 20 }) + wallsDb - 1e-9)
        },
      ),
    )
  })
  it('refuses no distance, and a coefficient under free space', () => {
    expect(() => loss(0, 806)).toThrow('distanceM must be above 0, got 0')
    expect(() => loss(NaN, 806)).toThrow(RangeError)
    expect(() => loss(3, 806, { n: 18 })).toThrow(/n must be/)
  })
})

describe('what rooms are used as', () => {
  const job = { kind: 'building', agreedDownMbps: 5, agreedCalls: false, needDataDbm: null, needCallsDbm: null } as const
  const room = { use: null, needDbm: null }
  it('offices are designed for −85 dBm, stores for −95; a figure of the job or of the room stands over it', () => {
    // Common practice (no source).
    expect(needAtDbm(job, room)).toBe(-85)
    expect(needAtDbm(job, { ...room, use: 'store' })).toBe(-95)
    expect(needAtDbm({ ...job, kind: 'home' }, room)).toBe(-100)
    expect(needAtDbm({ ...job, needDataDbm: -97 }, room)).toBe(-97)
    expect(needAtDbm({ ...job, needDataDbm: -97 }, { ...room, needDbm: -80 })).toBe(-80)
    expect(needAtDbm({ ...job, agreedDownMbps: null, agreedCalls: true }, room)).toBe(-105)
  })
  it('one antenna serves 110 to 140 m², the closer the higher the level', () => {
    for (const u of USES) {
      expect(USE_FIGURES[u].areaM2).toBeGreaterThanOrEqual(110)
      expect(USE_FIGURES[u].areaM2).toBeLessThanOrEqual(140)
    }
    const byLevel = (['office', 'shop', 'store'] as const).map(u => USE_FIGURES[u])
    expect(byLevel.map(u => u.areaM2)).toEqual([...byLevel].sort((a, b) => b.designDbm - a.designDbm).map(u => u.areaM2))
  })
  it('walls drawn on a floor make no room of it better, in the sum and on the map', () => {
    const h = new House('booster', 'building').reads('Roof', -70)
    const levels = () => new Map(h.assess().rooms.map(r => [r.spot.name, r.rsrpDbm]))
    const before = levels()
    const site = h.doc.sites[0]!
    for (const alongM of [-9, -4, 1, 6, 11]) {
      const [from, to] = [-7, 7].map(across =>
        moveAlong(
          { axisDeg: site.axisDeg + 90 },
          { ...moveAlong(site, { eastM: 0, northM: 0, upM: 0 }, alongM, 1), upM: 0 },
          across,
          1,
        ),
      )
      h.add('walls', {
        level: 0,
        fromEastM: from!.eastM,
        fromNorthM: from!.northM,
        toEastM: to!.eastM,
        toNorthM: to!.northM,
        material: 'plasterboard',
        lossDb: null,
      })
      for (const [name, dbm] of levels()) expect(dbm, name).toBeLessThanOrEqual(before.get(name)! + 1e-9)
    }
  })
})
