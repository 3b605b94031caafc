import { describe, expect, it } from 'vitest'
import { DEFAULT_SITE } from '../job/defaults'
import { BODIES } from '../job/schema'
import { SHAPES_OF } from '../drawing/bodies'
import { BODY_FIGURES, bodyOf, withBody } from './bodies'

const van = { ...DEFAULT_SITE.vehicle, id: 's' }

describe('bodies of what moves', () => {
  it('a site of before is a van, or a sailing boat', () => {
    expect(bodyOf({ body: null }, 'vehicle')).toBe('van')
    expect(bodyOf({ body: null }, 'boat')).toBe('sailing boat')
  })
  it('figures that nobody changed take those usual of the body; others stay', () => {
    const bus = withBody({ ...van, lengthM: 9.3 }, 'bus', DEFAULT_SITE.vehicle)
    expect(bus).toMatchObject({ body: 'bus', depthM: BODY_FIGURES.bus.depthM, storeyHeightM: BODY_FIGURES.bus.storeyHeightM })
    expect(bus).not.toHaveProperty('lengthM')
    // And on from one body to the next.
    const next = withBody({ ...van, ...bus, lengthM: 9.3 }, 'pick-up', DEFAULT_SITE.vehicle)
    expect(next.storeyHeightM).toBe(BODY_FIGURES['pick-up'].storeyHeightM)
  })
  it('no vehicle is higher than 4 m or longer than 12 m unless it is measured so', () => {
    // Directive 96/53/EC: 4.00 m high, a single vehicle 12 m long, 2.55 m wide.
    for (const b of BODIES.map(x => BODY_FIGURES[x]).filter(x => x.kind === 'vehicle')) {
      expect(b.storeyHeightM).toBeLessThanOrEqual(4)
      expect(b.lengthM).toBeLessThanOrEqual(12)
      expect(b.depthM).toBeLessThanOrEqual(2.55)
    }
  })
  it('every body is drawn within its length and its roof, standing on its wheels', () => {
    for (const [body, s] of Object.entries(SHAPES_OF)) {
      const all = [...s.outline, ...s.panes.flat(), ...s.lines.flat()]
      for (const [along, up] of all) {
        expect(Math.abs(along), body).toBeLessThanOrEqual(1)
        expect(up, body).toBeGreaterThanOrEqual(0)
        expect(up, body).toBeLessThanOrEqual(1)
      }
      expect(Math.max(...s.outline.map(o => o[1])), body).toBe(1)
      expect(s.wheels.length, body).toBeGreaterThan(0)
    }
  })
})
