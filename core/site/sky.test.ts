import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { buildingOf } from './building'
import { roofBlockers, skyView, blockerOf } from './sky'

const ring = (elevationDeg: number, fromDeg = 0, toDeg = 359.999) => ({ name: 'hills', fromDeg, toDeg, elevationDeg })
const zenith = (halfFieldDeg: number) => ({ azimuthDeg: 0, tiltDeg: 0, halfFieldDeg })

describe('a satellite terminal’s sky', () => {
  it('an even skyline hides what its solid angle says', () => {
    // Solid angle of a cone, 2π(1 − cos θ): of a window to 60° from the zenith, hills to 45° leave (1 − cos 45°)/(1 − cos 60°).
    const left = (1 - Math.cos(Math.PI / 4)) / (1 - Math.cos(Math.PI / 3))
    expect(Math.abs(skyView(zenith(60), [ring(45)]).hidden - (1 - left))).toBeLessThan(0.02)
    expect(skyView(zenith(50), [ring(39)]).hidden).toBe(0)
  })
  it('a quarter of the skyline hides a quarter of that', () => {
    const all = skyView(zenith(60), [ring(45)]).hidden
    expect(skyView(zenith(60), [ring(45, 315, 45)]).hidden).toBeCloseTo(all / 4, 2)
  })
  it('two over one another hide no more than the higher', () => {
    const both = skyView(zenith(60), [ring(40), { ...ring(45), name: 'trees' }])
    expect(both.hidden).toBe(skyView(zenith(60), [ring(45)]).hidden)
    expect(both.by.map(b => b.name)).toEqual(['trees'])
  })
  it('turning window and skyline together changes nothing; a window tilted away from a ridge sees more', () => {
    const at = (turnDeg: number) =>
      skyView({ azimuthDeg: turnDeg, tiltDeg: 20, halfFieldDeg: 50 }, [ring(50, 150 + turnDeg, (210 + turnDeg) % 360)]).hidden
    expect(at(90)).toBeCloseTo(at(0), 2)
    const toward = skyView({ azimuthDeg: 180, tiltDeg: 20, halfFieldDeg: 50 }, [ring(50, 150, 210)]).hidden
    expect(at(0)).toBeLessThan(toward)
  })
  it('half of a cone laid on its side looks into the ground', () => {
    expect(skyView({ azimuthDeg: 0, tiltDeg: 90, halfFieldDeg: 40 }, []).hidden).toBeCloseTo(0.5, 2)
  })
  it('a mast 4 m off that stands 4 m higher reaches 45°', () => {
    const m = blockerOf('mast', { eastM: 0, northM: 0, upM: 6 }, { eastM: 0, northM: 4, upM: 10 }, 0.4)!
    expect(m.elevationDeg).toBeCloseTo(45, 6)
    expect(m.fromDeg).toBeCloseTo(360 - 2.86, 1)
    expect(m.toDeg).toBeCloseTo(2.86, 1)
    expect(blockerOf('mast', { eastM: 0, northM: 0, upM: 6 }, { eastM: 0, northM: 4, upM: 5 }, 0.4)).toBeNull()
  })
  it('over the ridge the roof hides nothing; low on the wall it hides its side of the sky', () => {
    const b = buildingOf(new House().doc)
    expect(roofBlockers(b, { eastM: 0, northM: 0, upM: b.eavesM + b.riseM + 0.5 })).toEqual([])
    const low = roofBlockers(b, { eastM: 0, northM: b.halfDepthM + 1, upM: 1.5 })
    expect(low.length).toBeGreaterThan(0)
    expect(low.every(x => Math.abs(((x.fromDeg + 2.5) % 360) - 180) <= 90)).toBe(true)
  })
  it('what is no cone is refused', () => {
    expect(() => skyView(zenith(Number.NaN), [])).toThrow(RangeError)
    expect(() => skyView(zenith(120), [])).toThrow(RangeError)
  })
})
