import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { relativeBearing } from '../geo/angles'
import { fixedBeamOver, sayBeside, sayRelative } from './nose'

const panel = { beamwidthDeg: 65, frontToBackDb: 20 }

describe('from the nose', () => {
  it('a bearing less the heading', () => {
    expect(relativeBearing(10, 350)).toBe(20)
    expect(relativeBearing(350, 10)).toBe(340)
  })
  it('is said as people aboard say it', () => {
    expect(sayRelative(37, 'vehicle')).toBe('37° right of the nose')
    expect(sayRelative(300, 'boat')).toBe('60° to port of the bow')
    expect(sayRelative(0.3, 'boat')).toBe('dead ahead')
    expect(sayRelative(180, 'boat')).toBe('dead astern')
  })
  it('or from a landmark', () => {
    expect(sayBeside(358, 10, 'the chapel')).toBe('12° left of the chapel')
    expect(sayBeside(10, 10, 'the chapel')).toBe('right on the chapel')
  })
})

describe('a beam on what swings', () => {
  it('65° wide serves ±32.5° within 3 dB, the definition of its width', () => {
    expect(fixedBeamOver(32.5, panel)).toMatchObject({ serves: true, withinDeg: 32.5 })
    expect(fixedBeamOver(32.5, panel).worstDb).toBeCloseTo(3, 9)
    expect(fixedBeamOver(40, panel).serves).toBe(false)
  })
  it('an omni serves any heading', () =>
    expect(fixedBeamOver(180, { beamwidthDeg: 360, frontToBackDb: 0 })).toEqual({
      worstDb: 0,
      meanDb: 0,
      withinDeg: 180,
      serves: true,
    }))
  it('swinging all the way costs its front-to-back ratio at worst', () => expect(fixedBeamOver(180, panel).worstDb).toBe(20))
  it('never loses less at worst than on average, nor less for swinging more', () =>
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 170, noNaN: true }),
        fc.double({ min: 10, max: 200, noNaN: true }),
        (swing, beamwidthDeg) => {
          const a = fixedBeamOver(swing, { beamwidthDeg, frontToBackDb: 25 })
          expect(a.worstDb).toBeGreaterThanOrEqual(a.meanDb - 1e-9)
          expect(fixedBeamOver(swing + 10, { beamwidthDeg, frontToBackDb: 25 }).worstDb).toBeGreaterThanOrEqual(a.worstDb - 1e-9)
        },
      ),
    ))
})
